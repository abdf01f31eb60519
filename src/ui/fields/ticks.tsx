"use client";

import { Field, type FieldFrame } from "./fields";

/** Some of a closed list, by ticks, in the order of the list. */
export function TicksField<T extends string>({
  value,
  options,
  onChange,
  ...field
}: FieldFrame & {
  value: readonly T[];
  options: readonly { value: T; text: string }[];
  onChange: (value: T[]) => void;
}) {
  const ticked = (option: T, on: boolean): T[] =>
    options.map((o) => o.value).filter((o) => (o === option ? on : value.includes(o)));
  return (
    <Field {...field}>
      <div role="group" aria-label={field.label} className="flex flex-wrap gap-x-5 gap-y-1 py-1">
        {options.map((o) => (
          <Tick
            key={o.value}
            label={o.text}
            value={value.includes(o.value)}
            onChange={(on) => onChange(ticked(o.value, on))}
          />
        ))}
      </div>
    </Field>
  );
}

/** One thing that is so, or not. */
export const Tick = ({
  label,
  value,
  onChange,
}: {
  path?: string;
  label: string;
  value: boolean;
  onChange: (value: boolean) => void;
}) => (
  <label className="inline-flex items-center gap-2">
    <input
      type="checkbox"
      className="checkbox checkbox-xs"
      checked={value}
      onChange={(e) => onChange(e.target.checked)}
    />
    {label}
  </label>
);
