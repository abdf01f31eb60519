import { readdirSync, readFileSync } from "node:fs";
import { emptyMachine, mergeReadings, readTexts } from "@/core/machine";
import { seeded } from "./random";

// Outputs of tools, changed at random: whatever comes of them is a result, and what is taken of them is clean.

const FOLDER = "tests/fixtures/formats/small/";
/** A short output of each tool, by the tool's name in a file name. */
export const SAMPLES: ReadonlyMap<string, string> = new Map(
  readdirSync(FOLDER).map((f) => [f.replace(/\.txt$/, ""), readFileSync(FOLDER + f, "utf8")]),
);

const WORDS = [
  ...["", "\0", "\u202e", "\u2066", "\ud800", "\u001b[31m", "\r", "\n", "\n\n", "\t", " ".repeat(60)],
  ...["constructor", "__proto__", "__defineGetter__", "valueOf", "toString", "hasOwnProperty"],
  ...[
    "-1",
    "0",
    "0.5",
    "1e400",
    "1152921504606846976",
    "9".repeat(60),
    "NaN",
    "null",
    "true",
    "[]",
    "{}",
    '""',
  ],
  ...[
    "x".repeat(500),
    "(((((((",
    "[0-9",
    "\\",
    "'",
    '"',
    "$(reboot)",
    "`id`",
    "ä".repeat(30),
    ":",
    "=",
    ",",
    "/",
  ],
  "[".repeat(2000),
];

/** One output after one to four changes: a piece cut out, doubled, put elsewhere, or replaced by a hostile word. */
export function mutated(text: string, random: () => number): string {
  const upTo = (n: number): number => Math.floor(random() * n);
  let out = text;
  for (let changes = 1 + upTo(4); changes > 0; changes -= 1) {
    const at = upTo(out.length + 1);
    const end = Math.min(out.length, at + upTo(random() < 0.5 ? 4 : 80));
    const piece = out.slice(at, end);
    const kind = upTo(6);
    if (kind === 0) out = out.slice(0, at);
    else if (kind === 1) out = out.slice(0, at) + out.slice(end);
    else if (kind === 2) out = out.slice(0, end) + piece + out.slice(end);
    else if (kind === 3) out = out.slice(0, at) + String.fromCharCode(upTo(256)) + out.slice(at + 1);
    else out = out.slice(0, at) + WORDS[upTo(WORDS.length)]! + out.slice(kind === 4 ? end : at);
  }
  return out;
}

const UNSEEN = /[\p{Cc}\p{Cf}\p{Cs}\p{Zl}\p{Zp}]/u;
const FOREIGN_WORDS = /expected \w+, received|undefined|\[object|Invalid input/;

/**
 * What is wrong with how a text was read (and, where asked, laid into a machine); null when all is as it should be.
 * Throws what the reading throws.
 */
function faultOf(text: string, isLaid: boolean): string | null {
  const intake = readTexts([{ name: "fuzz.txt", text }]);
  const told = [...intake.rejected.flatMap((r) => r.problems), ...intake.readings.flatMap((r) => r.warnings)];
  for (const { message } of told) if (FOREIGN_WORDS.test(message)) return `words of a program: ${message}`;
  if (intake.readings.length === 0) return intake.rejected.length > 0 ? null : "neither read nor refused";
  const laid = isLaid && mergeReadings(emptyMachine(), intake.readings, "2026-11-27T08:00:00.000Z");
  const facts = JSON.stringify(laid ? laid.document.facts : intake.readings.map((r) => r.reading.facts));
  if (UNSEEN.test(facts) || /\\u(?:00|d[89a-f])/.test(facts)) return `a sign that is not seen: ${facts}`;
  return ({} as Record<string, unknown>).polluted === undefined ? null : "a prototype was changed";
}

/** The first fault of `count` changed outputs of one tool, with its text; the same for the same seed. */
export function firstFault(
  tool: string,
  count: number,
  seed: number,
): { text: string; fault: string } | null {
  const random = seeded(seed);
  const sample = SAMPLES.get(tool)!;
  for (let i = 0; i < count; i += 1) {
    const text = mutated(sample, random);
    try {
      // Laying takes longer than reading, and does the same to most texts.
      const fault = faultOf(text, i % 4 === 0);
      if (fault !== null) return { text, fault };
    } catch (error) {
      return { text, fault: String((error as Error).stack).slice(0, 600) };
    }
  }
  return null;
}
