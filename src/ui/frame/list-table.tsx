"use client";

import type { MouseEventHandler, ReactNode } from "react";
import { VirtualRows } from "./virtual-rows";

/** A column of a long list: its share of the row in CSS grid words, and how it is sorted where it can be. */
export interface ListColumn {
  id: string;
  title: string;
  width: string;
  right?: boolean;
  sorted?: "ascending" | "descending";
  onSort?: MouseEventHandler;
}

/** Hundreds of rows, of which those in sight are drawn; what does not fit a cell takes another line. */
export function ListTable<Row>({
  label,
  columns,
  rows,
  height,
  minWidth,
  keyOf,
  cells,
  onOpen,
}: {
  label: string;
  columns: readonly ListColumn[];
  rows: readonly Row[];
  /** The least of a row, in pixels. */
  height: number;
  /** Below this it scrolls sideways, in CSS words. */
  minWidth: string;
  keyOf: (row: Row) => string;
  /** What stands in the columns, each with its role as a cell. */
  cells: (row: Row) => ReactNode;
  onOpen?: (row: Row) => void;
}) {
  const grid = { gridTemplateColumns: columns.map((c) => c.width).join(" ") };
  return (
    <div className="overflow-x-auto overflow-y-clip">
      <div role="table" aria-label={label} aria-rowcount={rows.length + 1} style={{ minWidth }}>
        <div role="rowgroup">
          <div role="row" className="grid border-b border-base-content/50 py-1" style={grid}>
            {columns.map((c) => (
              <Head key={c.id} column={c} />
            ))}
          </div>
        </div>
        <VirtualRows
          count={rows.length}
          height={height}
          render={(index, place) => {
            const row = rows[index];
            return (
              row !== undefined && (
                <div
                  key={keyOf(row)}
                  role="row"
                  className="grid w-full items-center border-b border-base-300 py-1 hover:bg-base-200"
                  data-row={index}
                  {...place}
                  style={{ ...grid, ...place.style }}
                  onDoubleClick={onOpen && (() => onOpen(row))}
                >
                  {cells(row)}
                </div>
              )
            );
          }}
        />
      </div>
    </div>
  );
}

const ARROWS = { ascending: "↑", descending: "↓" };

const Head = ({ column: { title, right, sorted, onSort } }: { column: ListColumn }) => (
  <div role="columnheader" aria-sort={sorted} className={`label pr-3 ${right ? "text-right" : ""}`}>
    {onSort ? (
      <button type="button" className="label cursor-pointer" onClick={onSort}>
        {title} {sorted && ARROWS[sorted]}
      </button>
    ) : (
      title
    )}
  </div>
);
