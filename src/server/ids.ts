import { customAlphabet } from "nanoid";

// Crockford's base 32: no i, l, o or u, so that an id can be read aloud.
const ALPHABET = "0123456789abcdefghjkmnpqrstvwxyz";
const random = customAlphabet(ALPHABET, 5);
const secret = customAlphabet(ALPHABET, 20);

/** A short id that sorts by time: a letter for the kind, seconds in base 32, five random characters. */
export function newId(kind: "s" | "m" | "i" | "b" | "r" | "t" | "n" | "p" | "j" | "a"): string {
  let seconds = Math.floor(Date.now() / 1000);
  let time = "";
  while (seconds > 0) {
    time = ALPHABET[seconds % 32] + time;
    seconds = Math.floor(seconds / 32);
  }
  return `${kind}-${time}-${random()}`;
}

/** A code of 100 random bits in groups of five, for the collector. */
export const newCode = (): string => secret().match(/.{5}/g)?.join("-") ?? secret();
