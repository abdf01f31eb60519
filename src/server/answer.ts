import type { Answer, Refusal } from "@/contract";
import type { Result } from "@/core/result";

export const yes = <T>(value: T): Answer<T> => ({ ok: true, value });
export const no = (...messages: string[]): Refusal => ({
  ok: false,
  problems: messages.map((message) => ({ message })),
});

export const fromResult = <T>(result: Result<T>): Answer<T> =>
  result.ok ? yes(result.value) : { ok: false, problems: result.problems };

export const STALE =
  "Someone else saved this meanwhile, so your save was not carried out. Your entry is kept: compare both versions and choose.";
