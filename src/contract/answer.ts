import type { Problem } from "@/core/result";

/** What did not happen, and why, in words a person can act on. */
export interface Refusal {
  ok: false;
  problems: Problem[];
}

/** What a use case answers to the interface: a value, or why there is none. */
export type Answer<T> = { ok: true; value: T } | Refusal;

/** The same where nobody asks for the value. */
export type Done = { ok: true } | Refusal;
