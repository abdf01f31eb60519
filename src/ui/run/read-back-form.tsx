"use client";

import { useState } from "react";
import { VERBS, type OperationOf } from "@/core/work";
import { TypedProof } from "../fields/typed-proof";

export type ReadFromConsole = { verb?: (typeof VERBS)[number]; version?: string; size?: string };

/** What each verb does, so that nobody has to know an installer's word for it. */
const VERB_WORDS = {
  install: "a fresh installation: the present contents are replaced",
  upgrade: "an upgrade: the present system is kept and changed",
};

/** Asks what the console is about to do, field by field as its page shows it. What the plan says is on none of it. */
export function ReadBackForm({
  asks,
  busy,
  onReadBack,
  onDiffers,
}: {
  asks: OperationOf<"read back">["asks"];
  busy: boolean;
  onReadBack: (read: ReadFromConsole) => void;
  onDiffers: () => void;
}) {
  const [read, setRead] = useState<ReadFromConsole>({});
  const whole = asks.every((part) => (read[part] ?? "").trim() !== "");
  const typed = asks.filter((part) => part !== "verb");
  return (
    <form
      className="mt-5 border-2 p-4 border-error"
      onSubmit={(e) => {
        e.preventDefault();
        if (!whole) return;
        onReadBack(read);
        setRead({});
      }}
    >
      {asks.includes("verb") && (
        <fieldset className="mb-3">
          <legend className="text-[1.07rem]">The screen announces</legend>
          {VERBS.map((verb) => (
            <label key={verb} className="mt-1 flex items-baseline gap-2">
              <input
                type="radio"
                name="verb"
                autoFocus={verb === VERBS[0]}
                className="radio radio-xs self-center"
                checked={read.verb === verb}
                onChange={() => setRead({ ...read, verb })}
              />
              {VERB_WORDS[verb]}
            </label>
          ))}
        </fieldset>
      )}
      <div className="grid gap-3 md:grid-cols-2">
        {typed.map((part, i) => (
          <label key={part} className="block">
            <span className="text-[1.07rem]">
              {part === "version" ? "Version shown" : "Drive size, with its unit"}
            </span>
            <TypedProof
              autoFocus={i === 0 && !asks.includes("verb")}
              className="input mt-1 text-[1.3rem]"
              value={read[part] ?? ""}
              onChange={(value) => setRead({ ...read, [part]: value })}
              label={part === "version" ? "Version on the console" : "Size on the console"}
            />
          </label>
        ))}
      </div>
      <div className="mt-3 flex gap-3">
        <button
          type="submit"
          className="btn btn-primary flex-1 justify-center py-2"
          disabled={busy || !whole}
        >
          Compare <span className="kbd">Enter</span>
        </button>
        <button type="button" className="btn" disabled={busy} onClick={onDiffers}>
          Report a difference
        </button>
      </div>
    </form>
  );
}
