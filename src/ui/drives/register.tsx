"use client";

import { MEDIA_NAMES } from "@/core/machine";
import Link from "next/link";
import { useMemo, useState } from "react";
import { RadioWords } from "../fields/radio-words";
import { DataList, type DataColumn } from "../frame/data-list";
import type { Drive, Verdict } from "@/core/machine";
import { formatDecimalBytes } from "@/core/units";
import { MediaGlyph } from "../machine/drive-tile";
import { HealthMark } from "../machine/health-mark";

/** One drive as the list shows it. */
export interface DriveLine {
  id: string;
  label: string;
  serial: string;
  model: string;
  media: Drive["media"];
  sizeBytes: number;
  verdict: Verdict;
  reasons: string;
  wear: string;
  where: string;
  spare: boolean;
  holds: string;
  erased: string;
}

const SHOWN = {
  all: "all",
  look: "needs attention",
  shelf: "in storage",
  spare: "spares",
  stick: "USB sticks and cards",
};
type Shown = keyof typeof SHOWN;

const belongs: Record<Shown, (d: DriveLine) => boolean> = {
  all: () => true,
  look: (d) => d.verdict === "failing" || d.verdict === "watch",
  shelf: (d) => !/,|seen|destroyed/.test(d.where) && d.where !== "",
  spare: (d) => d.spare,
  stick: (d) => d.media === "usb" || d.media === "card",
};

const COLUMNS: readonly DataColumn<DriveLine>[] = [
  {
    ...{ id: "drive", title: "Drive", width: "minmax(11rem,1.3fr)", by: (d) => nameOf(d) },
    cell: (d) => (
      <div className="flex min-w-0 items-center gap-2">
        <MediaGlyph media={d.media} />
        <Link className="link font-medium" href={`/machines/drives/${encodeURIComponent(d.id)}`}>
          {nameOf(d)}
        </Link>
      </div>
    ),
  },
  {
    ...{
      id: "serial",
      title: "Serial",
      width: "minmax(9rem,1fr)",
      mono: true,
      isWide: true,
      by: (d) => d.serial || undefined,
    },
    cell: (d) => d.serial || "none",
  },
  {
    ...{ id: "size", title: "Size", width: "6.5rem", mono: true, by: (d) => d.sizeBytes, isWide: true },
    cell: (d) => formatDecimalBytes(d.sizeBytes),
  },
  {
    ...{ id: "health", title: "Health", width: "minmax(12rem,1.5fr)", by: (d) => HEALTH_ORDER[d.verdict] },
    cell: (d) => (
      <div className="leading-tight">
        <HealthMark verdict={d.verdict} />
        <div className="quiet text-[0.86rem]">{d.verdict === "good" ? d.wear : d.reasons}</div>
      </div>
    ),
  },
  {
    ...{ id: "where", title: "Location", width: "minmax(9rem,1fr)", by: (d) => d.where || undefined },
    cell: (d) => (
      <>
        {d.where}
        {d.spare && <span className="quiet"> · spare</span>}
      </>
    ),
  },
  {
    ...{ id: "holds", title: "Contents", width: "minmax(10rem,1.4fr)", by: (d) => d.holds || undefined },
    isWide: true,
    cell: (d) => (
      <div className="leading-tight">
        {d.holds || <span className="quiet">unknown</span>}
        {d.erased && <div className="quiet text-[0.86rem]">{d.erased}</div>}
      </div>
    ),
  },
];

/** Those that need a look come first. */
const HEALTH_ORDER: Record<Verdict, number> = { failing: 0, watch: 1, "not known": 2, good: 3 };
const nameOf = (d: DriveLine): string => d.label || d.model || MEDIA_NAMES[d.media];

/** Every drive, stick and card that was ever seen, whatever machine it sits in; those that need a look come first. */
export function DriveRegister({ drives }: { drives: DriveLine[] }) {
  const [shown, setShown] = useState<Shown>("all");
  const rows = useMemo(() => drives.filter(belongs[shown]), [drives, shown]);
  if (drives.length === 0)
    return (
      <p className="quiet">
        No drives yet. They are added with the hardware data of machines, or one by one.
      </p>
    );
  return (
    <DataList
      label="Drives"
      what="drives"
      rows={rows}
      columns={COLUMNS}
      remembered="derrick_drive_columns"
      sortedBy={{ id: "health", desc: false }}
      wordsOf={(d) => Object.values(d).join(" ")}
      hrefOf={(d) => `/machines/drives/${encodeURIComponent(d.id)}`}
      rowHeight={48}
      minWidth="64rem"
      narrowWidth="34rem"
      placeholder="serial, model, machine, contents…"
      beside={
        <RadioWords label="Filter drives" name="shown" words={SHOWN} chosen={shown} onChoose={setShown} />
      }
    />
  );
}
