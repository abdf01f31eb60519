import { z } from "zod";
import { layoutSchema } from "./layout";
import { tables } from "./tables";

const namedSchema = layoutSchema.extend({ title: z.string() });

/** A layout with what it is called. */
export type NamedLayout = z.infer<typeof namedSchema>;

let read: ReadonlyMap<string, NamedLayout> | null = null;

/** The layouts that ship with Derrick by the names that the sheet uses for them; written by scripts/make-layouts.py. */
export function layouts(): ReadonlyMap<string, NamedLayout> {
  read ??= new Map(Object.entries(z.record(z.string(), namedSchema).parse(tables)));
  return read;
}
