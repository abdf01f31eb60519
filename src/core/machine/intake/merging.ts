import type { FactSource, MachineDocument } from "../facts/document";
import type { ObservedDrive } from "../facts/identity";
import type { Item, ListName } from "./lists";

/** One fact that an import would change. `kind` tells a first word from a different one. */
export interface FactChange {
  path: string;
  before: unknown;
  after: unknown;
  kind: "new" | "changed" | "gone" | "back";
  source: FactSource;
}

/** Finds out which drive is meant by a reading. */
export interface DriveFinder {
  begin(observed: readonly ObservedDrive[]): void;
  identityOf(observed: ObservedDrive): string;
  find(m: Merge, observed: ObservedDrive): Item | undefined | null;
  told(target: Item, observed: Item): Item;
  keep(target: Item, observed: ObservedDrive): void;
}

/** What an import works on: the document as it becomes, and what is to be told of it. */
export interface Merge {
  document: MachineDocument;
  at: string;
  source: FactSource;
  /** The reading that is being laid may have been cut off: what it does not show is not gone. */
  mayBeCut: boolean;
  changes: FactChange[];
  remarks: string[];
  drives: DriveFinder;
  /** Items that any reading of this import has shown. */
  seen: Set<Item>;
  /** Items by what names them, for lists of thousands. */
  named: Map<ListName, Map<unknown, Item>>;
}

export const same = (a: unknown, b: unknown): boolean =>
  a === b || (typeof a === "object" && typeof b === "object" && JSON.stringify(a) === JSON.stringify(b));

/** Tells a change, when it is one. */
export function note(
  m: Merge,
  path: string,
  before: unknown,
  after: unknown,
  kind?: FactChange["kind"],
): void {
  if (same(before, after)) return;
  const isNew = before === undefined || before === null || same(before, []);
  m.changes.push({ path, before, after, kind: kind ?? (isNew ? "new" : "changed"), source: m.source });
}
