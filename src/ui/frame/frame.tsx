import type { ReactNode } from "react";
import { Alarm } from "./alarm";
import { Drawers } from "./drawers";
import { FindBox } from "./find-box";
import { FreshOnReturn } from "./fresh-on-return";
import { FullText } from "./full-text";
import { HandName } from "./hand-name";
import type { Units } from "./units";
import { KeySheet } from "./key-sheet";
import { ServerState } from "./server-state";
import { ThemeSwitch } from "./theme-switch";

/** The plan chest: one thin strip of drawers, the open one joins the sheet below. */
export function Frame({
  children,
  hand,
  units,
  setHand,
  begin,
}: {
  children: ReactNode;
  hand: string;
  units: Units;
  setHand: (name: string, units: Units) => Promise<void>;
  /** Begins a build sheet and leads to it. */
  begin: () => Promise<void>;
}) {
  return (
    <div className="flex min-h-dvh flex-col">
      <a href="#sheet" className="sr-only focus:not-sr-only">
        Skip to content
      </a>
      <header className="sticky top-0 z-30 flex flex-wrap items-end gap-x-3 border-b bg-base-200 px-3 pt-1.5 border-base-content">
        <Mark />
        <Drawers />
        <Alarm />
        <div className="ml-auto flex items-center gap-2 pb-1 md:[[role=status]+&]:ml-0">
          <HandName {...{ hand, units, setHand }} />
          <FindBox begin={begin} />
          <ThemeSwitch />
          <KeySheet />
        </div>
      </header>
      <ServerState />
      <FreshOnReturn />
      <FullText />
      <main id="sheet" className="flex flex-1 flex-col bg-base-100">
        {children}
      </main>
    </div>
  );
}

/** Boom, line and hook: the mark of the product. */
function Mark() {
  return (
    <span className="flex items-end gap-1.5 pb-1.5" title="Derrick">
      <svg
        viewBox="0 0 26 26"
        width="22"
        height="22"
        aria-hidden="true"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.8"
        strokeLinecap="round"
        strokeLinejoin="round"
      >
        <path d="M4 25 V5 L22 2 M4 12 L15 3.2" />
        <path d="M20 2.4 V13 M20 13 a3.2 3.2 0 1 1 -3.2 3.2" />
      </svg>
      <span className="hidden text-[1.05rem] leading-none font-semibold tracking-tight md:inline">
        Derrick
      </span>
    </span>
  );
}
