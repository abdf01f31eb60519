"use client";

import { useState } from "react";

/** A file as it is written: its place, its text, and the ways to take it along. */
export function FileText({ path, text, note }: { path: string; text: string; note?: string }) {
  const [copied, setCopied] = useState(false);
  const name = path.slice(path.lastIndexOf("/") + 1);
  const copy = async () => {
    await navigator.clipboard.writeText(text).catch(() => undefined);
    setCopied(true);
    setTimeout(() => setCopied(false), 1500);
  };
  return (
    <figure className="mb-4 min-w-0">
      <figcaption className="mb-1 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <span className="value font-semibold">{path}</span>
        {note && <span className="quiet text-[0.86rem]">{note}</span>}
        <span className="no-print ml-auto flex gap-3">
          <button type="button" className="link quiet" onClick={copy}>
            <span aria-live="polite">{copied ? "copied" : "copy"}</span>
            <span className="sr-only"> {path}</span>
          </button>
          <a
            className="link quiet"
            download={name}
            href={`data:text/plain;charset=utf-8,${encodeURIComponent(text)}`}
          >
            Download<span className="sr-only"> {path}</span>
          </a>
        </span>
      </figcaption>
      <pre
        className="value max-h-80 overflow-auto border bg-base-200 p-2 text-[0.86rem] leading-snug border-base-300"
        tabIndex={0}
        aria-label={`Text of ${path}`}
      >
        {text}
      </pre>
    </figure>
  );
}
