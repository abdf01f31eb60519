"use client";

import { useHotkeys, type Options } from "react-hotkeys-hook";

type Handler = Parameters<typeof useHotkeys>[1];

/**
 * A key of the sheet below. While a slip lies over it, every key belongs to the slip: what is typed there, or beside its
 * fields, never moves the sheet.
 */
export function useKeys(keys: string, act: Handler, options: Options = {}): void {
  useHotkeys(keys, act, {
    ...options,
    ignoreEventWhen: () => document.querySelector("dialog[open]") !== null,
  });
}
