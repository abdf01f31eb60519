import { Day } from "../frame/person";
import Link from "next/link";
import type { Verdict } from "@/core/machine";
import { formatBinaryBytes, formatDecimalBytes } from "@/core/units";
import type { DataColumn } from "../frame/data-list";
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

const dash = <span className="quiet">–</span>;
const HEALTH_ORDER: Record<Verdict, number> = { failing: 0, watch: 1, "not known": 2, good: 3 };

/** A column of words, as they stand. */
const words = (id: keyof MachineLine, title: string, width: string, more: Partial<Column> = {}): Column => ({
  ...{ id, title, width, by: (m) => m[id] },
  cell: (m) => m[id] || dash,
  ...more,
});

type Column = DataColumn<MachineLine>;
const mono = { mono: true, isHidden: true };

/** Every column that the list can show, in order. */
export const COLUMNS: readonly Column[] = [
  {
    ...{ id: "name", title: "Machine", width: "minmax(8rem,1.2fr)", by: (m) => m.name },
    cell: (m) => (
      <Link className="link font-medium" href={`/machines/${m.id}`}>
        {m.name}
      </Link>
    ),
  },
  words("site", "Site", "minmax(5rem,0.8fr)", { isWide: true }),
  words("place", "Location", "minmax(6rem,0.9fr)", { isHidden: true }),
  words("role", "Role", "minmax(5rem,0.8fr)", { isHidden: true }),
  words("model", "Model", "minmax(7rem,1fr)", {
    cell: (m) => m.model || <span className="quiet">not collected</span>,
  }),
  words("serial", "Serial", "minmax(8rem,1fr)", mono),
  words("cores", "Cores", "4rem", { right: true, isHidden: true }),
  words("memory", "Memory", "5.5rem", {
    right: true,
    isWide: true,
    cell: (m) => (m.memory ? formatBinaryBytes(m.memory) : dash),
  }),
  {
    ...{ id: "rawBytes", title: "Drives", width: "7rem", right: true, by: (m) => m.rawBytes },
    isWide: true,
    cell: (m) =>
      m.drives > 0 ? (
        <>
          {m.drives} · {formatDecimalBytes(m.rawBytes)}
        </>
      ) : (
        dash
      ),
  },
  words("ports", "Ports", "4rem", { right: true, isHidden: true }),
  {
    ...{ id: "health", title: "Health", width: "minmax(9.5rem,0.9fr)" },
    by: (m) => HEALTH_ORDER[m.health] * 100 - (m.defects ?? 0),
    cell: (m) => (
      <span>
        <HealthMark verdict={m.health} />
        {m.defects !== undefined && (
          <span className="quiet">
            {" "}
            · {m.defects} {m.defects === 1 ? "defect" : "defects"}
          </span>
        )}
      </span>
    ),
  },
  words("system", "Current OS", "minmax(7rem,1fr)", { isHidden: true }),
  words("firmware", "Firmware", "6rem", mono),
  words("controller", "Controller", "8rem", mono),
  words("becoming", "Planned build", "minmax(10rem,2fr)", {
    cell: (m) =>
      m.href ? (
        <Link className="link" href={m.href}>
          {m.becoming}
        </Link>
      ) : (
        dash
      ),
  }),
  words("next", "Build status", "minmax(6rem,0.8fr)", { isWide: true }),
  words("read", "Last inventory", "7.5rem", {
    isWide: true,
    cell: (m) => (m.read ? <Day at={m.read} /> : "never"),
  }),
];
