import type { Answer, Refusal } from "@/contract";

export const yes = <T>(value: T): Answer<T> => ({ ok: true, value });
export const no = (...messages: string[]): Refusal => ({
  ok: false,
  problems: messages.map((message) => ({ message })),
});

export const STALE =
  "Someone else saved this meanwhile, so your save was not carried out. Your entry is kept: compare both versions and choose.";
