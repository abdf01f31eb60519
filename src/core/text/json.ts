import { fail, ok, type Result } from "../result";
import { excerptAt, placeOf } from "./place";

export interface Nesting {
  /** How deep brackets and braces stand inside each other. */
  depth: number;
  /** Brackets, braces and commas outside of strings: what parsing costs goes with them, not with the bytes of a text. */
  parts: number;
}

const [QUOTE, COMMA, BRACKET, BRACE, BRACKET_END, BRACE_END, ESCAPE] = [34, 44, 91, 123, 93, 125, 92];

/**
 * Counts how deep and how many-parted a JSON text is, without parsing it, from its bytes in UTF-8 as they arrive. It
 * stops at what exceeds `most`; broken JSON has a nesting too.
 */
export class NestingCount {
  private depth = 0;
  private deepest = 0;
  private parts = 0;
  private inString = false;
  private escaped = false;

  constructor(private readonly most: Nesting) {}

  get nesting(): Nesting {
    return { depth: this.deepest, parts: this.parts };
  }

  get exceeded(): boolean {
    return this.deepest > this.most.depth || this.parts > this.most.parts;
  }

  add(bytes: Uint8Array): this {
    for (let i = 0; i < bytes.length && !this.exceeded; i += 1) {
      if (this.inString) i = this.passString(bytes, i);
      else this.look(bytes[i]!);
    }
    return this;
  }

  private look(sign: number): void {
    if (sign === QUOTE) this.inString = true;
    else if (sign === COMMA) this.parts += 1;
    else if (sign === BRACKET_END || sign === BRACE_END) this.depth -= 1;
    else if (sign === BRACKET || sign === BRACE) {
      this.parts += 1;
      this.depth += 1;
      this.deepest = Math.max(this.deepest, this.depth);
    }
  }

  /** Where the string that goes on at `start` ends; the last byte when it does not end among these. */
  private passString(bytes: Uint8Array, start: number): number {
    for (let i = start; i < bytes.length; i += 1) {
      if (this.escaped) this.escaped = false;
      else if (bytes[i] === ESCAPE) this.escaped = true;
      else if (bytes[i] === QUOTE) {
        this.inString = false;
        return i;
      }
    }
    return bytes.length - 1;
  }
}

/** The nesting of a whole text, as far as it does not exceed `most`. */
export const nestingOf = (text: string, most: Nesting): Nesting =>
  new NestingCount(most).add(new TextEncoder().encode(text)).nesting;

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
      message: `this JSON ${depth > most.depth ? `is nested more than ${most.depth} levels deep` : `has more than ${most.parts} parts`}, which no tool writes; it was not read`,
    });
  try {
    const value: unknown = JSON.parse(text);
    return ok(value);
  } catch (error) {
    const offset = offsetOf(error, text);
    const { line, column } = placeOf(text, offset);
    const cutOff = offset >= text.trimEnd().length;
    return fail({
      message: cutOff
        ? "the JSON ends in the middle: the text seems to be truncated here"
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
