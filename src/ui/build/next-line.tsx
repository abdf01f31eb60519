"use client";

import { useRouter } from "next/navigation";
import { useSyncExternalStore } from "react";
import type { BuildView } from "@/core/sheet";
import { useCharacter } from "../frame/use-keys";
import { nextThing } from "./next-thing";

const KEY = "derrick_guide";
const heard = new Set<() => void>();
const subscribe = (tell: () => void) => {
  heard.add(tell);
  return () => void heard.delete(tell);
};
const isOff = () => localStorage.getItem(KEY) === "off";

function switchOff(): void {
  localStorage.setItem(KEY, "off");
  for (const tell of heard) tell();
}

/**
 * The line that names the next thing to do, on the sheets of a Derrick that has carried out nothing yet; it goes with the
 * first run, or when it is sent away.
 */
export function NextLine({ view }: { view: BuildView }) {
  const router = useRouter();
  const off = useSyncExternalStore(subscribe, isOff, () => true);
  const next = nextThing(view);
  const go = () => {
    if (!next || off) return;
    if (!next.href.startsWith("#")) return router.push(next.href);
    // Also where the address names it already, and it was folded since.
    history.pushState(history.state, "", next.href);
    dispatchEvent(new HashChangeEvent("hashchange"));
  };
  useCharacter(".", go);
  if (!next || off) return null;
  return (
    <p className="no-print flex w-full items-baseline gap-2 border-l-4 bg-base-200 px-3 py-1 border-info">
      <span className="label">Next</span>
      <a
        className="link font-semibold"
        href={next.href}
        onClick={(e) => {
          e.preventDefault();
          go();
        }}
      >
        {next.words}
      </a>
      <kbd className="kbd">.</kbd>
      <button type="button" className="link quiet ml-auto" onClick={switchOff}>
        Hide these hints
      </button>
    </p>
  );
}
