"use client";

import Link from "next/link";
import { useMemo, useState } from "react";
import type { Stand } from "@/core/sheet";
import { RadioWords } from "../fields/radio-words";
import { DataList, type DataColumn } from "../frame/data-list";
import { Signal } from "../frame/signal";
import { useFreshMarks, useMark } from "./use-mark";
import { Day } from "../frame/person";

/** One sheet of the list, with its last run. */
export interface BuildLine {
  id: string;
  number: string;
  subject: string;
  machine: string;
  address: string;
  revision: string;
  stand: Stand;
  /** Where it is gone on with, or its record. */
  href: string;
  /** When the run needs hands next, and for what, in words. */
  hands: string;
  /** When it was changed last, or handed over. */
  at: string;
}

const STANDS = {
  all: "all",
  "in preparation": "in preparation",
  issued: "issued",
  running: "running",
  "handed over": "handed over",
};
const dash = <span className="quiet">–</span>;

/** Stops of a sheet that is not carried out; of the others the run tells. */
function InTheWay({ id }: { id: string }) {
  const mark = useMark(id);
  if (!mark) return <span className="quiet">…</span>;
  const { firstStop, stops, cautions, next } = mark;
  if (!firstStop)
    return (
      <>
        no blockers
        {cautions > 0 && (
          <span className="quiet">
            , {cautions} {cautions === 1 ? "warning" : "warnings"}
          </span>
        )}
        <span className="quiet">; next: {next}</span>
      </>
    );
  return (
    <span title={firstStop.says}>
      <Signal severity="stop" size={12} /> <span className="value font-semibold">{firstStop.label}</span>{" "}
      {firstStop.title}
      {stops > 1 && <span className="quiet"> and {stops - 1} more</span>}
    </span>
  );
}

const isOpen = ({ stand }: BuildLine): boolean => stand === "in preparation" || stand === "issued";

const COLUMNS: readonly DataColumn<BuildLine>[] = [
  {
    ...{ id: "number", title: "Sheet", width: "5.5rem", by: (b) => b.number, mono: true },
    cell: (b) => (
      <Link className="link" href={`/builds/${b.id}`}>
        {b.number}
      </Link>
    ),
  },
  {
    ...{ id: "subject", title: "Subject", width: "minmax(11rem,1.6fr)", by: (b) => b.subject },
    cell: (b) => (
      <Link className="link font-medium" href={`/builds/${b.id}`} tabIndex={-1}>
        {b.subject || "(no subject)"}
      </Link>
    ),
  },
  {
    ...{ id: "machine", title: "Machine", width: "minmax(5rem,0.6fr)", by: (b) => b.machine, isWide: true },
    cell: (b) => b.machine || dash,
  },
  {
    ...{ id: "address", title: "Address", width: "7.5rem", by: (b) => b.address, mono: true, isHidden: true },
    cell: (b) => b.address || dash,
  },
  {
    ...{ id: "revision", title: "Rev", width: "3rem", by: (b) => b.revision, isWide: true },
    cell: (b) => b.revision || dash,
  },
  {
    ...{ id: "stand", title: "State", width: "7.5rem", by: (b) => b.stand },
    cell: (b) => (
      <Link className="link" href={b.href} tabIndex={-1}>
        {b.stand}
      </Link>
    ),
  },
  {
    ...{ id: "way", title: "Blocked by / next action", width: "minmax(13rem,2.4fr)" },
    cell: (b) => (isOpen(b) ? <InTheWay id={b.id} /> : b.hands || dash),
  },
  {
    ...{ id: "at", title: "Changed", width: "7rem", by: (b) => b.at, isWide: true },
    cell: (b) => <Day at={b.at} />,
  },
];

const wordsOf = (b: BuildLine): string => Object.values(b).join(" ");

/** Every sheet: what stands in its way, or when its run needs hands. */
export function BuildList({ builds }: { builds: BuildLine[] }) {
  const [stand, setStand] = useState<keyof typeof STANDS>("all");
  useFreshMarks();
  const rows = useMemo(() => builds.filter((b) => stand === "all" || b.stand === stand), [builds, stand]);
  return (
    <DataList
      label="Build sheets"
      what="build sheets"
      rows={rows}
      columns={COLUMNS}
      remembered="derrick_build_columns"
      sortedBy={{ id: "number", desc: true }}
      wordsOf={wordsOf}
      hrefOf={(b) => `/builds/${b.id}`}
      minWidth="58rem"
      narrowWidth="36rem"
      placeholder="subject, machine, address…"
      beside={
        <RadioWords label="Filter by state" name="stand" words={STANDS} chosen={stand} onChoose={setStand} />
      }
    />
  );
}
