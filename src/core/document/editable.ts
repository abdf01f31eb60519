import type { z } from "zod";
import { fail, ok, type Problem, type Result } from "../result";
import { valueAt } from "./path";
import { applyEditsTo, takenBack, type Edit } from "./edits";

/** Who writes, and when; it stands in what he signs. */
export interface Hand {
  by: string;
  at: string;
}

/** The part of a kind's documents that people write in forms; the rest is measured, or follows from acts. */
export interface Editable<D, S extends z.ZodType = z.ZodType> {
  kind: string;
  /** Of the part. */
  schema: S;
  partOf(document: D): z.output<S>;
  /** The document with another part; what is new in it gets who and when from the hand. */
  put(document: D, part: z.output<S>, hand: Hand): D;
  /** A change of the document as changes of its part, where the part writes it under other paths. */
  retold?(edit: Edit): Edit[];
  /** After a change was taken back: what follows from the part, such as where a fact comes from, is as it was as well. */
  followed?(before: D, after: D, change: readonly Edit[]): D;
}

/** A document after edits of its part. */
export function edited<D, S extends z.ZodType>(
  editable: Editable<D, S>,
  document: D,
  edits: readonly Edit[],
  hand: Hand,
): Result<D> {
  const part = applyEditsTo(editable, editable.partOf(document), edits);
  return part.ok ? ok(editable.put(document, part.value, hand)) : part;
}

/** A document after one of its changes is taken back, where nothing of it was changed again, and all of it is in its part. */
export function editedBack<D, S extends z.ZodType>(
  editable: Editable<D, S>,
  document: D,
  change: readonly Edit[],
  hand: Hand,
): Result<D> {
  const part = editable.partOf(document);
  const written = change.flatMap((e) => editable.retold?.(e) ?? [e]);
  if (written.some((e) => valueAt(part, e.path) === undefined))
    return fail({ message: "This change was not made in this form, so it cannot be undone here." });
  const inverse = takenBack(part, written);
  if (!inverse.ok) return inverse;
  const next = applyEditsTo(editable, part, inverse.value);
  if (!next.ok) return next;
  const put = editable.put(document, next.value, hand);
  return ok(editable.followed?.(document, put, change) ?? put);
}

/** What a form works on: the part of a document that people write, as it stands. */
export interface WrittenView<P> {
  document: P;
  version: number;
  updatedAt: string;
}

/** What a save came to: what stands now, or the other version that is in the way. */
export type WrittenAnswer<P> =
  | { ok: true; view: WrittenView<P> }
  | { ok: false; problems: Problem[]; stale?: { view: WrittenView<P>; by: string; at: string } | null };
