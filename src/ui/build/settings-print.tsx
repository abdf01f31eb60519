"use client";

import type { BootPicture } from "@/core/boot";
import { daysInWords } from "@/core/units";
import { Table, type Column } from "../frame/table";

type Line = BootPicture["settings"][number];

/** The setting with its other words and its place, and what is wanted with the reason. */
export const wantedColumns = (setting: string, wanted: string): Column<Line>[] => [
  {
    title: "Setting",
    heads: true,
    width: setting,
    cell: (l) => (
      <>
        {l.title}
        <div className="quiet text-[0.82rem] font-normal">
          {l.words}; menu: {l.where}
        </div>
      </>
    ),
  },
  {
    title: "Wanted",
    width: wanted,
    cell: (l) => (
      <>
        <b>{l.value}</b>
        <div className="quiet text-[0.82rem]">{l.why}</div>
      </>
    ),
  },
];

const COLUMNS: readonly Column<Line>[] = [
  ...wantedColumns("w-[32%]", "w-[30%]"),
  {
    title: "As found",
    cell: (l) =>
      l.found ? (
        <>
          {l.found.value} <span className="quiet text-[0.82rem]">{daysInWords(l.found.from)}</span>
        </>
      ) : (
        <Blank />
      ),
  },
  { title: "As set", cell: (l) => (l.done ? l.done : <Blank />) },
];

/** A line to write on. */
const Blank = () => (
  <span className="mt-4 block w-full min-w-24 border-b border-base-content">
    <span className="sr-only">to be filled in</span>
  </span>
);

/** The settings sheet as it goes along to the machine on paper. */
export const SettingsPrint = ({ lines }: { lines: readonly Line[] }) => (
  <Table label="Firmware settings" columns={COLUMNS} rows={lines} keyOf={(l) => l.key} />
);

export const PrintButton = () => (
  <button type="button" className="btn" onClick={() => window.print()}>
    Print
  </button>
);
