"use client";

import { useState } from "react";

const WORDS = {
  ready: "Copy",
  copied: "Copied",
  failed: "Not copied: the browser does not allow it here. Select the text and copy it yourself.",
};

/** Takes a whole text, or one that is fetched for it, to the clipboard, and says so only when it is there. */
export function CopyText({ text }: { text: string | (() => Promise<string>) }) {
  const [state, setState] = useState<keyof typeof WORDS>("ready");
  const copy = async () => {
    const done = await Promise.resolve()
      .then(async () => navigator.clipboard.writeText(typeof text === "string" ? text : await text()))
      .then(
        () => "copied" as const,
        () => "failed" as const,
      );
    setState(done);
  };
  return (
    <button type="button" className="btn" onClick={() => void copy()}>
      <span aria-live="polite">{WORDS[state]}</span>
    </button>
  );
}
