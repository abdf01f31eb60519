import { fail, ok, type Result } from "../result";
import { excerptAt, placeOf } from "./place";

export interface Nesting {
  /** How deep brackets and braces stand inside each other. */
  depth: number;
  /** Brackets, braces and commas outside of strings: what parsing costs goes with them, not with the bytes of a text. */
  parts: number;
}

/**
 * How deep and how many-parted a JSON text is, without parsing it. It stops as soon as one of `most` is exceeded; broken
 * JSON has a nesting too.
 */
export function nestingOf(text: string, most: Nesting): Nesting {
  let depth = 0;
  let deepest = 0;
  let parts = 0;
  for (let i = 0; i < text.length; i += 1) {
    const sign = text.charCodeAt(i);
    if (sign === QUOTE) i = endOfString(text, i);
    else if (sign === COMMA) parts += 1;
    else if (sign === BRACKET || sign === BRACE) {
      parts += 1;
      depth += 1;
      if (depth > deepest) deepest = depth;
    } else if (sign === BRACKET_END || sign === BRACE_END) depth -= 1;
    else continue;
    if (deepest > most.depth || parts > most.parts) break;
  }
  return { depth: deepest, parts };
}

const [QUOTE, COMMA, BRACKET, BRACE, BRACKET_END, BRACE_END, ESCAPE] = [34, 44, 91, 123, 93, 125, 92];

/** Where the string that begins at `start` ends; the end of the text when it does not. */
function endOfString(text: string, start: number): number {
  for (let end = text.indexOf('"', start + 1); end !== -1; end = text.indexOf('"', end + 1)) {
    let before = end - 1;
    while (text.charCodeAt(before) === ESCAPE) before -= 1;
    if ((end - before) % 2 === 1) return end;
  }
  return text.length;
}

/** More than any tool writes: the largest list of a machine has some ten thousand parts, twelve deep. */
const MOST: Nesting = { depth: 100, parts: 500_000 };

/**
 * Parses JSON; a failure tells line, column, the excerpt, and whether the text seems cut off. What is deeper or has more
 * parts than `most` is refused unread: a text of brackets alone would hold the program for seconds.
 */
export function parseJson(text: string, most: Nesting = MOST): Result<unknown> {
  const { depth, parts } = nestingOf(text, most);
  if (depth > most.depth || parts > most.parts)
    return fail({
      message: `this JSON ${depth > most.depth ? `is nested more than ${most.depth} deep` : `has more than ${most.parts} parts`}, as no tool writes it; it was not read`,
    });
  try {
    return ok(JSON.parse(text) as unknown);
  } catch (error) {
    const offset = offsetOf(error, text);
    const { line, column } = placeOf(text, offset);
    const cutOff = offset >= text.trimEnd().length;
    return fail({
      message: cutOff
        ? "the JSON ends in the middle: the text seems to be cut off here"
        : `this is not JSON: unexpected ${JSON.stringify(text[offset] ?? "end of text")}`,
      line,
      column,
      excerpt: excerptAt(text, line, column),
    });
  }
}

/** JSON.parse names its position in one of several wordings; without one the failure is at the end of the text. */
function offsetOf(error: unknown, text: string): number {
  const message = error instanceof Error ? error.message : "";
  const position = /at position (\d+)/.exec(message)?.[1];
  if (position !== undefined) return Number(position);
  if (/end of JSON/i.test(message)) return text.length;
  const token = /Unexpected token '?(.)/u.exec(message)?.[1];
  const at = token === undefined ? -1 : text.indexOf(token);
  return at < 0 ? text.length : at;
}
