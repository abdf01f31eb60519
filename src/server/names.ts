import { names, type Named } from "@/db";
import type { Desk } from "./desk";

/** What a document is called, for the title of its pages; null where it is not there or cannot be read. */
export const nameOf = ({ db }: Desk, kind: Named, id: string): Promise<string | null> =>
  names.nameOf(db, kind, id).catch(() => null);
