/** The line and column (from 1) of an offset (from 0); an offset past the end is the end. */
export function placeOf(text: string, offset: number): { line: number; column: number } {
  const before = text.slice(0, Math.max(0, offset));
  const line = before.split("\n").length;
  return { line, column: before.length - before.lastIndexOf("\n") };
}

const WIDTH = 72;

/** The line at a place with a caret under the column; long lines are cut around it, control characters are shown as a dot. */
export function excerptAt(text: string, line: number, column: number): string {
  const whole = text.split("\n")[line - 1] ?? "";
  const start = Math.max(0, column - 1 - WIDTH / 2);
  const part = whole.slice(start, start + WIDTH).replace(/\p{Cc}/gu, "·");
  return `${part}\n${" ".repeat(Math.max(0, column - 1 - start))}^`;
}
