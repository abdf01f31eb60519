import { formatNumber } from "../../units";
import type { Problem } from "../../result";

/** One thing that a file says of a network, with the line that says it. */
export type NetworkRow = { line: number } & (
  | { kind: "reservation"; mac: string; address: string; name: string }
  | { kind: "range"; from: string; to: string }
  | { kind: "host"; address: string; name: string }
  | { kind: "seen"; address: string; mac: string }
  | { kind: "cable"; port: string; device: string; devicePort: string; address: string }
);

/** What was read of a text: its format by its usual name, what it says, and the lines that were not understood. */
export interface NetworkReading {
  format: string;
  rows: NetworkRow[];
  problems: Problem[];
  /**
   * The number of the last line where it has no end: the text may have been cut off in it, so that its last value may be the
   * beginning of another one (10.61.10.1 of 10.61.10.140). Null where it has, and for formats that tell by themselves.
   */
  openLine: number | null;
}

/** A format that people have: how a text of it is recognised, and how it is read. Nothing throws, whatever the text. */
export interface NetworkReader {
  format: string;
  recognises(text: string): boolean;
  read(text: string): Pick<NetworkReading, "rows" | "problems">;
}

export const MOST_LINES = 50_000;
/** Longer than any line that these formats have by right; what is longer is told and not read. */
const LONGEST = 4096;

/** The lines of a text with their numbers, without comments after `mark` and without empty ones. */
export function linesOf(text: string, mark: string): { line: number; text: string }[] {
  return text
    .split(/\r\n|\n|\r/, MOST_LINES)
    .map((raw, i) => {
      const at = raw.indexOf(mark);
      return { line: i + 1, text: (at < 0 ? raw : raw.slice(0, at)).slice(0, LONGEST + 1).trim() };
    })
    .filter((l) => l.text !== "");
}

/** The line of an offset, for many offsets of one text: the ends of lines are found once. */
export function lineFinder(text: string): (offset: number) => number {
  const ends: number[] = [];
  for (let at = text.indexOf("\n"); at >= 0; at = text.indexOf("\n", at + 1)) ends.push(at);
  return (offset) => {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (ends[middle]! < offset) low = middle + 1;
      else high = middle;
    }
    return low + 1;
  };
}

/** Finds values one after another in the order of the text, and gives their lines; one that is not found is on the line before. */
export function valueFinder(text: string): (value: string) => number {
  const lineAt = lineFinder(text);
  let cursor = 0;
  return (value) => {
    const at = text.indexOf(JSON.stringify(value), cursor);
    if (at >= 0) cursor = at + 1;
    return lineAt(cursor);
  };
}

/** Lines that are longer than any of these formats has by right are left empty, and told. */
export function withoutLongLines(text: string): { text: string; problems: Problem[] } {
  const problems: Problem[] = [];
  const lines = text.split("\n").map((line, i) => {
    if (line.length <= LONGEST) return line;
    problems.push(notUnderstood(i + 1, line, "the line is too long for this format"));
    return "";
  });
  return { text: lines.join("\n"), problems };
}

export const notUnderstood = (line: number, text: string, why: string): Problem => ({
  ...{ line, message: why },
  excerpt: text.slice(0, 120).replace(/\p{Cc}/gu, "·"),
});

/** Reads line by line; a line whose reader gives a text is a problem with that text, and the others are kept. */
export function readLines(
  text: string,
  mark: string,
  read: (words: string[], line: number, text: string) => NetworkRow[] | string,
): Pick<NetworkReading, "rows" | "problems"> {
  const rows: NetworkRow[] = [];
  const problems: Problem[] = [];
  for (const { line, text: own } of linesOf(text, mark)) {
    const got =
      own.length > LONGEST ? "the line is too long for this format" : read(own.split(/\s+/), line, own);
    if (typeof got === "string") problems.push(notUnderstood(line, own, got));
    else rows.push(...got);
  }
  const count = text.split(/\r\n|\n|\r/, MOST_LINES + 1).length;
  if (count > MOST_LINES)
    problems.push({
      line: MOST_LINES,
      message: `only the first ${formatNumber(MOST_LINES)} lines were read`,
    });
  return { rows, problems };
}
