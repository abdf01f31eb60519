import type { RunCommand } from "@/core/run";

/** An answer that the server has not confirmed yet. */
export interface Unsent {
  key: string;
  command: RunCommand;
  /** When it was given, by this browser's clock, in milliseconds. */
  givenAt: number;
}

/** What is used of the browser's own store. */
export type Shelf = Pick<Storage, "length" | "key" | "getItem" | "setItem" | "removeItem">;

const PREFIX = "derrick-unsent/";
/** Where earlier versions kept all answers of a run in one list, which two windows overwrote. */
const formerName = (run: string): string => `derrick-unsent-${run}`;
const ORDER_DIGITS = 16;

const nameOf = (run: string, order: number, key: string): string =>
  `${PREFIX}${run}/${String(order).padStart(ORDER_DIGITS, "0")}/${key}`;

function namesOf(shelf: Shelf, run: string): string[] {
  const all = Array.from({ length: shelf.length }, (_, i) => shelf.key(i) ?? "");
  return all.filter((name) => name.startsWith(`${PREFIX}${run}/`)).sort();
}

/**
 * Writes an answer down under a name of its own, behind all that wait: windows that write at the same time cannot lose each
 * other's. Throws when the browser keeps nothing.
 */
export function put(shelf: Shelf, run: string, entry: Unsent): void {
  const last = namesOf(shelf, run).at(-1)?.split("/")[2];
  const order = Math.max(entry.givenAt, last === undefined ? 0 : Number(last) + 1);
  shelf.setItem(nameOf(run, order, entry.key), JSON.stringify(entry));
}

/** What waits to be sent, of all windows, in the order in which it was given. What cannot be read is left where it is. */
export function waiting(shelf: Shelf, run: string): Unsent[] {
  return namesOf(shelf, run).flatMap((name) => {
    try {
      return [JSON.parse(shelf.getItem(name) ?? "") as Unsent];
    } catch {
      return [];
    }
  });
}

export function drop(shelf: Shelf, run: string, key: string): void {
  for (const name of namesOf(shelf, run)) if (name.endsWith(`/${key}`)) shelf.removeItem(name);
}

/** Answers that an earlier version kept go into the outbox; when they were given is not known, so `now` is taken. */
export function takeFormer(shelf: Shelf, run: string, now: number): void {
  const former = shelf.getItem(formerName(run));
  if (former === null) return;
  try {
    for (const { key, command } of JSON.parse(former) as Unsent[])
      put(shelf, run, { key, command, givenAt: now });
  } catch {
    return;
  }
  shelf.removeItem(formerName(run));
}

/** A store that lives as long as the window, for browsers that keep nothing. */
export function inMemory(): Shelf {
  const map = new Map<string, string>();
  return {
    get length() {
      return map.size;
    },
    key: (i) => [...map.keys()][i] ?? null,
    getItem: (name) => map.get(name) ?? null,
    setItem: (name, value) => void map.set(name, value),
    removeItem: (name) => void map.delete(name),
  };
}
