import type { Check, Evidence, Hit, Message, Messages, Severity, Zone } from "./finding";

/** The names that stand in braces in a text. */
type Named<Text extends string> = Text extends `${string}{${infer Name}}${infer Rest}`
  ? Name | Named<Rest>
  : never;

/** The facts that the words of a message want. */
export type FactsOf<M> = M extends Message<infer Says, infer Remedy> ? Named<Says> | Named<Remedy> : never;

type Found<At extends string, Facts extends string> = Hit<At, Facts> | Hit<At, Facts>[] | null;

/**
 * The maker of rules over one ground and one set of messages. A code without words, a fact that the words name and a hit
 * lacks, and a place that is no path of `At` do not compile.
 */
export const rulesOver =
  <Ground, At extends string>() =>
  <M extends Messages>(_messages: M) =>
  <Code extends keyof M & string>(
    code: Code,
    zone: Zone,
    run: (ground: Ground) => Found<At, FactsOf<M[Code]>>,
  ): Check<Ground, At> => ({ code, zone, run: (ground) => [run(ground) ?? []].flat() });

export const evidence = (what: string, value: string, source: string): Evidence => ({ what, value, source });

/** What a rule has found: how bad, at which field, the facts of its sentence, and what clashes. */
export const hit = <At extends string, Facts extends Readonly<Record<string, string>>>(
  severity: Severity,
  at: At,
  facts: Facts,
  ...shown: Evidence[]
): Hit<At, keyof Facts & string> => ({ severity, at, facts, evidence: shown });
