"use client";

import { useState } from "react";

/** A value in the mono face; a click or Enter copies it, and says so. */
export function CopyValue({ value, className = "" }: { value: string; className?: string }) {
  const [said, setSaid] = useState("");
  const copy = async () => {
    const done = await Promise.resolve()
      .then(() => navigator.clipboard.writeText(value))
      .then(
        () => true,
        () => false,
      );
    setSaid(done ? "copied" : "not copied");
    setTimeout(() => setSaid(""), done ? 1200 : 4000);
  };
  return (
    <button
      type="button"
      onClick={copy}
      title="Copy"
      className={`value cursor-copy text-left [overflow-wrap:anywhere] underline decoration-dotted underline-offset-4 ${className}`}
    >
      {value}
      <span aria-live="polite" className="label ml-2">
        {said}
      </span>
    </button>
  );
}
