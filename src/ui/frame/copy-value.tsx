"use client";

import { useState } from "react";

/** A value in the mono face; a click or Enter copies it, and says so. */
export function CopyValue({ value, className = "" }: { value: string; className?: string }) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    await navigator.clipboard.writeText(value).catch(() => undefined);
    setCopied(true);
    setTimeout(() => setCopied(false), 1200);
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
        {copied ? "copied" : ""}
      </span>
    </button>
  );
}
