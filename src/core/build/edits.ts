import { z } from "zod";
import { fail, ok, type Result } from "../result";
import { sheetSchema, type Sheet } from "./sheet";

/** One change of a sheet as a value with its inverse: it can be undone, sent, kept as history, and shown. */
export const editSchema = z.object({ path: z.string(), before: z.unknown(), after: z.unknown() });
export type Edit = z.infer<typeof editSchema>;

type Bag = Record<string, unknown>;
const isBag = (value: unknown): value is Bag =>
  typeof value === "object" && value !== null && !Array.isArray(value);
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** The fields that differ, as edits from the first sheet to the second. Lists count as one value. */
export function diffSheets(from: Sheet, to: Sheet): Edit[] {
  const walk = (a: unknown, b: unknown, path: string): Edit[] => {
    if (same(a, b)) return [];
    if (!isBag(a) || !isBag(b)) return [{ path, before: a ?? null, after: b ?? null }];
    return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((key) =>
      walk(a[key], b[key], path ? `${path}.${key}` : key),
    );
  };
  return walk(from, to, "");
}

export const invertEdits = (edits: readonly Edit[]): Edit[] =>
  [...edits].reverse().map(({ path, before, after }) => ({ path, before: after, after: before }));

/** The value at a dotted path; undefined when there is none. What every object inherits is no field of a sheet. */
export function valueAt(sheet: unknown, path: string): unknown {
  return path
    .split(".")
    .reduce<unknown>(
      (value, key) => (isBag(value) && Object.hasOwn(value, key) ? value[key] : undefined),
      sheet,
    );
}

/** Applies edits to a copy. A path that the sheet does not have, or a value of the wrong kind, is a problem. */
export function applyEdits(sheet: Sheet, edits: readonly Edit[]): Result<Sheet> {
  const next = structuredClone(sheet);
  for (const { path, after } of edits) {
    const keys = path.split(".");
    const last = keys.pop() ?? "";
    const parent = keys.length === 0 ? next : valueAt(next, keys.join("."));
    if (!isBag(parent) || !Object.hasOwn(parent, last))
      return fail({ message: `the sheet has no field ${path}` });
    parent[last] = after;
  }
  const checked = sheetSchema.safeParse(next);
  return checked.success
    ? ok(checked.data)
    : fail(...checked.error.issues.map((i) => ({ message: `${i.path.join(".")}: ${i.message}` })));
}

/** Revision letters as on drawings: A to Z without I and O, then AA. */
export function nextRevision(last: string | null): string {
  const letters = "ABCDEFGHJKLMNPQRSTUVWXYZ";
  if (last === null) return "A";
  const at = letters.indexOf(last.slice(-1));
  return at === letters.length - 1
    ? `${nextRevision(last.slice(0, -1) || null)}A`
    : last.slice(0, -1) + letters[at + 1];
}
