"use client";

import { useState } from "react";
import type { Problem } from "@/core/result";
import { formatClock } from "@/core/units";
import type { AcceptanceLine } from "@/core/verify";
import { ImportWell, type DroppedText } from "../machine/import-well";
import { Problems } from "../frame/problems";
import type { RunView } from "./use-run";

interface Preview {
  lines: AcceptanceLine[];
  rejected: { from: string; problems: Problem[] }[];
  understood: number;
}

/** What was built against what was planned, line by line. */
export function Acceptance({
  view,
  hand,
  onAccepted,
}: {
  view: RunView;
  hand: string;
  onAccepted: (answer: { ok: true; value: RunView } | { ok: false; problems: Problem[] }) => void;
}) {
  const [texts, setTexts] = useState<DroppedText[]>([]);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const { acceptance, status } = view.state;
  const send = async (body: object) => {
    const response = await fetch(`/api/v1/runs/${view.id}/acceptance`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(body),
    }).catch(() => null);
    return response
      ? ((await response.json()) as { ok: true; value: never } | { ok: false; problems: Problem[] })
      : { ok: false as const, problems: [{ message: "The server does not answer; nothing was accepted." }] };
  };
  const look = async (dropped: DroppedText[]) => {
    setTexts(dropped);
    const answer = await send({ texts: dropped });
    setProblems(answer.ok ? [] : answer.problems);
    setPreview(answer.ok ? (answer.value as Preview) : null);
  };
  const take = async () => {
    const answer = await send({ texts, accept: true, by: hand, key: crypto.randomUUID() });
    onAccepted(answer as Parameters<typeof onAccepted>[0]);
    if (answer.ok) setPreview(null);
  };
  const lines = preview?.lines ?? acceptance?.lines ?? null;
  return (
    <section
      aria-label="Acceptance"
      className="mt-6 border-t-2 pt-3"
      style={{ borderColor: "var(--color-base-content)" }}
    >
      <h2 className="text-[1.15rem] font-semibold">As planned, as found</h2>
      {acceptance && !preview && (
        <p className="quiet">
          Read {formatClock(acceptance.at, view.plan.timeZone)} from {acceptance.from}
        </p>
      )}
      {lines && <AcceptanceTable lines={lines} />}
      <Problems problems={problems} />
      {preview?.rejected.map((r) => (
        <Problems key={r.from} problems={r.problems} title={`${r.from}: not read`} />
      ))}
      {preview && (
        <div className="mt-3 flex gap-3">
          <button
            type="button"
            className="stamp stamp-main"
            onClick={take}
            disabled={preview.understood === 0}
          >
            Put this on the record
          </button>
          <button type="button" className="stamp" onClick={() => setPreview(null)}>
            Not this one
          </button>
        </div>
      )}
      {status !== "handed over" && !preview && (
        <ImportWell onTexts={look} label="Drop the installed system's bundle here" />
      )}
    </section>
  );
}

const MARK = {
  "as planned": "M2 8 L6 12 L14 3",
  differs: "M3 5 H13 M3 11 H13 M11 2 L5 14",
  "not seen": "M4 8 H12",
} as const;
const COLOUR = {
  "as planned": "var(--color-success)",
  differs: "var(--color-error)",
  "not seen": "var(--color-warning)",
} as const;

export function AcceptanceTable({ lines }: { lines: AcceptanceLine[] }) {
  return (
    <table className="ruled mt-2">
      <thead>
        <tr>
          <th>What</th>
          <th>Planned</th>
          <th>Found</th>
          <th>Verdict</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((l) => (
          <tr key={l.id}>
            <td>
              <span className="value mr-1 font-semibold">{l.zone}</span>
              {l.what}
            </td>
            <td className="value [overflow-wrap:anywhere]">{l.planned}</td>
            <td className="value [overflow-wrap:anywhere]">{l.found || "–"}</td>
            <td className="whitespace-nowrap" style={{ color: COLOUR[l.verdict] }}>
              <svg
                viewBox="0 0 16 16"
                width="12"
                height="12"
                aria-hidden="true"
                className="mr-1 inline"
                fill="none"
                stroke="currentColor"
                strokeWidth="2"
              >
                <path d={MARK[l.verdict]} />
              </svg>
              {l.verdict}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
