"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { VERDICTS, type CompatNote, type Trial } from "@/core/compat";
import type { Problem } from "@/core/result";
import { ChoiceField, SelectField, TextField } from "../fields/fields";
import { Problems } from "../frame/problems";
import { Slip } from "../frame/dialog";

type Answer<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };
type Values = Pick<CompatNote, "subject" | "profile" | "version" | "verdict" | "condition" | "evidence">;
export interface NoteRow {
  id: string;
  version: number;
  note: CompatNote;
  /** Machines that hold the part now. */
  machines: string[];
}
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
  judge: (
    id: string,
    version: number,
    part: Pick<CompatNote, "verdict" | "condition" | "evidence">,
  ) => Promise<Answer<number>>;
  addTrial: (id: string, version: number, trial: Omit<Trial, "at" | "by">) => Promise<Answer<number>>;
  start: Partial<Values["subject"]> | null;
}) {
  const router = useRouter();
  const [open, setOpen] = useState(start !== null);
  const [values, setValues] = useState<Values>({ ...EMPTY, subject: { ...EMPTY.subject, ...start } });
  const [problems, setProblems] = useState<Problem[]>([]);
  const [words, setWords] = useState("");
  const nameOf = (key: string): string => profiles.find((p) => p.key === key)?.name ?? key;
  const shown = rows.filter((r) =>
    words
      .toLowerCase()
      .split(/\s+/)
      .every((w) =>
        `${JSON.stringify(r.note)} ${nameOf(r.note.profile)} ${r.machines.join(" ")}`
          .toLowerCase()
          .includes(w),
      ),
  );
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end gap-6">
        <label className="w-72">
          <span className="legend">Narrow by any words</span>
          <input className="pen" value={words} onChange={(e) => setWords(e.target.value)} />
        </label>
        <button type="button" className="stamp ml-auto" onClick={() => setOpen(true)}>
          Write a verdict
        </button>
      </div>
      {rows.length === 0 && (
        <p className="quiet">Nothing is noted yet. A verdict shows up on every build that meets its part.</p>
      )}
      <ul>
        {shown.map((row) => (
          <Note key={row.id} row={row} profile={nameOf(row.note.profile)} judge={judge} addTrial={addTrial} />
        ))}
      </ul>
      <Slip open={open} onClose={() => setOpen(false)} title="What works, what does not">
        <form
          onSubmit={async (e) => {
            e.preventDefault();
            const answer = await add(values);
            setProblems(answer.ok ? [] : answer.problems);
            if (!answer.ok) return;
            setOpen(false);
            setValues(EMPTY);
            router.refresh();
          }}
        >
          <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
            <SelectField
              path="c.kind"
              label="Part"
              value={values.subject.kind}
              options={KINDS.map((k) => ({ value: k, text: k }))}
              onChange={(v) =>
                setValues({ ...values, subject: { ...values.subject, kind: v as (typeof KINDS)[number] } })
              }
            />
            <TextField
              path="c.value"
              label={values.subject.kind.includes("model") ? "Model" : "Id, maker:device"}
              value={values.subject.value}
              placeholder={values.subject.kind.includes("model") ? "Caldbeck 12000" : "f0a1:10d3"}
              onChange={(value) =>
                setValues({
                  ...values,
                  subject: {
                    ...values.subject,
                    value: values.subject.kind.includes("model") ? value : value.toLowerCase(),
                  },
                })
              }
            />
            <TextField
              path="c.name"
              label="As people call it"
              value={values.subject.name}
              onChange={(name) => setValues({ ...values, subject: { ...values.subject, name } })}
            />
            <SelectField
              path="c.profile"
              label="Under"
              value={values.profile}
              empty="choose the OS profile"
              options={[...new Map(profiles.map((p) => [p.key, p])).values()].map((p) => ({
                value: p.key,
                text: p.name,
              }))}
              onChange={(profile) => setValues({ ...values, profile })}
            />
            <TextField
              path="c.version"
              label="Version, empty for all"
              value={values.version}
              placeholder="9"
              onChange={(version) => setValues({ ...values, version: version.trim() })}
            />
            <SelectField
              path="c.verdict"
              label="Verdict"
              value={values.verdict}
              options={VERDICTS.map((v) => ({ value: v, text: v }))}
              onChange={(v) => setValues({ ...values, verdict: v as CompatNote["verdict"] })}
            />
            <TextField
              path="c.condition"
              label="Condition"
              value={values.condition}
              onChange={(condition) => setValues({ ...values, condition })}
              span
            />
            <TextField
              path="c.evidence"
              label="Evidence: what was seen, or where it stands"
              value={values.evidence}
              onChange={(evidence) => setValues({ ...values, evidence })}
              span
            />
          </div>
          <Problems problems={problems} />
          <button type="submit" className="stamp stamp-main mt-4">
            Keep
          </button>
        </form>
      </Slip>
    </>
  );
}

const MARK: Record<CompatNote["verdict"], { colour: string; shape: string }> = {
  works: { colour: "var(--color-success)", shape: "M2 8 H14" },
  "works with a condition": { colour: "var(--color-warning)", shape: "M2 8 H6 M10 8 H14 M8 4 V12" },
  "does not work": { colour: "var(--color-error)", shape: "M2 8 H6 M10 8 H14 M6 3 V13 M10 3 V13" },
  unknown: { colour: "currentColor", shape: "M2 8 H4 M7 8 H9 M12 8 H14" },
};

