/** Letters that stand in the same place on every keyboard layout that Derrick knows but Dvorak's; no two look alike. */
const LETTERS = "bcdefghjknprstuvx";
/** Letters of a code, and how many of them are written together. Twelve of seventeen: 49 bits, too many to be tried in a day. */
const [LENGTH, GROUP] = [12, 4];

/** A new code for one arming; `pick` draws a whole number from 0 up to, and without, its argument. */
export const newCode = (pick: (below: number) => number): string =>
  Array.from({ length: LENGTH }, () => LETTERS[pick(LETTERS.length)]).join("");

/** A code as people read it: in groups. */
export const codeWords = (code: string): string =>
  code.match(new RegExp(`.{1,${GROUP}}`, "g"))?.join(" ") ?? "";

/** Whether what was typed at a console is this code: blanks, hyphens and capitals are the typist's own taste. */
export const isCode = (typed: string, code: string): boolean =>
  code !== "" && typed.toLowerCase().replace(/[^a-z]/g, "") === code;

/** What a boot loader may send as a code, at most. */
export const LONGEST_CODE = 60;
