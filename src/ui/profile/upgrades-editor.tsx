import { useFieldArray, useFormContext } from "react-hook-form";
import { ASPECTS, TARGET_KINDS, type Profile } from "@/core/image";
import { Choice, Input, Lines, Ticks } from "./inputs";
import { ScreensEditor } from "./screens-editor";

/** What is kept and lost, by ticks from the closed list. */
export function FateEditor({ path }: { path: string }) {
  return (
    <>
      <Ticks path={`${path}.keeps`} label="Keeps" options={ASPECTS} />
      <Ticks path={`${path}.loses`} label="Loses" options={ASPECTS} />
      <Input path={`${path}.words`} label="In words" wide />
    </>
  );
}

/** The allowed jumps onto this version. */
export function UpgradesEditor() {
  const { control, getValues } = useFormContext<Profile>();
  const { fields, append, remove } = useFieldArray({ control, name: "upgrades" });
  return (
    <>
      {fields.map((field, i) => (
        <details key={field.id} className="border-b py-1 border-base-300">
          <summary className="cursor-pointer">
            {field.way} from {field.from.profile || "…"} {field.from.least ?? field.from.version}
          </summary>
          <div className="grid gap-x-6 gap-y-2 py-2 pl-6 grid-cols-[repeat(auto-fit,minmax(min(15rem,100%),1fr))]">
            <Input path={`upgrades.${i}.from.profile`} label="From profile" />
            <Input path={`upgrades.${i}.from.version`} label="From line" />
            <Input path={`upgrades.${i}.from.least`} label="Minimum version" />
            <Input path={`upgrades.${i}.to`} label="Resulting version, if not this one" />
            <Input path={`upgrades.${i}.id`} label="Short name" />
            <Choice path={`upgrades.${i}.way`} label="Kind" options={["upgrade", "convert"]} />
            <Choice
              path={`upgrades.${i}.through`}
              label="Performed by"
              options={["installer", "running system"]}
            />
            <Lines path={`upgrades.${i}.needs`} label="Required before" />
            <FateEditor path={`upgrades.${i}.fate`} />
            <ScreensEditor path={`upgrades.${i}.screens`} what="screen" />
            <button type="button" className="link justify-self-start" onClick={() => remove(i)}>
              Remove upgrade
            </button>
          </div>
        </details>
      ))}
      <button
        type="button"
        className="link mt-1"
        onClick={() =>
          append({
            id: "",
            from: { profile: getValues("profile"), version: "" },
            way: "upgrade",
            through: "installer",
            needs: [],
            fate: { keeps: [], loses: [], words: "" },
            screens: [],
          })
        }
      >
        Add upgrade
      </button>
    </>
  );
}

/** Faults that are known before they are met. */
export function FaultsEditor() {
  const { control } = useFormContext<Profile>();
  const { fields, append, remove } = useFieldArray({ control, name: "knownFaults" });
  return (
    <>
      {fields.map((field, i) => (
        <div
          key={field.id}
          className="grid gap-x-6 gap-y-2 border-b py-2 grid-cols-[repeat(auto-fit,minmax(min(15rem,100%),1fr))] border-base-300"
        >
          <Input path={`knownFaults.${i}.looks`} label="What happens" wide />
          <Input path={`knownFaults.${i}.remedy`} label="What to do" wide />
          <Input path={`knownFaults.${i}.id`} label="Short name" />
          <Choice
            path={`knownFaults.${i}.when.road`}
            label="Installation method"
            options={["", "fresh", "in place"]}
          />
          <Choice path={`knownFaults.${i}.when.target`} label="Target" options={["", ...TARGET_KINDS]} />
          <Input path={`knownFaults.${i}.when.model`} label="Model name contains" />
          <Input path={`knownFaults.${i}.when.part`} label="Driver or PCI ID" />
          <Input path={`knownFaults.${i}.stone.profile`} label="Intermediate version: profile" />
          <Input path={`knownFaults.${i}.stone.version`} label="and version" />
          <button type="button" className="link self-end justify-self-start pb-1" onClick={() => remove(i)}>
            Remove fault
          </button>
        </div>
      ))}
      <button
        type="button"
        className="link mt-1"
        onClick={() => append({ id: "", when: { road: "fresh" }, looks: "", remedy: "" })}
      >
        Add fault
      </button>
    </>
  );
}
