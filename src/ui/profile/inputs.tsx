import { term } from "@/core/text";
import { Controller, useFieldArray, useFormContext, type FieldPath } from "react-hook-form";
import type { Profile } from "@/core/image";

export type Path = FieldPath<Profile>;

/** One line of text, a number or a date at a path of the profile. */
export function Input({
  path,
  label,
  kind = "text",
  wide = false,
}: {
  path: string;
  label: string;
  kind?: "text" | "number" | "date";
  wide?: boolean;
}) {
  const { register } = useFormContext<Profile>();
  return (
    <label className={wide ? "col-span-full" : ""}>
      <span className="label">{label}</span>
      <input
        className="input"
        type={kind}
        step="any"
        autoComplete="off"
        spellCheck={false}
        {...register(path as Path, kind === "number" ? { valueAsNumber: true } : {})}
      />
    </label>
  );
}

export function Choice({
  path,
  label,
  options,
}: {
  path: string;
  label: string;
  options: readonly string[];
}) {
  const { register } = useFormContext<Profile>();
  return (
    <label>
      <span className="label">{label}</span>
      <select className="select" {...register(path as Path)}>
        {options.map((o) => (
          <option key={o} value={o}>
            {term(o)}
          </option>
        ))}
      </select>
    </label>
  );
}

export function Tick({ path, label }: { path: string; label: string }) {
  const { register } = useFormContext<Profile>();
  return (
    <label className="inline-flex items-center gap-2 self-end pb-1">
      <input
        type="checkbox"
        className="checkbox checkbox-xs checkbox checkbox-xs"
        {...register(path as Path)}
      />
      {label}
    </label>
  );
}

/** A list of texts, one on each line. */
export function Lines({ path, label, rows = 2 }: { path: string; label: string; rows?: number }) {
  const { control } = useFormContext<Profile>();
  return (
    <Controller
      control={control}
      name={path as Path}
      render={({ field }) => (
        <label className="col-span-full">
          <span className="label">{label}, one per line</span>
          <textarea
            ref={field.ref}
            className="textarea resize-y"
            rows={rows}
            spellCheck={false}
            value={Array.isArray(field.value) ? field.value.join("\n") : ""}
            // Empty lines are kept while typing, or Enter would do nothing; they are dropped when it is saved.
            onChange={(e) => field.onChange(e.target.value === "" ? [] : e.target.value.split("\n"))}
            onBlur={field.onBlur}
          />
        </label>
      )}
    />
  );
}

/** Some of a closed list, by ticks. */
export function Ticks({ path, label, options }: { path: string; label: string; options: readonly string[] }) {
  const { control } = useFormContext<Profile>();
  return (
    <Controller
      control={control}
      name={path as Path}
      render={({ field }) => {
        const chosen = Array.isArray(field.value) ? (field.value as string[]) : [];
        return (
          <fieldset className="col-span-full">
            <legend className="label">{label}</legend>
            {options.map((o) => (
              <label key={o} className="mr-4 inline-flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs checkbox checkbox-xs"
                  checked={chosen.includes(o)}
                  onChange={(e) =>
                    field.onChange(options.filter((x) => (x === o ? e.target.checked : chosen.includes(x))))
                  }
                />
                {term(o)}
              </label>
            ))}
          </fieldset>
        );
      }}
    />
  );
}

export interface Column {
  key: string;
  title: string;
  options?: readonly string[];
  width?: string;
}

/** A list of small records as a table to write in: a row each, with a way to add, and to take one out. */
export function Rows({ path, label, columns }: { path: string; label: string; columns: readonly Column[] }) {
  const { control, register } = useFormContext<Profile>();
  const { fields, append, remove } = useFieldArray({ control, name: path as never });
  const empty = Object.fromEntries(columns.map((c) => [c.key, c.options?.[0] ?? ""]));
  return (
    <fieldset className="col-span-full">
      <legend className="label">{label}</legend>
      {fields.length > 0 && (
        <table className="w-full">
          <thead>
            <tr>
              {columns.map((c) => (
                <th
                  key={c.key}
                  className="quiet pr-3 text-left text-[0.86rem] font-normal"
                  style={{ width: c.width }}
                >
                  {c.title}
                </th>
              ))}
              <th />
            </tr>
          </thead>
          <tbody>
            {fields.map((row, i) => (
              <tr key={row.id}>
                {columns.map((c) => (
                  <td key={c.key} className="pr-3">
                    {c.options ? (
                      <select
                        className="select"
                        aria-label={`${label} ${i + 1}, ${c.title}`}
                        {...register(`${path}.${i}.${c.key}` as Path)}
                      >
                        {c.options.map((o) => (
                          <option key={o} value={o}>
                            {term(o)}
                          </option>
                        ))}
                      </select>
                    ) : (
                      <input
                        className="input"
                        aria-label={`${label} ${i + 1}, ${c.title}`}
                        autoComplete="off"
                        spellCheck={false}
                        {...register(`${path}.${i}.${c.key}` as Path)}
                      />
                    )}
                  </td>
                ))}
                <td className="w-10 text-right">
                  <button
                    type="button"
                    className="link"
                    aria-label={`Remove ${label} ${i + 1}`}
                    onClick={() => remove(i)}
                  >
                    Remove
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <button type="button" className="link" onClick={() => append(empty as never)}>
        Add line
      </button>
    </fieldset>
  );
}
