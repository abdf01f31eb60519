import type { z } from "zod";

/** Kinds of rows whose document is read by a schema. */
export type Kind = "site" | "machine" | "image" | "build" | "run" | "drive" | "note";

const words = (error: z.ZodError): string[] =>
  error.issues.slice(0, 5).map((i) => `${i.path.join(".") || "the document"}: ${i.message}`);

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

/** Reads a stored document; what does not fit its schema is a DamagedError. */
export function readStored<S extends z.ZodType>(
  kind: Kind,
  id: string,
  schema: S,
  value: unknown,
): z.output<S> {
  const read = value instanceof BrokenJson ? null : schema.safeParse(value);
  if (read?.success) {
    if (met().size > 0) met().delete(nameOf(kind, id));
    return read.data;
  }
  met().add(nameOf(kind, id));
  throw new DamagedError(kind, id, read ? words(read.error) : ["the document: not JSON"]);
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
export function toStore<S extends z.ZodType>(kind: Kind | "event", schema: S, value: unknown): z.output<S> {
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  throw new UnsoundError(kind, words(read.error));
}
