import type { z } from "zod";
import type { Lines } from "./plain";

type Bag = Record<string, unknown>;

/** Turns a document of one version into the next; it gets what an earlier Derrick wrote, unchecked. */
export type Upgrade = (document: Bag) => Bag;

/** A kind of stored document: its shape now, and how older ones become it. */
export interface DocumentKind<K extends string = string, S extends z.ZodType = z.ZodType> {
  kind: K;
  /** The version of the shape that is written now; it stands in each document as `schemaVersion`. */
  version: number;
  schema: S;
  upgrades: Readonly<Record<number, Upgrade>>;
  /** Where its texts may have several lines; only in sentences where it does not say. */
  lines?: Lines;
}

/** Every older version needs its upgrade, so that what was ever written is read. */
export function defineDocument<K extends string, S extends z.ZodType>(
  definition: DocumentKind<K, S>,
): DocumentKind<K, S> {
  for (let version = 1; version < definition.version; version += 1)
    if (!definition.upgrades[version])
      throw new Error(`${definition.kind} has no upgrade from version ${version}`);
  return definition;
}
