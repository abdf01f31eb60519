import { distance } from "fastest-levenshtein";

/** Slips that a word of its length bears: one from four letters on, two from six. */
const slipsOf = ({ length }: string): number => (length < 4 ? 0 : length < 6 ? 1 : 2);

/** Addresses, sums and keys are typed from a label: a slip in one is another one. */
const IS_WORD = /^[\p{L}][\p{L}\p{N}-]{2,29}$/u;

/** The word of a vocabulary that a word was most likely meant to be; null where none is near. */
export function nearestWord(word: string, vocabulary: Iterable<string>): string | null {
  const most = slipsOf(word);
  if (most === 0 || !IS_WORD.test(word)) return null;
  let best: { word: string; slips: number } | null = null;
  for (const other of vocabulary) {
    if (Math.abs(other.length - word.length) > most || !IS_WORD.test(other)) continue;
    const slips = distance(word, other);
    if (slips <= most && (!best || slips < best.slips)) best = { word: other, slips };
  }
  return best?.word ?? null;
}

/** The words of texts, in small letters, each once. */
export const wordsIn = (texts: Iterable<string>): Set<string> => {
  const words = new Set<string>();
  for (const text of texts)
    for (const word of text.toLowerCase().split(/[\s,;:/()"]+/)) if (word.length > 2) words.add(word);
  return words;
};

/** The query with each word that stands nowhere replaced by the nearest one; null where that is no other query. */
export function nearQuery(words: readonly string[], vocabulary: ReadonlySet<string>): string[] | null {
  const all = [...vocabulary];
  const next = words.map((w) => (all.some((v) => v.includes(w)) ? w : (nearestWord(w, all) ?? w)));
  return next.some((w, i) => w !== words[i]) ? next : null;
}
