import { fail, ok, type Result } from "../result";
import { excerptAt, placeOf } from "./place";

/** Parses JSON; a failure tells line, column, the excerpt, and whether the text seems cut off. */
export function parseJson(text: string): Result<unknown> {
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
