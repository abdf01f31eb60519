"use client";

import { useDeferredValue, type ReactNode } from "react";
import type { StageState } from "@/core/sheet";
import { usePrinting } from "../frame/use-printing";

/** One stage of the sheet: its letter, its piece of the line, its decision in one line, and what makes it. */
export function Band({
  stage,
  hook,
  open,
  onToggle,
  onWork,
  children,
}: {
  stage: StageState;
  hook: boolean;
  open: boolean;
  onToggle: () => void;
  /** Somebody is working in it. */
  onWork: () => void;
  children?: ReactNode;
}) {
  const foldable = children !== undefined && children !== null;
  // The head answers at once; what it opens is drawn as soon as there is time, and before paper is written on.
  const isPrinting = usePrinting();
  const isDrawn = useDeferredValue(open) || isPrinting;
  // A stage that does not apply is folded away like paper: its letter stays, so that the alphabet is whole.
  if (stage.state === "folded")
    return (
      <section
        id={`zone-${stage.zone}`}
        aria-label={`Zone ${stage.zone}, ${stage.title}: ${stage.summary}`}
        title={`${stage.zone} ${stage.title}: ${stage.summary}`}
        className="grid h-3 grid-cols-[3.6rem_minmax(0,1fr)] border-b bg-base-200 border-base-300"
      >
        <div className="relative flex">
          <span aria-hidden="true" className="w-7 border-r border-base-content" />
          <Line state="folded" />
        </div>
      </section>
    );
  return (
    <section
      id={`zone-${stage.zone}`}
      aria-label={`Zone ${stage.zone}, ${stage.title}`}
      className="grid grid-cols-[3.6rem_minmax(0,1fr)] border-b border-base-300 [contain:layout_style]"
    >
      <div className="relative flex">
        <span className="value flex w-7 items-start justify-center border-r pt-2.5 text-[1.07rem] font-semibold border-base-content">
          {stage.zone}
        </span>
        <Line state={stage.state} />
        {hook && <Hook />}
      </div>
      <div className="min-w-0 py-2 pr-3 pl-2">
        <h2 data-zone-head={stage.zone} className="leading-snug">
          <button
            type="button"
            disabled={!foldable}
            aria-expanded={foldable ? open : undefined}
            aria-keyshortcuts={stage.zone}
            onClick={onToggle}
            className="flex w-full items-baseline gap-3 text-left enabled:cursor-pointer"
          >
            <span className="label w-[5.6rem] shrink-0">{stage.title}</span>
            <span className={`text-[1.07rem] ${stage.state === "open" ? "quiet italic" : "font-medium"}`}>
              {stage.summary}
            </span>
            {foldable && (
              <svg
                aria-hidden="true"
                viewBox="0 0 12 12"
                width="11"
                height="11"
                className="ml-auto shrink-0 self-center"
                fill="none"
                stroke="currentColor"
                strokeWidth="1.6"
              >
                <path d={open ? "M2 8 L6 4 L10 8" : "M2 4 L6 8 L10 4"} />
              </svg>
            )}
          </button>
        </h2>
        {open && isDrawn && foldable && (
          <div
            className="pt-2.5 pb-2 pl-0 sheet:pl-[6.35rem]"
            onFocusCapture={onWork}
            onChangeCapture={onWork}
          >
            {children}
          </div>
        )}
      </div>
    </section>
  );
}

/** A settled stage is tight on the line, an open one hangs loose, a stop bends it. */
function Line({ state }: { state: StageState["state"] }) {
  const stopped = state === "stopped";
  return (
    <svg
      aria-hidden="true"
      viewBox="0 0 24 100"
      preserveAspectRatio="none"
      className="absolute inset-y-0 left-8 h-full w-6"
      fill="none"
      style={{ color: stopped ? "var(--color-error)" : "currentColor" }}
    >
      <path
        d={stopped ? "M8 0 V12 L21 30 L21 48 L8 66 V100" : "M8 0 V100"}
        stroke="currentColor"
        strokeWidth={state === "folded" ? 1 : stopped ? 2.4 : 2}
        strokeDasharray={state === "open" ? "2 5" : state === "folded" ? "1 7" : undefined}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}

/** The hook marks where the build hangs now. */
function Hook() {
  return (
    <svg
      role="img"
      aria-label="Next stage of the build"
      viewBox="0 0 24 34"
      width="22"
      height="32"
      className="absolute top-2 left-[1.72rem]"
      fill="none"
      stroke="currentColor"
      strokeWidth="2.6"
      strokeLinecap="round"
      strokeLinejoin="round"
    >
      <path d="M7.5 2 H16.5 V9 H7.5 Z" fill="var(--color-base-100)" />
      <path d="M12 9 V17 a6 6 0 1 1 -7 6.5" />
    </svg>
  );
}
