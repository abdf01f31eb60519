import { isBag } from "./path";

/**
 * What no stored text may hold: control characters, marks that turn the direction of what follows, halves of pairs, and other
 * ends of lines. A format that is read line by line would take what stands behind them for a line of its own, and a person
 * would read another value than a program.
 */
const UNSEEN = /[\p{Cc}\p{Cs}\p{Zl}\p{Zp}\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]/u;
/** The same for what people write in several lines. */
const UNSEEN_IN_LINES = /[^\P{Cc}\n\t]|[\p{Cs}\p{Zl}\p{Zp}\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]/u;

/** Fields in which people write sentences: their ends of lines are their own. No writer of a file takes a value from them. */
const SENTENCES = new Set([
  ...["notes", "note", "reason", "why", "words", "text", "says", "evidence", "condition"],
  ...["changed", "expected", "happened", "what"],
]);

/** What the lines of a kind's texts may be: of most, those of its sentences; of one that is made of others, any. */
export type Lines = "of sentences" | "anywhere";

/** A text with what a person cannot see in it named, for a message about it. */
export const unseenIn = (text: string, lines = false): string | null => {
  const [found] = (lines ? UNSEEN_IN_LINES : UNSEEN).exec(text) ?? [];
  return found === undefined
    ? null
    : found === "\n" || found === "\r"
      ? "it must be one line, without line breaks"
      : `it contains an invisible character (U+${found.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")})`;
};

const MOST_TOLD = 5;

/** The texts of a document that hold what no stored text may, by their places; five at most. */
export function unseenTexts(document: unknown, lines: Lines = "of sentences"): string[] {
  const told: string[] = [];
  const look = (value: unknown, place: string, isSentence: boolean): void => {
    if (told.length >= MOST_TOLD) return;
    if (typeof value === "string") {
      const problem = unseenIn(value, isSentence);
      if (problem !== null) told.push(`${place || "the document"}: ${problem}`);
    } else if (Array.isArray(value)) {
      value.forEach((one, i) => look(one, `${place}.${i}`, isSentence));
    } else if (isBag(value)) {
      for (const [key, inner] of Object.entries(value)) {
        const at = place === "" ? key : `${place}.${key}`;
        if (UNSEEN.test(key))
          told.push(`${place || "the document"}: the name of a field contains an invisible character`);
        look(inner, at, lines === "anywhere" || SENTENCES.has(key));
      }
    }
  };
  look(document, "", lines === "anywhere");
  return told;
}
