"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { useTable, type SortingState } from "@tanstack/react-table";
import { VirtualRows } from "../frame/virtual-rows";
import { columns, features, HIDDEN_AT_FIRST, type ColumnMeta, type MachineLine } from "./list-columns";

const ROW = 33;
const REMEMBERED = "derrick_machine_columns";

/** Several hundred machines: narrowed by any words, by site and health, sorted by each column, only what is in sight drawn. */
export function MachineList({ machines }: { machines: MachineLine[] }) {
  const router = useRouter();
  const [globalFilter, setGlobalFilter] = useState("");
  const [sorting, setSorting] = useState<SortingState>([{ id: "name", desc: false }]);
  const [columnVisibility, setColumnVisibility] = useState<Record<string, boolean>>(HIDDEN_AT_FIRST);
  const [site, setSite] = useState("");
  useEffect(() => {
    // What was chosen last time lives in this browser only.
    const kept = localStorage.getItem(REMEMBERED);
    if (kept)
      queueMicrotask(() => setColumnVisibility({ ...HIDDEN_AT_FIRST, ...(JSON.parse(kept) as object) }));
  }, []);
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
    onColumnVisibilityChange: (next) => {
      const value = typeof next === "function" ? next(columnVisibility) : next;
      setColumnVisibility(value);
      localStorage.setItem(REMEMBERED, JSON.stringify(value));
    },
    globalFilterFn: (row, _column, words: string) => {
      const all = Object.values(row.original).join(" ").toLowerCase();
      return words
        .toLowerCase()
        .split(/\s+/)
        .every((w) => all.includes(w));
    },
  });
  const { rows } = table.getRowModel();
  const shownColumns = table.getVisibleLeafColumns();
  const grid = {
    gridTemplateColumns: shownColumns
      .map((c) => (c.columnDef.meta as ColumnMeta | undefined)?.width ?? "1fr")
      .join(" "),
  };
  const sites = [...new Set(machines.map((m) => m.site))].sort();

  return (
    <>
      <div className="mb-3 flex flex-wrap items-end gap-x-8 gap-y-2">
        <label className="w-72">
          <span className="label">Narrow by any words</span>
          <input
            className="input"
            value={globalFilter}
            placeholder="name, serial, model, health, role …"
            onChange={(e) => setGlobalFilter(e.target.value)}
          />
        </label>
        <label className="w-40">
          <span className="label">Site</span>
          <select className="select" value={site} onChange={(e) => setSite(e.target.value)}>
            <option value="">all</option>
            {sites.map((s) => (
              <option key={s}>{s}</option>
            ))}
          </select>
        </label>
        <details className="relative">
          <summary className="link cursor-pointer list-none">columns ({shownColumns.length})</summary>
          <fieldset className="absolute z-10 mt-1 grid w-64 grid-cols-2 gap-x-4 border bg-base-100 p-3 border-base-content">
            <legend className="sr-only">Columns that are shown</legend>
            {table.getAllLeafColumns().map((c) => (
              <label key={c.id} className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs checkbox checkbox-xs"
                  checked={c.getIsVisible()}
                  disabled={c.id === "name"}
                  onChange={c.getToggleVisibilityHandler()}
                />
                {String(c.columnDef.header)}
              </label>
            ))}
          </fieldset>
        </details>
        <span className="quiet ml-auto" role="status">
          {rows.length === machines.length
            ? `${machines.length} machines`
            : `${rows.length} of ${machines.length} machines`}
        </span>
      </div>
      <div className="overflow-x-auto overflow-y-clip">
        <div role="table" aria-label="Machines" aria-rowcount={rows.length + 1} className="min-w-[60rem]">
          <div role="rowgroup">
            <div
              role="row"
              className="grid border-b"
              style={{
                ...grid,
                borderColor: "color-mix(in oklab, var(--color-base-content) 50%, transparent)",
              }}
            >
              {table.getHeaderGroups()[0]?.headers.map((header) => {
                const sorted = header.column.getIsSorted();
                const meta = header.column.columnDef.meta as ColumnMeta | undefined;
                return (
                  <div
                    key={header.id}
                    role="columnheader"
                    aria-sort={sorted ? (sorted === "desc" ? "descending" : "ascending") : undefined}
                    className={`py-1 pr-3 ${meta?.right ? "text-right" : ""}`}
                  >
                    <button
                      type="button"
                      className="label cursor-pointer"
                      onClick={header.column.getToggleSortingHandler()}
                    >
                      {String(header.column.columnDef.header)} {sorted ? (sorted === "desc" ? "↓" : "↑") : ""}
                    </button>
                  </div>
                );
              })}
            </div>
          </div>
          <VirtualRows
            count={rows.length}
            height={ROW}
            render={(index, place) => {
              const row = rows[index];
              if (!row) return null;
              return (
                <div
                  key={row.id}
                  role="row"
                  className="grid w-full items-center border-b hover:bg-base-200"
                  aria-rowindex={place["aria-rowindex"]}
                  style={{ ...grid, ...place.style, borderColor: "var(--color-base-300)" }}
                  onDoubleClick={() => router.push(`/machines/${row.original.id}`)}
                >
                  {row.getVisibleCells().map((cell) => {
                    const meta = cell.column.columnDef.meta as ColumnMeta | undefined;
                    return (
                      <div
                        key={cell.id}
                        role="cell"
                        className={`truncate pr-3 ${meta?.mono ? "value text-[0.93rem]" : ""} ${meta?.right ? "text-right" : ""}`}
                      >
                        <table.FlexRender cell={cell} />
                      </div>
                    );
                  })}
                </div>
              );
            }}
          />
        </div>
      </div>
      {rows.length === 0 && machines.length > 0 && (
        <p className="quiet py-3">No machine carries these words.</p>
      )}
    </>
  );
}
