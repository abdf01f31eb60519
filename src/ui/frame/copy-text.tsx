"use client";

import { useState } from "react";

const WORDS = {
  ready: "Copy",
  copied: "Copied",
  failed: "Not copied: this browser does not allow it here, so select the text",
};

/** Takes a whole text to the clipboard, and says so only when it is there. */
export function CopyText({ text }: { text: string }) {
  const [state, setState] = useState<keyof typeof WORDS>("ready");
  const copy = async () => {
    const done = await Promise.resolve()
      .then(() => navigator.clipboard.writeText(text))
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
