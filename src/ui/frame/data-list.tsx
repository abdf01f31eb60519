"use client";

import { useRouter } from "next/navigation";
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from "react";
import {
  columnFilteringFeature,
  columnVisibilityFeature,
  createColumnHelper,
  createFilteredRowModel,
  createSortedRowModel,
  globalFilteringFeature,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
  type SortingState,
} from "@tanstack/react-table";
import { ListTable, type ListColumn } from "./list-table";
import { useNarrow } from "./use-narrow";
import { hasWords, NarrowField, ShownCount } from "./narrow";

/** A column of a list of many rows. */
export interface DataColumn<Row> {
  id: string;
  title: string;
  /** Its share of the row, in CSS grid words. */
  width: string;
  /** What it is sorted by; what is not there stands last. Without it, it is not sorted. */
  by?: (row: Row) => string | number | undefined;
  cell: (row: Row) => ReactNode;
  mono?: boolean;
  right?: boolean;
  /** Not shown until somebody asks for it: anywhere, or in a narrow window. */
  isHidden?: boolean;
  isWide?: boolean;
}

const features = tableFeatures({
  rowSortingFeature,
  columnFilteringFeature,
  globalFilteringFeature,
  columnVisibilityFeature,
  sortedRowModel: createSortedRowModel(),
  filteredRowModel: createFilteredRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic },
});

interface Props<Row> {
  /** Names the list, and what its rows are called in a count. */
  label: string;
  what: string;
  rows: Row[];
  columns: readonly DataColumn<Row>[];
  /** Under which the chosen columns are remembered, in this browser. */
  remembered: string;
  sortedBy: { id: string; desc: boolean };
  /** The words by which a row is found. */
  wordsOf: (row: Row) => string;
  hrefOf: (row: Row) => string;
  rowHeight?: number;
  /** Below this it scrolls sideways, in CSS words; in a narrow window as well, with the columns that are left. */
  minWidth: string;
  narrowWidth: string;
  placeholder?: string;
  /** Other ways of narrowing, beside the words. */
  beside?: ReactNode;
  /** Rows that are in sight, for what is worked out for them only. */
  onSeen?: (rows: readonly Row[]) => void;
}

/** Hundreds of rows: narrowed by any words, sorted by each column, with the columns that are wanted, walked through by keys. */
export function DataList<Row extends { id: string }>(props: Props<Row>) {
  const { rows: all, label, what, rowHeight = 33, hrefOf, beside, placeholder } = props;
  const router = useRouter();
  const isNarrow = useNarrow();
  const { table, words, setWords } = useDataTable(props, isNarrow);
  const own = useRef<HTMLDivElement>(null);
  const { rows } = table.getRowModel();
  const byId = new Map(props.columns.map((c) => [c.id, c]));
  const shown = table.getVisibleLeafColumns().flatMap((c) => byId.get(c.id) ?? []);
  const heads = table.getHeaderGroups()[0]?.headers ?? [];
  return (
    <div ref={own} onKeyDown={(e) => walk(e, own.current)}>
      <div className="mb-3 flex flex-wrap items-end gap-x-8 gap-y-2">
        <NarrowField {...{ words, onChange: setWords, placeholder }} />
        {beside}
        <ColumnChoice
          columns={table.getAllLeafColumns().map((c) => ({
            ...{ id: c.id, title: byId.get(c.id)?.title ?? c.id, isShown: c.getIsVisible() },
            toggle: () => c.toggleVisibility(),
          }))}
        />
        <ShownCount shown={rows.length} all={all.length} what={what} />
      </div>
      <ListTable
        label={label}
        columns={heads.flatMap(({ column }): ListColumn[] => {
          const c = byId.get(column.id);
          const sorted = column.getIsSorted();
          if (!c) return [];
          return [
            {
              ...{ id: c.id, title: c.title, width: c.width, right: c.right },
              onSort: c.by && column.getToggleSortingHandler(),
              sorted: sorted === false ? undefined : sorted === "desc" ? "descending" : "ascending",
            },
          ];
        })}
        rows={rows}
        height={rowHeight}
        minWidth={isNarrow ? props.narrowWidth : props.minWidth}
        keyOf={(row) => row.id}
        onOpen={(row) => router.push(hrefOf(row.original))}
        cells={({ original }) =>
          shown.map((c) => (
            <div
              key={c.id}
              role="cell"
              className={`min-w-0 pr-3 leading-tight [overflow-wrap:anywhere] ${c.mono ? "value text-[0.93rem]" : ""} ${c.right ? "text-right" : ""}`}
            >
              {c.cell(original)}
            </div>
          ))
        }
      />
      {rows.length === 0 && all.length > 0 && (
        <p className="quiet py-3">
          No matches.{" "}
          {words !== "" && (
            <button type="button" className="link" onClick={() => setWords("")}>
              Show all {all.length}
            </button>
          )}
        </p>
      )}
    </div>
  );
}

