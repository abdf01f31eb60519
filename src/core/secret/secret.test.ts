import { encrypt } from "unixcrypt";
import { expect, it } from "vitest";
import { cryptOf, passphraseWords, saltFrom, strengthOf } from ".";

const SALT = "saltSALT12345678";
const PRINTABLE = Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i)).join("");

it.each([
  ["of one character", "a"],
  ["of eight", "Zebra-Y1"],
  ["of 127", PRINTABLE.repeat(2).slice(0, 127)],
  ["of 200", "y".repeat(200)],
  ["of every printable character", PRINTABLE],
  ["with accents", "Grün ß €"],
  ["with an emoji", "🐎 horse"],
])("the hash of a password %s is that of another program", (_, password) => {
  const hash = cryptOf(password, SALT);
  expect(hash).toBe(encrypt(password, `$6$${SALT}`));
  expect(hash).toMatch(/^\$6\$[./0-9A-Za-z]{16}\$[./0-9A-Za-z]{86}$/);
});

it("a salt is sixteen characters of those that a hash may have", () => {
  expect(saltFrom(new Uint8Array(16).map((_, i) => i * 17))).toMatch(/^[./0-9A-Za-z]{16}$/);
});

it("a word with look-alike signs is found soon, words of the site first of all", () => {
  expect(strengthOf("P4ssw0rd!", []).guesses).toBeLessThan(1e6);
  const named = strengthOf("Marrowby2026", []).guesses;
  expect(strengthOf("Marrowby2026", ["marrowby"]).guesses).toBeLessThan(named / 100);
  expect(strengthOf("plum-tango7-Oak-river-stone", []).guesses).toBeGreaterThan(1e12);
  expect(strengthOf("", [])).toEqual({ guesses: 0, why: "" });
  // A row of signs in their order is no secret, however often it is repeated; nor does its length take long.
  expect(strengthOf(PRINTABLE.repeat(50), []).guesses).toBeLessThan(1e9);
});

it("words for passphrases are many and plain", () => {
  const words = passphraseWords();
  expect(new Set(words).size).toBeGreaterThan(6000);
});
