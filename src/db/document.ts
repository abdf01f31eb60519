import type { z } from "zod";
import { readDocument, unseenTexts, type DocumentKind, type Lines, type ReadDocument } from "@/core/document";

/** Kinds of rows whose document is read by a schema. */
export type Kind = "site" | "machine" | "image" | "build" | "run" | "drive" | "note";

/** A row that does not read as what it should be. It spoils nothing else: lists pass it over, and it can be repaired. */
export class DamagedError extends Error {
  constructor(
    readonly kind: Kind,
    readonly id: string,
    readonly problems: string[],
  ) {
    super(`The ${kind} ${id} is damaged: ${problems.join("; ")}`);
  }
}

/** What was about to be written is not what it should be, so nothing was written. A person sees the message. */
export class UnsoundError extends Error {
  constructor(
    readonly kind: Kind | "event",
    problems: string[],
  ) {
    super(`Nothing was saved: ${problems.join("; ")}`);
  }
}

/** JSON in a column that is no JSON; it is carried as it is, and no schema takes it. */
export class BrokenJson {
  constructor(readonly text: string) {}
}

/** A document as it stands in its column: it is parsed where it is read, and the same text only once. */
export class StoredText {
  constructor(readonly text: string) {}
}

/**
 * Damaged rows that were met since the start, so that pages can call for them without reading everything. Next loads
 * server code in several bundles; it is kept once for all of them.
 */
const shared = globalThis as { derrickDamaged?: Set<string> };
const met = (): Set<string> => (shared.derrickDamaged ??= new Set());
const nameOf = (kind: Kind, id: string): string => `${kind} ${id}`;

/** How many damaged rows were met, but for those in `aside`. */
export const countDamaged = (aside: readonly { kind: string; id: string }[]): number => {
  const quiet = new Set(aside.map((r) => `${r.kind} ${r.id}`));
  return [...met()].filter((name) => !quiet.has(name)).length;
};

/** Documents that were read, by kind and id, each with the text that it was read from. The oldest are forgotten first. */
const readBefore = new Map<string, { text: string; value: unknown }>();
const MOST_REMEMBERED = 5000;

/** Nobody may change a document that others get too; an attempt throws. */
function frozen<T>(value: T): T {
  if (typeof value === "object" && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    for (const part of Object.values(value)) frozen(part);
  }
  return value;
}

/**
 * Reads a stored document, bringing an older one up to its present version; what does not fit is a DamagedError. A text
 * that was read before under this id gives the same value again: to parse and check a machine takes milliseconds.
 */
export function readStored<S extends z.ZodType>(
  definition: DocumentKind<Kind, S>,
  id: string,
  { text }: StoredText,
): z.output<S> {
  const name = nameOf(definition.kind, id);
  const before = readBefore.get(name);
  if (before?.text === text) {
    if (met().size > 0) met().delete(name);
    return before.value as z.output<S>;
  }
  const json = parsed(text);
  const read = json.ok ? readDocument(definition, json.value) : json;
  if (!read.ok) {
    met().add(name);
    throw new DamagedError(definition.kind, id, read.problems);
  }
  if (met().size > 0) met().delete(name);
  readBefore.delete(name);
  readBefore.set(name, { text, value: frozen(read.value) });
  if (readBefore.size > MOST_REMEMBERED) readBefore.delete(readBefore.keys().next().value!);
  return read.value;
}

/** What stands in a column, unchecked, for comparing; null where it is no JSON. */
export const jsonOf = ({ text }: StoredText): unknown => {
  const json = parsed(text);
  return json.ok ? json.value : null;
};

function parsed(text: string): ReadDocument<unknown> {
  try {
    return { ok: true, value: JSON.parse(text) as unknown };
  } catch {
    return { ok: false, problems: ["the document: not JSON"] };
  }
}

/** The rows of a list that read; damaged ones are left out, and stand on the page of damaged documents. */
export function sound<Row, T>(rows: readonly Row[], read: (row: Row) => T): T[] {
  return rows.flatMap((row) => {
    try {
      return [read(row)];
    } catch (error) {
      if (error instanceof DamagedError) return [];
      throw error;
    }
  });
}

/** A document on its way into the database: nothing is written that would not be read again. */
export function toStore<S extends z.ZodType>(
  { kind, schema, lines }: { kind: Kind | "event"; schema: S; lines?: Lines },
  value: unknown,
): z.output<S> {
  const read = schema.safeParse(value);
  const problems = read.success
    ? unseenTexts(read.data, lines)
    : read.error.issues.slice(0, 5).map((i) => `${i.path.join(".") || "the document"}: ${i.message}`);
  if (read.success && problems.length === 0) return read.data;
  throw new UnsoundError(kind, problems);
}
