"use client";

import { useState } from "react";
import type { Answer } from "@/contract";
import type { Problem } from "@/core/result";
import { asked, sending } from "../frame/ask";
import { isOpen, type RunCommand, type SettledLine } from "@/core/run";
import { formatClock } from "@/core/units";
import { otherChassis, type AcceptanceLine } from "@/core/verify";
import { ImportWell, type DroppedText } from "../machine/import-well";
import { Problems } from "../frame/problems";
import { AcceptanceTable } from "./acceptance-table";
import type { RunView } from "@/contract";

interface Preview {
  lines: AcceptanceLine[];
  rejected: { from: string; problems: Problem[] }[];
  understood: number;
}

/** What was built against what was planned, line by line; what is not as planned is decided here, by a person. */
export function Acceptance({
  view,
  onAccepted,
  onSettle,
}: {
  view: RunView;
  onAccepted: (answer: Answer<RunView>) => void;
  onSettle: (command: RunCommand) => void;
}) {
  const [texts, setTexts] = useState<DroppedText[]>([]);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const { acceptance, status } = view.state;
  const send = (body: object) =>
    asked<never>(`/api/v1/runs/${view.id}/acceptance`, "nothing was saved", sending(body));
  const look = async (dropped: DroppedText[]) => {
    setTexts(dropped);
    const answer = await send({ texts: dropped });
    setProblems(answer.ok ? [] : answer.problems);
    setPreview(answer.ok ? (answer.value as Preview) : null);
  };
  const take = async () => {
    const answer = await send({ texts, accept: true, key: crypto.randomUUID() });
    onAccepted(answer as Parameters<typeof onAccepted>[0]);
    if (answer.ok) setPreview(null);
  };
  const other = preview ? otherChassis(preview.lines) : undefined;
  const lines: SettledLine[] | null = preview
    ? preview.lines.map((l) => ({ ...l, settled: null }))
    : acceptance
      ? view.acceptance
      : null;
  const open = lines?.filter(isOpen).length ?? 0;
  return (
    <section aria-label="Acceptance" className="mt-6 border-t-2 pt-3 border-base-content">
      <h2 className="text-[1.15rem] font-semibold">Planned and found</h2>
      {acceptance && !preview && (
        <p className="quiet">
          Imported at {formatClock(acceptance.at, view.plan.site.timeZone)} from {acceptance.from}.{" "}
          {open === 0
            ? "All lines match the plan or are resolved."
            : `${open} of ${lines?.length} lines are unresolved deviations.`}
        </p>
      )}
      {other && (
        <p role="alert" className="mt-2 border-2 px-3 py-2 border-error">
          <strong>This is a different machine.</strong> Its chassis serial is {other.found}; planned is{" "}
          {other.planned}. Recording this stops the run; nothing of it is accepted.
        </p>
      )}
      {lines && (
        <AcceptanceTable
          lines={lines}
          onSettle={preview || status === "handed over" ? undefined : onSettle}
        />
      )}
      <Problems problems={problems} />
      {preview?.rejected.map((r) => (
        <Problems key={r.from} problems={r.problems} title={`${r.from}: not read`} />
      ))}
      {preview && (
        <div className="mt-3 flex gap-3">
          <button
            type="button"
            className="btn btn-primary"
            onClick={take}
            disabled={preview.understood === 0}
          >
            Record and stop the run
          </button>
          <button type="button" className="btn" onClick={() => setPreview(null)}>
            Discard
          </button>
        </div>
      )}
      {status !== "handed over" && !preview && (
        <ImportWell
          onTexts={look}
          label={
            acceptance
              ? "Drop more output here to complete the open lines"
              : "Drop the bundle of the installed system here"
          }
        />
      )}
    </section>
  );
}
