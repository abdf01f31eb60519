import { useFieldArray, useFormContext, useWatch } from "react-hook-form";
import { DRIVE_WORK, READ_BACK, type Profile } from "@/core/image";
import { Choice, Input, Lines, Rows, Tick, Ticks } from "./inputs";

const NEW_SCREEN = {
  id: "",
  title: "",
  see: [],
  never: [],
  do: [],
  type: [],
  secret: [],
  keys: "",
  drive: "none",
  reads: [],
  destroys: false,
  wait: false,
  expected: [],
  readsShare: 0,
  when: "always",
  likely: 60,
  late: 180,
};

/** Screens in their order: each opens to its fields, moves up and down, and can be taken out. */
export function ScreensEditor({ path, what }: { path: string; what: string }) {
  const { control } = useFormContext<Profile>();
  const { fields, append, remove, move } = useFieldArray({ control, name: path as never });
  return (
    <div className="col-span-full">
      {fields.map((field, i) => (
        <details key={field.id} className="border-b py-1 border-base-300">
          <summary className="flex cursor-pointer items-baseline gap-3">
            <span className="fold-mark" aria-hidden="true" />
            <span className="value quiet w-6 text-right">{i + 1}</span>
            <Heading path={`${path}.${i}`} />
          </summary>
          <div className="grid gap-x-6 gap-y-2 py-2 pl-10 grid-cols-[repeat(auto-fit,minmax(min(15rem,100%),1fr))]">
            <Input path={`${path}.${i}.title`} label="Title" />
            <Input path={`${path}.${i}.id`} label="Short name" />
            <Choice
              path={`${path}.${i}.when`}
              label="Condition"
              options={["always", "fixed address", "dynamic address"]}
            />
            <Lines path={`${path}.${i}.see`} label="Must be on the screen" />
            <Lines path={`${path}.${i}.never`} label="Stop if the screen shows" rows={1} />
            <Lines path={`${path}.${i}.do`} label="Actions" />
            <Rows
              path={`${path}.${i}.type`}
              label="Input"
              columns={[
                { key: "label", title: "label", width: "30%" },
                { key: "value", title: "value, with {placeholders}" },
              ]}
            />
            <Lines path={`${path}.${i}.secret`} label="Secrets (names only, never the value)" rows={1} />
            <Rows
              path={`${path}.${i}.expected`}
              label="Looks wrong but is normal"
              columns={[
                { key: "looks", title: "looks like", width: "40%" },
                { key: "means", title: "means, and until when" },
              ]}
            />
            <Input path={`${path}.${i}.keys`} label="Keys" />
            <Input path={`${path}.${i}.likely`} label="Expected time, s" kind="number" />
            <Input path={`${path}.${i}.late`} label="Maximum time (P90), s" kind="number" />
            <Input path={`${path}.${i}.readsShare`} label="Share of the image read, 0 to 1" kind="number" />
            <Tick path={`${path}.${i}.wait`} label="waiting only" />
            <Choice
              path={`${path}.${i}.drive`}
              label="Drives: a guard precedes all but none"
              options={DRIVE_WORK}
            />
            <Ticks
              path={`${path}.${i}.reads`}
              label="Value to verify before the key, where the screen shows it"
              options={READ_BACK}
            />
            <Tick path={`${path}.${i}.destroys`} label="data on the target is lost from here" />
            <p className="col-span-full flex gap-4">
              <button type="button" className="link" disabled={i === 0} onClick={() => move(i, i - 1)}>
                Move up
              </button>
              <button
                type="button"
                className="link"
                disabled={i === fields.length - 1}
                onClick={() => move(i, i + 1)}
              >
                Move down
              </button>
              <button type="button" className="link" onClick={() => remove(i)}>
                Remove {what}
              </button>
            </p>
          </div>
        </details>
      ))}
      <button type="button" className="link mt-1" onClick={() => append(NEW_SCREEN as never)}>
        Add {what}
      </button>
    </div>
  );
}

function Heading({ path }: { path: string }) {
  const { control } = useFormContext<Profile>();
  const screen = useWatch({ control, name: path as never }) as
    { title?: string; destroys?: boolean } | undefined;
  return (
    <span>
      {screen?.title || "untitled"}
      {screen?.destroys && <strong className="text-error"> – erases the target</strong>}
    </span>
  );
}
