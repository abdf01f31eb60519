"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { useTable, type SortingState } from "@tanstack/react-table";
import { ListTable, type ListColumn } from "../frame/list-table";
import { hasWords, NarrowField, ShownCount } from "../frame/narrow";
import { columns, features, HIDDEN_AT_FIRST, type ColumnMeta, type MachineLine } from "./list-columns";

const ROW = 33;
const REMEMBERED = "derrick_machine_columns";

/** The columns that are shown: what was chosen last time, in this browser only. */
function useChosenColumns() {
  const [chosen, setChosen] = useState<Record<string, boolean>>(HIDDEN_AT_FIRST);
  useEffect(() => {
    const kept = localStorage.getItem(REMEMBERED);
    if (kept) queueMicrotask(() => setChosen({ ...HIDDEN_AT_FIRST, ...(JSON.parse(kept) as object) }));
  }, []);
  const choose = (next: Record<string, boolean>): void => {
    setChosen(next);
    localStorage.setItem(REMEMBERED, JSON.stringify(next));
  };
  return [chosen, choose] as const;
}

function useMachineTable(machines: MachineLine[]) {
  const [globalFilter, setGlobalFilter] = useState("");
  const [sorting, setSorting] = useState<SortingState>([{ id: "name", desc: false }]);
  const [columnVisibility, setColumnVisibility] = useChosenColumns();
  const [site, setSite] = useState("");
  const table = useTable({
    features,
    columns,
    data: machines,
    state: {
      sorting,
      globalFilter,
      columnVisibility,
      columnFilters: site ? [{ id: "site", value: site }] : [],
    },
    onSortingChange: setSorting,
    onGlobalFilterChange: setGlobalFilter,
    onColumnVisibilityChange: (next) =>
      setColumnVisibility(typeof next === "function" ? next(columnVisibility) : next),
    globalFilterFn: (row, _column, words: string) => hasWords(Object.values(row.original).join(" "), words),
  });
  return { table, words: globalFilter, setWords: setGlobalFilter, site, setSite };
}

type MachineTable = ReturnType<typeof useMachineTable>["table"];
type Head = ReturnType<MachineTable["getHeaderGroups"]>[number]["headers"][number];
const metaOf = (column: { columnDef: { meta?: unknown } }): ColumnMeta =>
  (column.columnDef.meta ?? {}) as ColumnMeta;

function headOf({ column }: Head): ListColumn {
  const [sorted, meta] = [column.getIsSorted(), metaOf(column)];
  return {
    ...{ id: column.id, title: String(column.columnDef.header), width: meta.width ?? "1fr" },
    ...{ right: meta.right, onSort: column.getToggleSortingHandler() },
    sorted: sorted === false ? undefined : sorted === "desc" ? "descending" : "ascending",
  };
}

/** Several hundred machines: narrowed by any words, by site and health, sorted by each column, only what is in sight drawn. */
export function MachineList({ machines }: { machines: MachineLine[] }) {
  const router = useRouter();
  const { table, words, setWords, site, setSite } = useMachineTable(machines);
  const { rows } = table.getRowModel();
  const sites = [...new Set(machines.map((m) => m.site))].sort();
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end gap-x-8 gap-y-2">
        <NarrowField {...{ words, onChange: setWords }} placeholder="name, serial, model, health, role …" />
        <label className="w-40">
          <span className="label">Site</span>
          <select className="select" value={site} onChange={(e) => setSite(e.target.value)}>
            <option value="">all</option>
            {sites.map((s) => (
              <option key={s}>{s}</option>
            ))}
          </select>
        </label>
        <ColumnChoice table={table} />
        <ShownCount shown={rows.length} all={machines.length} what="machines" />
      </div>
      <ListTable
        label="Machines"
        columns={(table.getHeaderGroups()[0]?.headers ?? []).map(headOf)}
        rows={rows}
        height={ROW}
        minWidth="60rem"
        keyOf={(row) => row.id}
        onOpen={(row) => router.push(`/machines/${row.original.id}`)}
        cells={(row) =>
          row.getVisibleCells().map((cell) => {
            const meta = metaOf(cell.column);
            return (
              <div
                key={cell.id}
                role="cell"
                className={`truncate pr-3 ${meta.mono ? "value text-[0.93rem]" : ""} ${meta.right ? "text-right" : ""}`}
              >
                <table.FlexRender cell={cell} />
              </div>
            );
          })
        }
      />
      {rows.length === 0 && machines.length > 0 && (
        <p className="quiet py-3">No machine carries these words.</p>
      )}
    </>
  );
}

const ColumnChoice = ({ table }: { table: MachineTable }) => (
  <details className="relative">
    <summary className="link cursor-pointer list-none">
      columns ({table.getVisibleLeafColumns().length})
    </summary>
    <fieldset className="absolute z-10 mt-1 grid w-64 grid-cols-2 gap-x-4 border bg-base-100 p-3 border-base-content">
      <legend className="sr-only">Columns that are shown</legend>
      {table.getAllLeafColumns().map((c) => (
        <label key={c.id} className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={c.getIsVisible()}
            disabled={c.id === "name"}
            onChange={c.getToggleVisibilityHandler()}
          />
          {String(c.columnDef.header)}
        </label>
      ))}
    </fieldset>
  </details>
);
