import type { ReactNode } from "react";

/** A column of a table: its head, what stands in it for a row, and how it is set. */
export interface Column<Row> {
  title: string;
  cell: (row: Row, index: number) => ReactNode;
  /** Classes of its cells; "value" for what is read digit by digit. */
  className?: string;
  /** Numbers stand at the right, their head too. */
  right?: boolean;
  /** Its share of the width, as a class. */
  width?: string;
  /** Names the row. */
  heads?: boolean;
}

const classes = (...all: (string | undefined | false)[]): string | undefined =>
  all.filter(Boolean).join(" ") || undefined;

/** A ruled table: columns by their heads, rows by their keys. Without titles it has no head. */
export function Table<Row>({
  label,
  columns,
  rows,
  keyOf,
}: {
  label?: string;
  columns: readonly Column<Row>[];
  rows: readonly Row[];
  keyOf: (row: Row, index: number) => string | number;
}) {
  return (
    <table className="table" aria-label={label}>
      {columns.some((c) => c.title !== "") && (
        <thead>
          <tr>
            {columns.map((c, i) => (
              <th key={i} className={classes(c.right && "text-right", c.width)}>
                {c.title}
              </th>
            ))}
          </tr>
        </thead>
      )}
      <tbody>
        {rows.map((row, index) => (
          <tr key={keyOf(row, index)}>
            {columns.map((c, i) => {
              const Cell = c.heads ? "th" : "td";
              return (
                <Cell
                  key={i}
                  scope={c.heads ? "row" : undefined}
                  className={classes(c.className, c.right && "text-right")}
                >
                  {c.cell(row, index)}
                </Cell>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
