/** A number that may be left open, as a field of text: `factor` is what stands in the document for 1 in the field. */
export const numberField = (
  factor: number,
  problem: string,
  fits: (n: number) => boolean = (n) => n > 0,
) => ({
  format: (n: number | null): string => (n === null ? "" : String(Math.round((n / factor) * 1e6) / 1e6)),
  parse(text: string): { value: number | null } | { problem: string } {
    if (text.trim() === "") return { value: null };
    const n = Number(text.replace(",", "."));
    return Number.isFinite(n) && fits(n) ? { value: n * factor } : { problem };
  },
});

/** A whole number that may be left open. */
export const wholeField = (problem: string, fits: (n: number) => boolean = () => true) =>
  numberField(1, problem, (n) => Number.isInteger(n) && n >= 0 && n < 100_000 && fits(n));

/** Text that must fit before it is kept. */
export const checkedText = (fits: (text: string) => boolean, problem: string) => ({
  format: (text: string | null): string => text ?? "",
  parse(typed: string): { value: string } | { problem: string } {
    const text = typed.trim();
    return fits(text) ? { value: text } : { problem };
  },
});

/** Text that is kept once nothing is wrong with it; what is wrong is said in words of its own. */
export const judgedText = (problemOf: (text: string) => string | null) => ({
  format: (text: string): string => text,
  parse(typed: string): { value: string } | { problem: string } {
    const text = typed.trim();
    const problem = problemOf(text);
    return problem === null ? { value: text } : { problem };
  },
});
