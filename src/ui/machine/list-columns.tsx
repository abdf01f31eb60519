import Link from "next/link";
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
} from "@tanstack/react-table";
import type { Verdict } from "@/core/machine";
import { formatBinaryBytes, formatDecimalBytes } from "@/core/units";
import { HealthMark } from "./health-mark";

/** One machine of the list; what is not known is absent, since a thousand rows travel with the page. */
export interface MachineLine {
  id: string;
  name: string;
  site: string;
  place?: string;
  role?: string;
  model?: string;
  serial?: string;
  controller?: string;
  cores?: number;
  memory?: number;
  drives: number;
  rawBytes: number;
  ports: number;
  health: Verdict;
  defects?: number;
  system?: string;
  firmware?: string;
  becoming?: string;
  next?: string;
  href?: string;
  read?: string;
}

export const features = tableFeatures({
  rowSortingFeature,
  columnFilteringFeature,
  globalFilteringFeature,
  columnVisibilityFeature,
  sortedRowModel: createSortedRowModel(),
  filteredRowModel: createFilteredRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic },
});

const helper = createColumnHelper<typeof features, MachineLine>();
const dash = <span className="quiet">–</span>;
const HEALTH_ORDER: Record<Verdict, number> = { failing: 0, watch: 1, "not known": 2, good: 3 };

/** Every column that the list can show, in order; `width` is its share of the row. */
export const columns = helper.columns([
  helper.accessor("name", {
    header: "Machine",
    sortFn: "alphanumeric",
    meta: { width: "minmax(8rem,1.2fr)" },
    cell: ({ row }) => (
      <Link className="link font-medium" href={`/machines/${row.original.id}`}>
        {row.original.name}
      </Link>
    ),
  }),
  helper.accessor("site", { header: "Site", sortFn: "alphanumeric", meta: { width: "minmax(5rem,0.8fr)" } }),
  helper.accessor("place", {
    header: "Place",
    sortFn: "alphanumeric",
    meta: { width: "minmax(6rem,0.9fr)" },
    cell: (c) => c.getValue() || dash,
  }),
  helper.accessor("role", {
    header: "Role",
    sortFn: "alphanumeric",
    meta: { width: "minmax(5rem,0.8fr)" },
    cell: (c) => c.getValue() || dash,
  }),
  helper.accessor("model", {
    header: "Model",
    sortFn: "alphanumeric",
    meta: { width: "minmax(7rem,1fr)" },
    cell: (c) => c.getValue() || <span className="quiet">not read yet</span>,
  }),
  helper.accessor("serial", {
    header: "Serial",
    sortFn: "alphanumeric",
    meta: { width: "minmax(8rem,1fr)", mono: true },
    cell: (c) => c.getValue() || dash,
  }),
  helper.accessor("cores", {
    header: "Cores",
    sortFn: "basic",
    sortUndefined: "last",
    meta: { width: "4rem", right: true },
    cell: (c) => c.getValue() ?? dash,
  }),
  helper.accessor("memory", {
    header: "Memory",
    sortFn: "basic",
    meta: { width: "5.5rem", right: true },
    cell: (c) => (c.getValue() ? formatBinaryBytes(c.getValue() ?? 0) : dash),
  }),
  helper.accessor("rawBytes", {
    header: "Drives",
    sortFn: "basic",
    meta: { width: "7rem", right: true },
    cell: ({ row }) =>
      row.original.drives > 0
        ? `${row.original.drives} · ${formatDecimalBytes(row.original.rawBytes)}`
        : dash,
  }),
  helper.accessor("ports", { header: "Ports", sortFn: "basic", meta: { width: "4rem", right: true } }),
  helper.accessor((m) => HEALTH_ORDER[m.health] * 100 - (m.defects ?? 0), {
    id: "health",
    header: "Health",
    sortFn: "basic",
    meta: { width: "minmax(9.5rem,0.9fr)" },
    cell: ({ row }) => (
      <span>
        <HealthMark verdict={row.original.health} />
        {row.original.defects !== undefined && (
          <span className="quiet">
            {" "}
            · {row.original.defects} {row.original.defects === 1 ? "defect" : "defects"}
          </span>
        )}
      </span>
    ),
  }),
  helper.accessor("system", {
    header: "Runs now",
    sortFn: "alphanumeric",
    meta: { width: "minmax(7rem,1fr)" },
    cell: (c) => c.getValue() || dash,
  }),
  helper.accessor("firmware", {
    header: "Firmware",
    sortFn: "alphanumeric",
    meta: { width: "6rem", mono: true },
    cell: (c) => c.getValue() || dash,
  }),
  helper.accessor("controller", {
    header: "Controller",
    sortFn: "alphanumeric",
    meta: { width: "8rem", mono: true },
    cell: (c) => c.getValue() || dash,
  }),
  helper.accessor("becoming", {
    header: "What it is becoming",
    sortFn: "alphanumeric",
    meta: { width: "minmax(10rem,2fr)" },
    cell: ({ row }) =>
      row.original.href ? (
        <Link className="link" href={row.original.href}>
          {row.original.becoming}
        </Link>
      ) : (
        dash
      ),
  }),
  helper.accessor("next", {
    header: "Stands at",
    sortFn: "alphanumeric",
    meta: { width: "minmax(6rem,0.8fr)" },
    cell: (c) => c.getValue() || dash,
  }),
  helper.accessor("read", {
    header: "Last read",
    sortFn: "alphanumeric",
    meta: { width: "6.5rem" },
    cell: (c) => c.getValue() ?? "never",
  }),
]);

export interface ColumnMeta {
  width?: string;
  mono?: boolean;
  right?: boolean;
}

/** Columns that are hidden until somebody asks for them. */
export const HIDDEN_AT_FIRST = {
  place: false,
  role: false,
  serial: false,
  cores: false,
  ports: false,
  system: false,
  firmware: false,
  controller: false,
};
