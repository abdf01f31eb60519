import { z } from "zod";
import { fail, ok, type Result } from "../result";
import type { DocumentKind } from "./definition";
import { isBag, valueAt, withValueAt } from "./path";
import { unseenTexts } from "./plain";

/** One change of a document as a value with its inverse: it can be undone, sent, kept as history, and shown. */
export const editSchema = z.object({
  path: z.string(),
  before: z.unknown(),
  after: z.unknown(),
  /** Where its value was taken from, in words, when nobody typed it: "kickstart file, line 12". */
  from: z.string().max(120).optional(),
});
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

/** Applies edits to a copy. A path that the document does not have, or a value of the wrong kind, is a problem. */
export function applyEditsTo<S extends z.ZodType>(
  { kind, schema }: Pick<DocumentKind<string, S>, "kind" | "schema">,
  document: z.output<S>,
  edits: readonly Edit[],
): Result<z.output<S>> {
  let next: unknown = document;
  for (const { path, after } of edits) {
    next = withValueAt(next, path, after);
    if (next === null) return fail({ message: `the ${kind} has no field ${path}` });
  }
  const checked = schema.safeParse(next);
  if (!checked.success)
    return fail(
      ...checked.error.issues.slice(0, 5).map((i) => ({ message: `${i.path.join(".")}: ${i.message}` })),
    );
  const unseen = unseenTexts(checked.data);
  return unseen.length > 0 ? fail(...unseen.map((message) => ({ message }))) : ok(checked.data);
}

/** The inverse of edits, where all of them still stand; fields that were changed again since then are named. */
export function takenBack(document: unknown, edits: readonly Edit[]): Result<Edit[]> {
  const stands = (e: Edit): boolean => same(valueAt(document, e.path) ?? null, e.after ?? null);
  const since = edits.filter((e) => !stands(e)).map((e) => e.path);
  return since.length > 0
    ? fail({ message: `Changed again since then, so nothing was undone: ${since.join(", ")}.` })
    : ok(invertEdits(edits));
}
