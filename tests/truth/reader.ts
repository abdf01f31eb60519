import { readdirSync } from "node:fs";
import { basename, join } from "node:path";
import { isDeepStrictEqual } from "node:util";

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
