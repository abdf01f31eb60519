"use client";

import { useEffect, useRef } from "react";
import { useHotkeys } from "react-hotkeys-hook";

type Handler = Parameters<typeof useHotkeys>[1];

const slipIsOpen = (): boolean => document.querySelector("dialog[open]") !== null;

/**
 * A key of the sheet below. While a slip lies over it, every key belongs to the slip: what is typed there, or beside its
 * fields, never moves the sheet. A letter that opens a slip is not typed into its field as well.
 */
export function useKeys(keys: string, act: Handler): void {
  const preventDefault = keys.split(",").every((key) => key.length === 1);
  useHotkeys(keys, act, { preventDefault, ignoreEventWhen: slipIsOpen });
}

/** Fields in which characters are written; a choice or a tick that has just been made takes none. */
const WRITES = "input:not([type=radio], [type=checkbox]), textarea, select";

/**
 * A character as a key, wherever the keyboard has it: "/" stands alone on one layout, over the 7 on another, and "[" wants
 * a third level on a third.
 */
export function useCharacter(character: string, act: () => void): void {
  const latest = useRef(act);
  useEffect(() => {
    latest.current = act;
  });
  useEffect(() => {
    const listen = (e: KeyboardEvent): void => {
      const inField = e.target instanceof HTMLElement && e.target.matches(WRITES);
      if (e.key !== character || e.ctrlKey !== e.altKey || e.metaKey || inField || slipIsOpen()) return;
      e.preventDefault();
      latest.current();
    };
    addEventListener("keydown", listen);
    return () => removeEventListener("keydown", listen);
  }, [character]);
}
