import type { Check, Evidence, Facts, Hit, Message, Messages, Severity, Zone } from "./finding";

/** The names that stand in braces in a text. */
type Named<Text extends string> = Text extends `${string}{${infer Name}}${infer Rest}`
  ? Name | Named<Rest>
  : never;

/** The names in all texts of some phrases. */
type InPhrases<Worded> = {
  [Fact in keyof Worded]: {
    [Code in keyof Worded[Fact]]: Named<Worded[Fact][Code] & string>;
  }[keyof Worded[Fact]];
}[keyof Worded];

/**
 * The facts that the words of a message want: those of its sentences, a fact with phrases by one of their codes, and those
 * that only some phrases name.
 */
export type FactsOf<M> =
  M extends Message<infer Says, infer Remedy, infer Worded>
    ? {
        readonly [Name in Named<Says> | Named<Remedy>]: Name extends keyof Worded
          ? keyof Worded[Name] & string
          : string;
      } & { readonly [Name in Exclude<InPhrases<Worded>, Named<Says> | Named<Remedy>> & string]?: string }
    : never;

type Found<At extends string, Told> = Hit<At, Told> | Hit<At, Told>[] | null;

/**
 * The maker of rules over one ground, in one zone, with one set of messages. A code without words, a fact that the words name and a hit
 * lacks, and a place that is no path of `At` do not compile.
 */
export const rulesOver =
  <Ground, At extends string>() =>
  <M extends Messages>(zone: Zone, _messages: M) =>
  <Code extends keyof M & string>(
    code: Code,
    run: (ground: Ground) => Found<At, FactsOf<M[Code]>>,
  ): Check<Ground, At> => ({ code, zone, run: (ground) => [run(ground) ?? []].flat() });

export const evidence = (what: string, value: string, source: string): Evidence => ({ what, value, source });

/** What a rule has found: how bad, at which field, the facts of its sentence, and what clashes. */
export const hit = <At extends string, const Told extends Facts>(
  severity: Severity,
  at: At,
  facts: Told,
  ...shown: Evidence[]
): Hit<At, Told> => ({ severity, at, facts, evidence: shown });
