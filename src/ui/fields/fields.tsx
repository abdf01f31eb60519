"use client";

import { useId, useState, type ReactNode } from "react";
import { useLeaving } from "../frame/use-leaving";
import { useCountedUnread } from "./unread";
import { Signal } from "../frame/signal";

export interface FieldMark {
  label: string;
  severity: "stop" | "caution" | "note";
}

/** Marks of findings, which lead to what they say. */
export const Marks = ({ marks }: { marks: readonly FieldMark[] }) => (
  <>
    {marks.map((m) => (
      <a
        key={m.label}
        href={`#${m.label}`}
        className="value flex items-center gap-1 text-[0.79rem]"
        title={`Finding ${m.label}`}
      >
        <Signal severity={m.severity} size={11} />
        {m.label}
      </a>
    ))}
  </>
);

/** A field of a sheet: small label, pen line, an optional action or hint; the marks of findings stand at its right. */
export function Field({
  path,
  label,
  marks = [],
  hint,
  span = false,
  children,
}: {
  path: string;
  label: string;
  marks?: FieldMark[];
  hint?: ReactNode;
  span?: boolean;
  children: ReactNode;
}) {
  return (
    <div data-field={path} className={`min-w-0 ${span ? "col-span-full" : ""}`}>
      <div className="flex items-center gap-2">
        <span className="label">{label}</span>
        <Marks marks={marks} />
      </div>
      {children}
      {hint && <div className="quiet mt-0.5 text-[0.86rem]">{hint}</div>}
    </div>
  );
}

export interface FieldFrame {
  path: string;
  label: string;
  marks?: FieldMark[];
  hint?: ReactNode;
  span?: boolean;
}

export function TextField({
  value,
  onChange,
  placeholder,
  type = "text",
  maxLength = 400,
  ...field
}: FieldFrame & {
  value: string;
  onChange: (value: string) => void;
  placeholder?: string;
  type?: "text" | "date";
  maxLength?: number;
}) {
  return (
    <Field {...field}>
      <input
        aria-label={field.label}
        className="input"
        type={type}
        value={value}
        placeholder={placeholder}
        maxLength={maxLength}
        autoComplete="off"
        spellCheck={false}
        onChange={(e) => onChange(e.target.value)}
      />
    </Field>
  );
}

/** Text that stands for something else (bytes, a list): it is read when the field is left, so typing is not disturbed. */
export function ParsedField<T>({
  value,
  format,
  parse,
  onChange,
  placeholder,
  rows,
  ...field
}: FieldFrame & {
  value: T;
  /** More than one line: one entry a line. */
  rows?: number;
  format: (value: T) => string;
  parse: (text: string) => { value: T } | { problem: string };
  onChange: (value: T) => void;
  placeholder?: string;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useCountedUnread(problem !== null);
  // What is typed is not read before the field is left, and the tab may be closed first.
  useLeaving(typed !== null);
  const leave = () => {
    if (typed === null) return;
    const read = parse(typed);
    if ("problem" in read) return setProblem(read.problem);
    setProblem(null);
    setTyped(null);
    onChange(read.value);
  };
  const shared = {
    "aria-label": field.label,
    "aria-invalid": problem !== null,
    value: typed ?? format(value),
    placeholder,
    spellCheck: false,
    onChange: (e: { target: { value: string } }) => setTyped(e.target.value),
    onBlur: leave,
  };
  return (
    <Field {...field} hint={problem ? <span className="text-error">{problem}</span> : field.hint}>
      {rows ? (
        <textarea {...shared} rows={rows} className="textarea resize-y" />
      ) : (
        <input
          {...shared}
          className="input"
          autoComplete="off"
          onKeyDown={(e) => e.key === "Enter" && leave()}
        />
      )}
    </Field>
  );
}

/** One of a closed list; with `empty` also none of them, in its words. */
export function SelectField<T extends string>({
  value,
  options,
  onChange,
  empty,
  ...field
}: FieldFrame & {
  value: T;
  options: readonly { value: T; text: string }[];
  onChange: (value: T) => void;
  empty?: string;
}) {
  return (
    <Field {...field}>
      <select
        aria-label={field.label}
        className="select"
        value={value}
        // Only what stands among the options can be chosen.
        onChange={(e) => onChange(e.target.value as T)}
      >
        {empty !== undefined && <option value="">{empty}</option>}
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.text}
          </option>
        ))}
      </select>
    </Field>
  );
}

/** A few choices side by side, all in sight; the chosen one is underlined heavily. */
export function ChoiceField<T extends string>({
  value,
  options,
  onChange,
  ...field
}: FieldFrame & { value: T; options: readonly { value: T; text: string }[]; onChange: (value: T) => void }) {
  const name = useId();
  return (
    <Field {...field}>
      <div role="radiogroup" aria-label={field.label} className="flex flex-wrap gap-x-4 gap-y-1 py-0.5">
        {options.map((o) => (
          <label
            key={o.value}
            className={`cursor-pointer border-b-2 pb-0.5 has-focus-visible:outline-2 ${value === o.value ? "border-current font-semibold" : "quiet border-transparent"}`}
          >
            <input
              type="radio"
              className="sr-only"
              name={name}
              value={o.value}
              checked={value === o.value}
              onChange={() => onChange(o.value)}
            />
            {o.text}
          </label>
        ))}
      </div>
    </Field>
  );
}

export function NoteField({
  value,
  onChange,
  rows = 2,
  maxLength = 10_000,
  ...field
}: FieldFrame & { value: string; onChange: (value: string) => void; rows?: number; maxLength?: number }) {
  return (
    <Field {...field}>
      <textarea
        aria-label={field.label}
        className="textarea resize-y"
        rows={rows}
        value={value}
        maxLength={maxLength}
        onChange={(e) => onChange(e.target.value)}
      />
    </Field>
  );
}
