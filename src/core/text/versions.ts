/**
 * Orders two version texts by their numbers, part by part; words between compare as text. Negative when `a` is older,
 * 0 when they are the same or cannot be compared. "2.9" is older than "2.11.2"; "1.4" and "1.4.0" are the same.
 */
export function compareVersions(a: string, b: string): number {
  const parts = (text: string): string[] =>
    text
      .trim()
      .toLowerCase()
      .match(/\d+|[a-z]+/g) ?? [];
  const [x, y] = [parts(a), parts(b)];
  if (x.length === 0 || y.length === 0) return 0;
  for (let i = 0; i < Math.max(x.length, y.length); i += 1) {
    const [p = "0", q = "0"] = [x[i], y[i]];
    const numeric = /^\d+$/.test(p) && /^\d+$/.test(q);
    const order = numeric ? Number(p) - Number(q) : p.localeCompare(q);
    if (order !== 0) return order;
  }
  return 0;
}

/** Whether a version belongs to a line: "9.10" and "9" are in the line "9", "90" is not. */
export const inLine = (version: string, line: string): boolean =>
  version === line || version.startsWith(`${line}.`);
