import { z } from "zod";
import type { DocumentKind } from "./definition";
import { isBag } from "./path";
import { unseenTexts } from "./plain";

/** The upgrades as the first thing that a schema does: for schemas that take documents from files as well. */
export const upgraded = <S extends z.ZodType>(upgrades: DocumentKind["upgrades"], schema: S) =>
  z.preprocess((value) => upgradeWith(upgrades, value), schema);

function upgradeWith(upgrades: DocumentKind["upgrades"], value: unknown): unknown {
  let document = value;
  for (let passed = 0; passed < 1000 && isBag(document); passed += 1) {
    const upgrade = upgrades[Number(document.schemaVersion)];
    if (!upgrade) break;
    document = upgrade(document);
  }
  return document;
}

export type ReadDocument<T> = { ok: true; value: T } | { ok: false; problems: string[] };

/** Reads a stored document of any version up to the present one; the problems name their place, five at most. */
export function readDocument<S extends z.ZodType>(
  { kind, version, schema, upgrades, lines }: DocumentKind<string, S>,
  value: unknown,
): ReadDocument<z.output<S>> {
  const written = isBag(value) ? Number(value.schemaVersion) : NaN;
  if (written > version)
    return {
      ok: false,
      problems: [
        `it was written by a later version of Derrick: a ${kind} of version ${written}; this one supports version ${version}`,
      ],
    };
  const read = schema.safeParse(upgradeWith(upgrades, value));
  if (!read.success) return { ok: false, problems: problemsOf(read.error) };
  const unseen = unseenTexts(read.data, lines);
  return unseen.length > 0 ? { ok: false, problems: unseen } : { ok: true, value: read.data };
}

const problemsOf = (error: z.ZodError): string[] =>
  error.issues.slice(0, 5).map((i) => `${i.path.join(".") || "the document"}: ${i.message}`);
