import { valueAt } from "../../document";
import type { BootEntry, Facts } from "../facts/facts";
import type { DriveContent } from "../facts/drive";
import type { ObservedContent } from "../facts/identity";

type Module = NonNullable<NonNullable<Facts["memory"]>["modules"]>[number];

/** Fields that `given` does not tell, as they are known of the same thing. */
function filled<T extends object>(given: T, known: T | undefined): T {
  if (!known) return given;
  const untold = Object.entries(known).filter(([key]) => {
    const value = valueAt(given, key);
    return value === undefined || value === null || value === "";
  });
  return { ...given, ...Object.fromEntries(untold) };
}

/** A boot entry that is listed without its path is the one of the same number and name. */
function entries(known: readonly BootEntry[], given: readonly BootEntry[]): BootEntry[] {
  const byId = new Map(known.map((e) => [`${e.id} ${e.label}`, e]));
  return given.map((e) => {
    const old = byId.get(`${e.id} ${e.label}`);
    return old && e.path === "" ? { ...e, path: old.path, kind: old.kind } : e;
  });
}

function modules(known: readonly Module[], given: readonly Module[]): Module[] {
  const byPlace = new Map(known.map((m) => [`${m.slot} ${m.sizeBytes}`, m]));
  return given.map((m) => filled(m, byPlace.get(`${m.slot} ${m.sizeBytes}`)));
}

/** A list inside a group of facts, with what a fuller output told of its items; anything else is as it is given. */
export function completed(path: string, old: unknown, given: unknown): unknown {
  if (!Array.isArray(old) || !Array.isArray(given)) return given;
  if (path === "firmware.entries") return entries(old as BootEntry[], given as BootEntry[]);
  return path === "memory.modules" ? modules(old as Module[], given as Module[]) : given;
}

/** The part of a drive without the drive's name, which moves: "1" of sda1, "1" of nvme0n1p1, "" of the bare drive. */
const placeOf = (part: string, drive: string): string =>
  part.startsWith(drive) ? part.slice(drive.length).replace(/^p(?=\d)/, "") : part;

/**
 * What stands on a drive by a listing that may know partitions and sizes only: kinds, labels and the rest stay those of
 * the same part of the same size, and what stands on the bare drive is not spoken of.
 */
export function contentsOf(
  known: { contents: readonly DriveContent[]; name: string },
  given: readonly ObservedContent[],
  name: string,
): DriveContent[] {
  const old = new Map(known.contents.map((c) => [placeOf(c.part, known.name), c]));
  const parts = given.map((c): DriveContent => {
    const was = old.get(placeOf(c.part, name));
    const isSame = was !== undefined && was.sizeBytes === c.sizeBytes && (c.kind ?? was.kind) === was.kind;
    const { part, sizeBytes, partUuid, ...told } = isSame ? filled(c, was) : c;
    const { kind = "unknown content", label = null, mountedAt = [] } = told;
    // In the order of the schema, by which equal contents are known.
    return { part, sizeBytes, kind, label, mountedAt, ...(partUuid !== undefined && { partUuid }) };
  });
  const bare = old.get("");
  const isUntold =
    given.some((c) => c.kind === undefined) && !given.some((c) => placeOf(c.part, name) === "");
  return isUntold && bare ? [{ ...bare, part: name }, ...parts] : parts;
}
