import { term } from "@/core/text";
import { WRITTEN, type RegisterEntry } from "@/core/machine";
import { useKept } from "../draft/use-kept";
import { ChoiceField, SelectField } from "../fields/fields";
import { Slip } from "../frame/dialog";

export interface Writing {
  imageId: string;
  written: (typeof WRITTEN)[number];
  scheme: RegisterEntry["scheme"];
  compared: boolean;
}

const EMPTY: Writing = { imageId: "", written: "as the image", scheme: "GPT", compared: false };

/** A stick was written outside of a run: with which image, for which firmware, and whether it was read back. */
export function WritingSlip({
  open,
  onClose,
  images,
  keep,
}: {
  open: boolean;
  onClose: () => void;
  images: readonly { id: string; name: string }[];
  /** `kept` is called once it stands in the register; until then what was typed stays. */
  keep: (writing: Writing, kept: () => void) => void;
}) {
  const [values, setValues] = useKept("writing", EMPTY);
  const set = (part: Partial<Writing>) => setValues({ ...values, ...part });
  const prepared = values.written === "uefi" || values.written === "legacy";
  return (
    <Slip open={open} onClose={onClose} title="Record an image write">
      <div className="grid gap-3">
        <SelectField
          path="w.image"
          label="Image"
          value={values.imageId}
          empty="choose…"
          options={images.map((i) => ({ value: i.id, text: i.name }))}
          onChange={(imageId) => set({ imageId })}
        />
        <SelectField
          path="w.written"
          label="Write mode"
          value={values.written}
          options={WRITTEN.filter((w) => w !== "data only").map((w) => ({ value: w, text: term(w) }))}
          onChange={(v) => set({ written: v as Writing["written"] })}
        />
        {prepared && (
          <ChoiceField
            path="w.scheme"
            label="Partition scheme"
            value={values.scheme ?? "GPT"}
            options={[
              { value: "GPT", text: "GPT" },
              { value: "MBR", text: "MBR" },
            ]}
            onChange={(scheme) => set({ scheme })}
          />
        )}
        <ChoiceField
          path="w.compared"
          label="Verified"
          value={values.compared ? "yes" : "no"}
          options={[
            { value: "no", text: "no" },
            { value: "yes", text: "yes, identical" },
          ]}
          onChange={(v) => set({ compared: v === "yes" })}
        />
      </div>
      <button
        type="button"
        className="btn btn-primary mt-4"
        disabled={values.imageId === ""}
        onClick={() => keep({ ...values, scheme: prepared ? values.scheme : null }, () => setValues(EMPTY))}
      >
        Save
      </button>
    </Slip>
  );
}