/** A verdict as a line that passes, passes through a gate, or is cut. */
function VerdictMark({ verdict }: { verdict: CompatNote["verdict"] }) {
  const { colour, shape } = MARK[verdict];
  return (
    <span
      className="inline-flex items-baseline gap-1.5 font-semibold whitespace-nowrap"
      style={{ color: colour }}
    >
      <svg
        className="self-center"
        viewBox="0 0 16 16"
        width="16"
        height="16"
        aria-hidden="true"
        fill="none"
        stroke="currentColor"
        strokeWidth="2"
      >
        <path d={shape} />
      </svg>
      {verdict}
    </span>
  );
}

function Note({
  row,
  profile,
  judge,
  addTrial,
}: {
  row: NoteRow;
  profile: string;
  judge: (
    id: string,
    version: number,
    part: Pick<CompatNote, "verdict" | "condition" | "evidence">,
  ) => Promise<Answer<number>>;
  addTrial: (id: string, version: number, trial: Omit<Trial, "at" | "by">) => Promise<Answer<number>>;
}) {
  const router = useRouter();
  const { note } = row;
  const [slip, setSlip] = useState<"trial" | "verdict" | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [trial, setTrial] = useState<Omit<Trial, "at" | "by">>({
    changed: "",
    expected: "",
    happened: "",
    outcome: "unclear",
  });
  const [part, setPart] = useState({
    verdict: note.verdict,
    condition: note.condition,
    evidence: note.evidence,
  });
  const done = async (answer: Promise<Answer<number>>) => {
    const a = await answer;
    setProblems(a.ok ? [] : a.problems);
    if (!a.ok) return;
    setSlip(null);
    router.refresh();
  };
  return (
    <li className="border-b py-2" style={{ borderColor: "var(--color-base-300)" }}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <VerdictMark verdict={note.verdict} />
        <span className="font-medium">{note.subject.name || note.subject.value}</span>
        <span className="value quiet">{note.subject.name ? note.subject.value : ""}</span>
        <span>
          under {profile} {note.version || "(every version)"}
        </span>
        <span className="quiet ml-auto">
          {note.by}, {note.at.slice(0, 10)}
        </span>
      </div>
      {note.condition && <p>Condition: {note.condition}</p>}
      {note.evidence && <p className="quiet">{note.evidence}</p>}
      {row.machines.length > 0 && (
        <p className="quiet text-[0.93rem]">
          in {row.machines.slice(0, 8).join(", ")}
          {row.machines.length > 8 ? ` and ${row.machines.length - 8} more` : ""}
        </p>
      )}
      {note.trials.length > 0 && (
        <ol className="mt-1 ml-4 list-decimal text-[0.93rem]">
          {note.trials.map((t) => (
            <li key={t.at}>
              {t.changed}: {t.happened}{" "}
              <span className={t.outcome === "did not work" ? "font-semibold" : ""}>({t.outcome})</span>{" "}
              <span className="quiet">
                {t.expected && `expected: ${t.expected}; `}
                {t.by}, {t.at.slice(0, 10)}
              </span>
            </li>
          ))}
        </ol>
      )}
      <div className="mt-1 flex gap-4 text-[0.93rem]">
        <button type="button" className="link-quiet quiet" onClick={() => setSlip("trial")}>
          log a trial
        </button>
        <button type="button" className="link-quiet quiet" onClick={() => setSlip("verdict")}>
          change the verdict
        </button>
      </div>
      <Slip
        open={slip === "trial"}
        onClose={() => setSlip(null)}
        title={`A trial of ${note.subject.name || note.subject.value}`}
      >
        <div className="space-y-3">
          <TextField
            path="t.changed"
            label="What was changed or tried"
            value={trial.changed}
            onChange={(changed) => setTrial({ ...trial, changed })}
          />
          <TextField
            path="t.expected"
            label="What was expected"
            value={trial.expected}
            onChange={(expected) => setTrial({ ...trial, expected })}
          />
          <TextField
            path="t.happened"
            label="What happened"
            value={trial.happened}
            onChange={(happened) => setTrial({ ...trial, happened })}
          />
          <ChoiceField
            path="t.outcome"
            label="Outcome"
            value={trial.outcome}
            options={(["worked", "did not work", "unclear"] as const).map((o) => ({ value: o, text: o }))}
            onChange={(outcome) => setTrial({ ...trial, outcome })}
          />
        </div>
        <Problems problems={problems} />
        <button
          type="button"
          className="stamp stamp-main mt-4"
          onClick={() => void done(addTrial(row.id, row.version, trial))}
        >
          Put it on the log
        </button>
      </Slip>
      <Slip
        open={slip === "verdict"}
        onClose={() => setSlip(null)}
        title={`The verdict on ${note.subject.name || note.subject.value}`}
      >
        <div className="space-y-3">
          <SelectField
            path="v.verdict"
            label="Verdict"
            value={part.verdict}
            options={VERDICTS.map((v) => ({ value: v, text: v }))}
            onChange={(v) => setPart({ ...part, verdict: v as CompatNote["verdict"] })}
          />
          <TextField
            path="v.condition"
            label="Condition"
            value={part.condition}
            onChange={(condition) => setPart({ ...part, condition })}
          />
          <TextField
            path="v.evidence"
            label="Evidence"
            value={part.evidence}
            onChange={(evidence) => setPart({ ...part, evidence })}
          />
        </div>
        <Problems problems={problems} />
        <button
          type="button"
          className="stamp stamp-main mt-4"
          onClick={() => void done(judge(row.id, row.version, part))}
        >
          Keep
        </button>
      </Slip>
    </li>
  );
}
