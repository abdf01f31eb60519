import type { BuildView } from "@/core/sheet";
import { SelectField } from "../fields/fields";

/** Asks which family an image is like that Derrick does not know: the steps are made from that family's screens. */
export function LikeFamily({
  families,
  onChoose,
}: {
  families: BuildView["choices"]["families"];
  onChoose: (family: string) => void;
}) {
  return (
    <div className="col-span-full border-l-4 py-1 pl-3 border-warning">
      <p className="mb-1">
        This image belongs to no OS family that Derrick knows. Choose the family that it is most similar to:
        the build uses its screens and rules, and you compare each with what the installer really shows.
      </p>
      <SelectField
        path="image.family"
        label="Similar to"
        value=""
        empty="choose…"
        options={families.map((f) => ({ value: f.key, text: `${f.name} – ${f.family}` }))}
        onChange={onChoose}
        hint="If it differs, create a profile of your own: Images, OS profiles, Duplicate and edit."
      />
    </div>
  );
}
