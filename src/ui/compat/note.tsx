import { useState } from "react";
import type { Answer } from "@/contract";
import type { CompatNote, Trial } from "@/core/compat";
import { TrialSlip, VerdictSlip, type Judgement } from "./slips";
import { Day } from "../frame/person";

export interface NoteRow {
  id: string;
  version: number;
  note: CompatNote;
  /** Machines that hold the part now. */
  machines: string[];
}
export interface NoteActions {
  judge: (id: string, version: number, part: Judgement) => Promise<Answer<number>>;
  addTrial: (id: string, version: number, trial: Omit<Trial, "at" | "by">) => Promise<Answer<number>>;
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

/** One verdict with its trials; both grow from slips. */
export function Note({ row, profile, judge, addTrial }: { row: NoteRow; profile: string } & NoteActions) {
  const { note } = row;
  const [slip, setSlip] = useState<"trial" | "verdict" | null>(null);
  const close = () => setSlip(null);
  const name = note.subject.name || note.subject.value;
  return (
    <li className="border-b py-2 border-base-300">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <VerdictMark verdict={note.verdict} />
        <span className="font-medium">{name}</span>
        <span className="value quiet">{note.subject.name ? note.subject.value : ""}</span>
        <span>
          with {profile} {note.version || "(all versions)"}
        </span>
        <span className="quiet ml-auto">
          {note.by}, <Day at={note.at} />
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
                {t.by}, <Day at={t.at} />
              </span>
            </li>
          ))}
        </ol>
      )}
      <div className="mt-1 flex gap-4 text-[0.93rem]">
        <button type="button" className="link quiet" onClick={() => setSlip("trial")}>
          Record test
        </button>
        <button type="button" className="link quiet" onClick={() => setSlip("verdict")}>
          Change verdict
        </button>
      </div>
      <TrialSlip
        open={slip === "trial"}
        onClose={close}
        id={row.id}
        name={name}
        send={(trial) => addTrial(row.id, row.version, trial)}
      />
      <VerdictSlip
        open={slip === "verdict"}
        onClose={close}
        id={row.id}
        name={name}
        note={note}
        send={(part) => judge(row.id, row.version, part)}
      />
    </li>
  );
}
