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
        By its name and its inside, this image is of no family that Derrick knows. Take the one that it is
        most like: its screens and rules are followed then, and each of them is compared with what is really
        shown.
      </p>
      <SelectField
        path="image.family"
        label="It is like"
        value=""
        empty="choose …"
        options={families.map((f) => ({ value: f.key, text: `${f.name} – ${f.family}` }))}
        onChange={onChoose}
        hint="Where it turns out to differ, make the family yours on its page: Images, OS profiles."
      />
    </div>
  );
}
