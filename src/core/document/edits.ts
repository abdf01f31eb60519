import { z } from "zod";
import { isBag } from "./path";

/** One change of a document as a value with its inverse: it can be undone, sent, kept as history, and shown. */
export const editSchema = z.object({ path: z.string(), before: z.unknown(), after: z.unknown() });
export type Edit = z.infer<typeof editSchema>;

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** The fields that differ, as edits from the first document to the second. A list counts as one value. */
export function diffDocuments(from: unknown, to: unknown): Edit[] {
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
