import { readdirSync, readFileSync } from "node:fs";
import { basename, join } from "node:path";
import { isDeepStrictEqual } from "node:util";
import { z } from "zod";

/** One thing that was measured, and what Derrick says of it. */
export interface Compared {
  /** Which case, and which of its values: "p04-both-hybrid-gpt.iso, legacy from a stick". */
  what: string;
  measured: unknown;
  derrick: unknown;
}

/** Reads the files of one shape and compares each of their cases with the core. */
export interface TruthReader {
  name: string;
  /** Whether a path, relative to the folder that was given, is a file or folder of this shape. */
  reads(path: string): boolean;
  compare(path: string, options: TruthOptions): Iterable<Compared>;
}

export interface TruthOptions {
  /** Where the boot images lie that boot-truth.json is about. */
  corpus: string;
}

export interface Outcome {
  path: string;
  equal: number;
  differences: Compared[];
  seconds: number;
}

/** Files and folders below a folder, relative to it, in order; what a folder reader takes is not entered. */
function pathsBelow(folder: string, readers: readonly TruthReader[], below = ""): string[] {
  return readdirSync(join(folder, below), { withFileTypes: true })
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) => {
      const path = join(below, entry.name);
      return entry.isDirectory() ? [path, ...pathsBelow(folder, readers, path)] : [path];
    });
}

/** Compares every file of a known shape in a folder; one outcome a file, in the order of their names. */
export function* compareFolder(
  folder: string,
  readers: readonly TruthReader[],
  options: TruthOptions,
): Generator<Outcome> {
  for (const path of pathsBelow(folder, readers))
    for (const reader of readers.filter((r) => r.reads(path))) {
      const began = performance.now();
      const outcome: Outcome = { path, equal: 0, differences: [], seconds: 0 };
      for (const compared of attempt(reader, join(folder, path), options)) {
        if (isDeepStrictEqual(compared.measured, compared.derrick)) outcome.equal += 1;
        else outcome.differences.push(compared);
      }
      yield { ...outcome, seconds: (performance.now() - began) / 1000 };
    }
}

/** A file that cannot be read to its end is one difference more: nothing is passed over in silence. */
function* attempt(reader: TruthReader, path: string, options: TruthOptions): Generator<Compared> {
  try {
    yield* reader.compare(path, options);
  } catch (error) {
    yield { what: `${basename(path)} is read to its end`, measured: "read", derrick: String(error) };
  }
}

/** The lists of a file of cases, by their names; one that is not there has no cases. */
export const listsOf = (path: string): Record<string, unknown> =>
  z.looseObject({}).parse(JSON.parse(readFileSync(path, "utf8")));

/**
 * Compares the cases of a list one by one: one of another shape, or one that Derrick fails at, is one difference, and keeps none of
 * the others from being compared.
 */
export function* eachCase<T>(
  list: unknown,
  of: string,
  shape: z.ZodType<T>,
  compare: (one: T) => Iterable<Compared>,
): Generator<Compared> {
  if (list === undefined || list === null) return;
  const unread = (what: string, derrick: unknown): Compared => ({ what, measured: "read", derrick });
  if (!Array.isArray(list)) return yield unread(`${of} are a list`, typeof list);
  for (const [i, one] of list.entries()) {
    const what = `${of}, case ${i + 1} is read to its end`;
    const read = shape.safeParse(one);
    if (!read.success) {
      const [issue] = read.error.issues;
      yield unread(what, `${issue?.path.join(".")}: ${issue?.message}`);
      continue;
    }
    try {
      yield* compare(read.data);
    } catch (error) {
      yield unread(what, String(error));
    }
  }
}

/** Of pairs of what was measured and what Derrick says, those that were measured. */
export function* measuredOnes(
  of: string,
  pairs: readonly (readonly [what: string, measured: unknown, derrick: unknown])[],
): Generator<Compared> {
  for (const [what, measured, derrick] of pairs)
    if (measured !== undefined && measured !== null)
      yield { what: what ? `${of}, ${what}` : of, measured, derrick };
}
