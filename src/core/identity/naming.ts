import { hostNameProblem } from "./names";

/** The one place of a pattern that counts: "#" for each digit of a number, or "@" for a letter. */
const COUNTER = /#+|@/g;
const MOST_DIGITS = 4;
const LETTERS = 26;

/** A pattern taken apart. */
interface Counted {
  before: string;
  after: string;
  /** Digits of the number at least; 0 where it counts by a letter. */
  digits: number;
}

/** Why a text is no pattern for host names, such as "wrk-hv#" or "tho-@"; or null. */
export function namePatternProblem(pattern: string): string | null {
  const counters = pattern.match(COUNTER) ?? [];
  if (counters.length === 0) return 'no counter: use "#" for a number, or "@" for a letter';
  if (counters.length > 1) return "more than one counter";
  if (counters[0]!.length > MOST_DIGITS) return `more than ${MOST_DIGITS} digits`;
  return hostNameProblem(pattern.replace(COUNTER, "a"));
}

function partsOf(pattern: string): Counted | null {
  if (namePatternProblem(pattern) !== null) return null;
  const [counter] = pattern.match(COUNTER) ?? [""];
  const [before = "", after = ""] = pattern.toLowerCase().split(counter);
  return { before, after, digits: counter === "@" ? 0 : counter.length };
}

const nameOf = ({ before, after, digits }: Counted, n: number): string =>
  `${before}${digits === 0 ? String.fromCharCode("a".charCodeAt(0) + n - 1) : String(n).padStart(digits, "0")}${after}`;

/** Whether a name is one of those that a pattern makes. */
export function fitsPattern(pattern: string, name: string): boolean {
  const parts = partsOf(pattern);
  const own = name.toLowerCase();
  if (!parts || !own.startsWith(parts.before) || !own.endsWith(parts.after)) return false;
  const counter = own.slice(parts.before.length, own.length - parts.after.length);
  if (own.length < parts.before.length + parts.after.length) return false;
  if (parts.digits === 0) return /^[a-z]$/.test(counter);
  return /^\d+$/.test(counter) && Number(counter) > 0 && nameOf(parts, Number(counter)) === own;
}

/** The first name of a pattern that nobody has; null where the pattern is none, or all are taken. Names are compared without their case. */
export function nextName(pattern: string, taken: Iterable<string>): string | null {
  const parts = partsOf(pattern);
  if (!parts) return null;
  const held = new Set([...taken].map((name) => name.toLowerCase()));
  // One digit is written as it needs: after 9 comes 10.
  const last = parts.digits === 0 ? LETTERS : 10 ** Math.max(parts.digits, MOST_DIGITS) - 1;
  for (let n = 1; n <= last; n += 1) {
    const name = nameOf(parts, n);
    if (!held.has(name)) return hostNameProblem(name) === null ? name : null;
  }
  return null;
}

/** What every name of a pattern begins with, in small letters. */
export const stemOf = (pattern: string): string => pattern.toLowerCase().split(/[#@]/, 1)[0] ?? "";

/** How a machine of a role is called, by the first pattern for it or for every role; null where nothing is laid down. */
export const patternOf = (
  naming: readonly { role: string | null; pattern: string }[],
  role: string | null,
): string | null =>
  (naming.find((n) => n.role !== null && n.role === role) ?? naming.find((n) => n.role === null))?.pattern ??
  null;
