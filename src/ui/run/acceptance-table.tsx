"use client";
import { term } from "@/core/text";
import { useKept } from "../draft/use-kept";

import { useState } from "react";
import { isOpen, type RunCommand, type SettledLine } from "@/core/run";

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

/** The lines, and under each that is not as planned what a person decided about it, or the means to decide. */
export function AcceptanceTable({
  lines,
  onSettle,
}: {
  lines: SettledLine[];
  onSettle?: (command: RunCommand) => void;
}) {
  return (
    <table className="table mt-2">
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
          <Line key={l.id} line={l} onSettle={onSettle} />
        ))}
      </tbody>
    </table>
  );
}

function Line({ line, onSettle }: { line: SettledLine; onSettle?: (command: RunCommand) => void }) {
  const { settled } = line;
  const [deciding, setDeciding] = useState(false);
  const mayDecide = onSettle !== undefined && isOpen(line);
  return (
    <>
      <tr>
        <td>
          <span className="value mr-1 font-semibold">{line.zone}</span>
          {line.what}
        </td>
        <td className="value [overflow-wrap:anywhere]">{line.planned}</td>
        <td className="value [overflow-wrap:anywhere]">{line.found || "–"}</td>
        <td className="whitespace-nowrap" style={{ color: COLOUR[line.verdict] }}>
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
            <path d={MARK[line.verdict]} />
          </svg>
          {term(line.verdict)}
          {mayDecide && (
            <button
              type="button"
              className="link ml-2 text-base-content"
              aria-expanded={deciding}
              aria-label={`Resolve: ${line.what}`}
              onClick={() => setDeciding(!deciding)}
            >
              Resolve
            </button>
          )}
        </td>
      </tr>
      {settled && (
        <tr>
          <td colSpan={4} className="pl-6">
            {settled.how === "seen" ? "Confirmed by inspection: " : "Deviation accepted: "}
            {settled.words} <span className="quiet">– {settled.by}</span>
          </td>
        </tr>
      )}
      {mayDecide && deciding && (
        <tr>
          <td colSpan={4} className="pl-6">
            <Decide line={line} onSettle={onSettle} />
          </td>
        </tr>
      )}
    </>
  );
}

/** What was not seen is answered by what a person saw; what differs stays only with a reason. */
function Decide({ line, onSettle }: { line: SettledLine; onSettle: (command: RunCommand) => void }) {
  const [words, setWords] = useKept(`settle ${line.id}`, "");
  const say = (how: "seen" | "taken as it is"): void => {
    onSettle({ kind: "settled", line: line.id, how, words });
    setWords("");
  };
  const byEye = line.verdict === "not seen";
  return (
    <form
      className="flex flex-wrap items-end gap-2 pb-1"
      onSubmit={(e) => {
        e.preventDefault();
        say(byEye ? "seen" : "taken as it is");
      }}
    >
      <label className="min-w-44 flex-1">
        <span className="label">
          {byEye ? "What you see, and where you looked" : "Why the deviation is acceptable"}
        </span>
        <input
          autoFocus
          className="input"
          value={words}
          maxLength={400}
          aria-label={`${line.what}: ${byEye ? "what you see" : "why it is acceptable"}`}
          onChange={(e) => setWords(e.target.value)}
        />
      </label>
      {byEye && (
        <button type="submit" className="btn" disabled={words.trim() === ""}>
          Confirm by inspection
        </button>
      )}
      <button
        type="button"
        className="btn"
        disabled={words.trim().length < 8}
        onClick={() => say("taken as it is")}
      >
        Accept the deviation
      </button>
    </form>
  );
}
