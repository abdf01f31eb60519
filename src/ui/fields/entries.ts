import type { CellRow } from "@/core/site";

/** The texts of a table's cells, row by row. */
export type Texts = readonly (readonly string[])[];

export interface CellProblem {
  row: number;
  /** Null: the row as a whole. */
  column: number | null;
  message: string;
}

const isEmpty = (row: readonly string[]): boolean => row.every((text) => text.trim() === "");

/** The rows of a list as texts. */
export const textsOf = <Row>(rows: readonly Row[], { cells }: CellRow<Row>): Texts =>
  rows.map((row) => cells.map((cell) => cell.show(row)));

/** Reads every row that is not empty; what does not fit is told by its cell. */
export function readTexts<Row>(
  texts: Texts,
  { cells, check }: CellRow<Row>,
): { rows: Row[]; problems: CellProblem[] } {
  const problems: CellProblem[] = [];
  const rows = texts.flatMap((texts, row): Row[] => {
    if (isEmpty(texts)) return [];
    const parts = cells.map((cell, column) => {
      const read = cell.read((texts[column] ?? "").trim());
      if ("value" in read) return read.value;
      problems.push({ row, column, message: read.problem });
      return null;
    });
    if (parts.includes(null)) return [];
    // Every column has given its part.
    const whole = Object.assign({}, ...parts) as Row;
    const wrong = check?.(whole) ?? null;
    if (wrong === null) return [whole];
    problems.push({ row, column: null, message: wrong });
    return [];
  });
  return { rows, problems };
}

/** Words of a line over some columns: the last takes the rest. */
const words = (line: string, columns: number): string[] => {
  const parts = line.trim().split(/\s+/);
  return [...parts.slice(0, columns - 1), parts.slice(columns - 1).join(" ")];
};

/**
 * What is pasted, as cells: a spreadsheet's (tabs between them, quotes around what holds a line end), or lines of words
 * whose first fits the first of some columns. Null where it is one text for one cell.
 */
export async function pastedCells<Row>(text: string, { cells }: CellRow<Row>): Promise<Texts | null> {
  const hasTabs = text.includes("\t");
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== "");
  const fits = (line: string): boolean =>
    "value" in (cells[0]?.read(words(line, cells.length)[0] ?? "") ?? {});
  const comma = /[;,]/.exec(text)?.[0];
  // A column that takes any words cannot tell a row from a text with blanks.
  const isTelling = "problem" in (cells[0]?.read("?") ?? {});
  if (!hasTabs && !comma) {
    if (
      isTelling &&
      cells.length > 1 &&
      lines.length > 0 &&
      lines.every((l) => /\s/.test(l.trim()) && fits(l))
    )
      return lines.map((line) => words(line, cells.length));
    return lines.length > 1 ? lines.map((line) => [line.trim()]) : null;
  }
  if (!hasTabs && lines.length < 2) return null;
  const { default: Papa } = await import("papaparse");
  const read = Papa.parse<string[]>(text.trimEnd(), {
    delimiter: hasTabs ? "\t" : comma,
    skipEmptyLines: "greedy",
  });
  return read.data.map((row) => row.map((cell) => cell.trim().replaceAll(/\s+/g, " ")));
}

/** A block of cells laid over the table from a cell on; rows that are not there are made, columns beyond the last are left out. */
export function laid(
  texts: Texts,
  block: Texts,
  at: { row: number; column: number },
  columns: number,
): Texts {
  const count = Math.max(texts.length, at.row + block.length);
  return Array.from({ length: count }, (_, row) => {
    const old = texts[row];
    // A row that is not touched stays the same one, so that it need not be drawn again.
    if (old?.length === columns && !block[row - at.row]) return old;
    return Array.from(
      { length: columns },
      (__, column) => block[row - at.row]?.[column - at.column] ?? old?.[column] ?? "",
    );
  });
}
