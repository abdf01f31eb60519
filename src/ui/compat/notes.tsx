"use client";

import type { Answer } from "@/contract";
import { term } from "@/core/text";
import { useState } from "react";
import type { CompatNote } from "@/core/compat";
import { useKept } from "../draft/use-kept";
import { SelectField, TextField } from "../fields/fields";
import { hasWords, NarrowField } from "../frame/narrow";
import { SlipForm } from "../frame/slip-form";
import { Note, type NoteActions, type NoteRow } from "./note";
import { JudgementFields } from "./slips";

type Values = Pick<CompatNote, "subject" | "profile" | "version" | "verdict" | "condition" | "evidence">;
export type { NoteRow };
export interface ProfileChoice {
  key: string;
  name: string;
  version: string;
}

const EMPTY: Values = {
  subject: { kind: "pci", value: "", name: "" },
  profile: "",
  version: "",
  verdict: "works",
  condition: "",
  evidence: "",
};
const KINDS = ["pci", "usb", "machine model", "drive model"] as const;

/** Verdicts by device or model and OS profile version, with the trials that led to them. */
export function CompatNotes({
  rows,
  profiles,
  add,
  judge,
  addTrial,
  start,
}: {
  rows: NoteRow[];
  profiles: ProfileChoice[];
  add: (values: Values) => Promise<Answer<string>>;
  start: Partial<Values["subject"]> | null;
} & NoteActions) {
  const begun = { ...EMPTY, subject: { ...EMPTY.subject, ...start } };
  const [open, setOpen] = useState(start !== null);
  const [values, setValues] = useKept<Values>(`verdict ${start?.value ?? ""}`, begun);
  const [words, setWords] = useState("");
  const nameOf = (key: string): string => profiles.find((p) => p.key === key)?.name ?? key;
  const textOf = (r: NoteRow): string =>
    `${JSON.stringify(r.note)} ${nameOf(r.note.profile)} ${r.machines.join(" ")}`;
  const shown = rows.filter((r) => hasWords(textOf(r), words));
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end gap-6">
        <NarrowField {...{ words, onChange: setWords }} />
        <button type="button" className="btn ml-auto" onClick={() => setOpen(true)}>
          Add verdict
        </button>
      </div>
      {rows.length === 0 && (
        <p className="quiet">No verdicts yet. A verdict is shown on every build that uses the part.</p>
      )}
      <ul>
        {shown.map((row) => (
          <Note key={row.id} row={row} profile={nameOf(row.note.profile)} judge={judge} addTrial={addTrial} />
        ))}
      </ul>
      <SlipForm
        open={open}
        onClose={() => setOpen(false)}
        title="Compatibility verdict"
        button="Save"
        send={async () => {
          const answer = await add(values);
          if (answer.ok) setValues(begun);
          return answer;
        }}
      >
        <PartFields {...{ values, setValues, profiles }} />
      </SlipForm>
    </>
  );
}

/** The part, the system that it was tried under, and the judgement. */
function PartFields({
  values,
  setValues,
  profiles,
}: {
  values: Values;
  setValues: (values: Values) => void;
  profiles: ProfileChoice[];
}) {
  const { subject } = values;
  const isModel = subject.kind.includes("model");
  const set = (part: Partial<Values>): void => setValues({ ...values, ...part });
  const setSubject = (part: Partial<Values["subject"]>): void => set({ subject: { ...subject, ...part } });
  return (
    <div className="grid gap-x-6 gap-y-3 md:grid-cols-2">
      <SelectField
        path="c.kind"
        label="Part"
        value={subject.kind}
        options={KINDS.map((k) => ({ value: k, text: term(k) }))}
        onChange={(kind) => setSubject({ kind })}
      />
      <TextField
        path="c.value"
        label={isModel ? "Model" : "ID, vendor:device"}
        value={subject.value}
        placeholder={isModel ? "Caldbeck 12000" : "f0a1:10d3"}
        onChange={(value) => setSubject({ value: isModel ? value : value.toLowerCase() })}
      />
      <TextField path="c.name" label="Name" value={subject.name} onChange={(name) => setSubject({ name })} />
      <SelectField
        path="c.profile"
        label="OS profile"
        value={values.profile}
        empty="choose the OS profile"
        options={[...new Map(profiles.map((p) => [p.key, p])).values()].map((p) => ({
          value: p.key,
          text: p.name,
        }))}
        onChange={(profile) => set({ profile })}
      />
      <TextField
        path="c.version"
        label="Version (empty for all)"
        value={values.version}
        placeholder="9"
        onChange={(version) => set({ version: version.trim() })}
      />
      <JudgementFields value={values} onChange={set} />
    </div>
  );
}
