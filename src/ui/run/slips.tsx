"use client";

import { type RefObject } from "react";
import { useKept } from "../draft/use-kept";
import { Slip } from "../frame/dialog";
import { KEY_READINGS } from "@/core/machine";
import type { RunCommand } from "@/core/run";

export type Asked =
  { kind: "differs" | "note" | "reading" | "skipped" | "resumed" } | { kind: "corrected"; seq: number };

const TITLES: Record<Asked["kind"], string> = {
  differs: "What do you see?",
  note: "Note",
  reading: "Measurement",
  skipped: "Skip this step",
  resumed: "Resume the run",
  corrected: "Correct a log entry",
};

/** One slip for everything that is said in a few words. The draft stays in the browser until it is said. */
export function WordsSlip({
  asked,
  step,
  must,
  after,
  onClose,
  onSay,
}: {
  asked: Asked | null;
  step: string | null;
  onClose: () => void;
  onSay: (command: RunCommand) => void;
  must: string;
  after: RefObject<HTMLElement | null>;
}) {
  const open = asked !== null && asked.kind !== "differs";
  const [text, setText] = useKept("words", "");
  const [what, setWhat] = useKept("what was read", "");
  const say = () => {
    if (!asked) return;
    if (asked.kind === "note") onSay({ kind: "note", step, text });
    if (asked.kind === "reading") onSay({ kind: "reading", step, what, value: text });
    if (asked.kind === "skipped" && step) onSay({ kind: "skipped", step, reason: text });
    if (asked.kind === "resumed") onSay({ kind: "resumed", reason: text });
    if (asked.kind === "corrected") onSay({ kind: "corrected", seq: asked.seq, text });
    setText("");
    setWhat("");
    onClose();
  };
  return (
    <Slip
      open={open}
      onClose={onClose}
      after={after}
      title={asked ? TITLES[asked.kind] + (asked.kind === "corrected" ? ` ${asked.seq}` : "") : ""}
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          say();
        }}
      >
        {asked?.kind === "reading" && (
          <label className="mb-3 block">
            <span className="label">Measured quantity</span>
            <input
              autoFocus
              className="input"
              value={what}
              maxLength={200}
              placeholder="inlet temperature"
              list="readings"
              onChange={(e) => setWhat(e.target.value)}
            />
            <datalist id="readings">
              {KEY_READINGS.map((reading) => (
                <option key={reading} value={reading} />
              ))}
            </datalist>
          </label>
        )}
        <label className="block">
          <span className="label">{asked?.kind === "reading" ? "Value with unit" : "In a few words"}</span>
          <textarea
            autoFocus={asked?.kind !== "reading"}
            className="textarea"
            rows={asked?.kind === "reading" ? 1 : 3}
            value={text}
            maxLength={4000}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => e.key === "Enter" && (e.ctrlKey || e.metaKey) && say()}
          />
        </label>
        {asked?.kind === "skipped" && <Must must={must} />}
        {asked?.kind === "corrected" && (
          <p className="quiet mt-2">The original entry is preserved; the correction is added.</p>
        )}
        <button
          type="submit"
          className="btn btn-primary mt-3"
          disabled={text.trim() === "" || (asked?.kind === "reading" && what.trim() === "")}
        >
          Add to log
        </button>
      </form>
    </Slip>
  );
}

/** Why the step may not be passed over; its reason goes on the record. */
function Must({ must }: { must: string }) {
  if (must === "") return null;
  return <p className="mt-2 font-medium text-warning">{must} The reason is recorded.</p>;
}

/** What was seen instead, and what follows from it: go on, go back, or stop. */
export function DiffersSlip({
  open,
  guard,
  must,
  after,
  onClose,
  onDecide,
}: {
  open: boolean;
  guard: boolean;
  must: string;
  after: RefObject<HTMLElement | null>;
  onClose: () => void;
  onDecide: (seen: string, decision: "go on" | "go back" | "stop") => void;
}) {
  const [seen, setSeen] = useKept("seen", "");
  const decide = (decision: "go on" | "go back" | "stop") => {
    onDecide(seen, decision);
    setSeen("");
    onClose();
  };
  return (
    <Slip open={open} onClose={onClose} after={after} title={TITLES.differs}>
      <label className="block">
        <span className="label">Record what the screen shows</span>
        <textarea
          autoFocus
          className="textarea"
          rows={3}
          value={seen}
          maxLength={4000}
          onChange={(e) => setSeen(e.target.value)}
        />
      </label>
      <div className="mt-3 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn"
          disabled={seen.trim() === "" || guard}
          onClick={() => decide("go on")}
        >
          Continue anyway
        </button>
        <button type="button" className="btn" disabled={seen.trim() === ""} onClick={() => decide("go back")}>
          Go back one step
        </button>
        <button
          type="button"
          className="btn btn-primary"
          disabled={seen.trim() === ""}
          onClick={() => decide("stop")}
        >
          Stop here
        </button>
      </div>
      <Must must={must} />
      {guard && <p className="quiet mt-2">A guard cannot be confirmed while values differ.</p>}
    </Slip>
  );
}
