import type { MachineDocument } from "./document";

type Keys = MachineDocument["typed"]["keys"];

/** Readings of a run that tell a machine's own keys; what was read there is kept with the machine. */
export const KEY_READINGS = ["boot-menu key", "set-up key", "network-boot key"] as const;

const WHICH: readonly [RegExp, "bootMenu" | "setup" | "network"][] = [
  [/^boot[- ]?menu key$/i, "bootMenu"],
  [/^set-?up key$/i, "setup"],
  [/^network[- ]?boot key$/i, "network"],
];
const VALUE = /^(\S(?:.{0,38}?\S)?)(?:\s*,\s*|\s+)(?:after\s+|at\s+)?(\d{1,3})\s*(?:s|sec|seconds)\.?$/i;
const LONGEST = 40;

/**
 * The key that a reading tells ("boot-menu key": "F11, 12 s"), and after how many seconds from power on it is taken where
 * that stands with it. Null for readings of anything else.
 */
export function keysRead(what: string, value: string): Partial<Keys> | null {
  const which = WHICH.find(([words]) => words.test(what.trim()))?.[1];
  const text = value.trim();
  if (!which || text === "") return null;
  const [, key = text, seconds] = VALUE.exec(text) ?? [];
  if (key.length > LONGEST) return null;
  return { [which]: key, ...(seconds && Number(seconds) > 0 ? { seconds: Number(seconds) } : {}) };
}
