import { ZxcvbnFactory } from "@zxcvbn-ts/core";
import * as common from "@zxcvbn-ts/language-common";
import * as english from "@zxcvbn-ts/language-en";

/** How long a password stands. */
export interface Strength {
  /** Tries until it is found, by one who knows how people choose. */
  guesses: number;
  /** Why it is found so early, in words; empty where nothing is to be said. */
  why: string;
}

let judge: ZxcvbnFactory | null = null;

/** Texts longer than this are judged by their beginning: the rest only makes them stronger. */
const LONGEST = 128;

/** The tries that a password stands, where `words` (of the site, the machine, the person) are the first ones tried. */
export function strengthOf(password: string, words: readonly string[]): Strength {
  judge ??= new ZxcvbnFactory({
    translations: english.translations,
    graphs: common.adjacencyGraphs,
    dictionary: { ...common.dictionary, ...english.dictionary },
  });
  if (password === "") return { guesses: 0, why: "" };
  const { guesses, feedback } = judge.check(password.slice(0, LONGEST), [...words]);
  return { guesses, why: feedback.warning ?? "" };
}

/** Words that passphrases are made of: a list for dice, of short words that are told apart. */
export const passphraseWords = (): string[] =>
  common.dictionary["diceware-common"].filter((word) => /^[a-z]{3,9}$/.test(word));
