import { loggedEventSchema, type LoggedEvent } from "./events";

/** What stands in a log that may hold entries which no schema takes. */
export interface StoredEvent {
  seq: number;
  at: string;
  given?: string;
  key: string;
  event: unknown;
}

const NOBODY = "unknown person";

/**
 * Reads one entry of a log as it was stored. One without a usable name keeps its meaning and says so; any other that does
 * not read becomes a "damaged" entry: it stops the run, since what it meant is not known, and hides nothing of the rest.
 */
export function readLogged(stored: StoredEvent): LoggedEvent {
  const read = loggedEventSchema.safeParse(stored);
  if (read.success) return read.data;
  const { event } = stored;
  const bag = typeof event === "object" && event !== null ? event : {};
  const named = loggedEventSchema.safeParse({ ...stored, event: { ...bag, by: NOBODY } });
  if (named.success) return named.data;
  const [issue] = read.error.issues;
  const why = `${issue?.path.join(".")}: ${issue?.message}`;
  const text = JSON.stringify(event) ?? "";
  return { ...stored, event: { kind: "damaged", why, text: text.slice(0, 2000), by: NOBODY } };
}