/** Arrows go from row to row by their first link; from the field that narrows, down into the list. */
function walk(e: KeyboardEvent, list: HTMLElement | null): void {
  const by = { ArrowDown: 1, ArrowUp: -1 }[e.key];
  const at = e.target as HTMLElement;
  if (by === undefined || at.matches("select, [type=radio], [type=checkbox]")) return;
  const index = Number(at.closest<HTMLElement>("[data-row]")?.dataset.row ?? -1);
  if (index < 0 && by < 0) return;
  const row = list?.querySelector<HTMLElement>(`[data-row="${index + by}"]`);
  const to = row?.querySelector<HTMLElement>("a") ?? (index === 0 ? list?.querySelector("input") : null);
  if (!to) return;
  e.preventDefault();
  to.focus();
}

function useDataTable<Row extends { id: string }>(
  { rows, columns, remembered, sortedBy, wordsOf, onSeen }: Props<Row>,
  isNarrow: boolean,
) {
  const [words, setWords] = useState("");
  const [sorting, setSorting] = useState<SortingState>([sortedBy]);
  const [columnVisibility, setVisibility] = useChosenColumns(columns, remembered, isNarrow);
  const made = useMemo(() => {
    const helper = createColumnHelper<typeof features, Row>();
    return helper.columns(
      columns.map((c) =>
        helper.accessor((row: Row) => c.by?.(row), {
          ...{ id: c.id, header: c.title, sortUndefined: "last" as const, enableSorting: c.by !== undefined },
          sortFn: rows.some((r) => typeof c.by?.(r) === "number") ? "basic" : "alphanumeric",
        }),
      ),
    );
  }, [columns, rows]);
  const table = useTable({
    features,
    columns: made,
    data: rows,
    getRowId: (row: Row) => row.id,
    state: { sorting, globalFilter: words, columnVisibility },
    onSortingChange: setSorting,
    onGlobalFilterChange: setWords,
    onColumnVisibilityChange: (next) =>
      setVisibility(typeof next === "function" ? next(columnVisibility) : next),
    globalFilterFn: (row, _column, sought: string) => hasWords(wordsOf(row.original), sought),
    getColumnCanGlobalFilter: () => true,
  });
  const seen = table.getRowModel().rows;
  useEffect(() => onSeen?.(seen.map((r) => r.original)), [seen, onSeen]);
  return { table, words, setWords };
}

/** The columns that are shown: what was chosen last time in a window like this, in this browser only. */
function useChosenColumns<Row>(columns: readonly DataColumn<Row>[], list: string, isNarrow: boolean) {
  const remembered = isNarrow ? `${list}_narrow` : list;
  const isLeftOut = (c: DataColumn<Row>) => c.isHidden || (isNarrow && c.isWide);
  const atFirst = Object.fromEntries(columns.flatMap((c) => (isLeftOut(c) ? [[c.id, false] as const] : [])));
  const [chosen, setChosen] = useState<Record<string, boolean> | null>(null);
  useEffect(() => {
    const kept = localStorage.getItem(remembered);
    queueMicrotask(() => setChosen(kept ? (JSON.parse(kept) as Record<string, boolean>) : null));
  }, [remembered]);
  const choose = (next: Record<string, boolean>): void => {
    setChosen(next);
    localStorage.setItem(remembered, JSON.stringify(next));
  };
  return [{ ...atFirst, ...chosen }, choose] as const;
}

const ColumnChoice = ({
  columns,
}: {
  columns: { id: string; title: string; isShown: boolean; toggle: () => void }[];
}) => (
  <details className="relative">
    <summary className="link cursor-pointer list-none">
      Columns ({columns.filter((c) => c.isShown).length})
    </summary>
    <fieldset className="absolute z-10 mt-1 grid w-64 grid-cols-2 gap-x-4 border bg-base-100 p-3 border-base-content">
      <legend className="sr-only">Columns</legend>
      {columns.map((c, i) => (
        <label key={c.id} className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={c.isShown}
            disabled={i === 0}
            onChange={c.toggle}
          />
          {c.title}
        </label>
      ))}
    </fieldset>
  </details>
);
