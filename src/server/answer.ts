import type { Problem, Result } from "@/core/result";

/** What a use case says to the interface: a value, or problems in words a person can act on. */
export type Answer<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

export const yes = <T>(value: T): Answer<T> => ({ ok: true, value });
export const no = (...messages: string[]): { ok: false; problems: Problem[] } => ({
  ok: false,
  problems: messages.map((message) => ({ message })),
});

export const fromResult = <T>(result: Result<T>): Answer<T> =>
  result.ok ? yes(result.value) : { ok: false, problems: result.problems };

export const STALE =
  "Someone else saved this meanwhile, so your save was not carried out. Your entry is kept: compare both versions and choose.";
