"use client";

import Link from "next/link";
import { useState } from "react";
import { RadioWord } from "../fields/radio-word";
import { ListTable } from "../frame/list-table";
import { hasWords, NarrowField, ShownCount } from "../frame/narrow";
import type { Drive, Verdict } from "@/core/machine";
import { MediaGlyph } from "../machine/drive-tile";
import { HealthMark } from "../machine/health-mark";

/** One drive as the list shows it. */
export interface DriveLine {
  key: string;
  label: string;
  serial: string;
  model: string;
  media: Drive["media"];
  size: string;
  verdict: Verdict;
  reasons: string;
  wear: string;
  where: string;
  spare: boolean;
  holds: string;
  erased: string;
}

const ROW = 48;
const SHOWN = [
  { key: "all", title: "all" },
  { key: "look", title: "needs a look" },
  { key: "shelf", title: "on the shelf" },
  { key: "spare", title: "spares" },
  { key: "stick", title: "sticks and cards" },
] as const;
type Shown = (typeof SHOWN)[number]["key"];

const belongs: Record<Shown, (d: DriveLine) => boolean> = {
  all: () => true,
  look: (d) => d.verdict === "failing" || d.verdict === "watch",
  shelf: (d) => !/,|seen|destroyed/.test(d.where) && d.where !== "",
  spare: (d) => d.spare,
  stick: (d) => d.media === "usb" || d.media === "card",
};

const COLUMNS = [
  { id: "drive", title: "Drive", width: "minmax(11rem,1.3fr)" },
  { id: "serial", title: "Serial", width: "minmax(9rem,1fr)" },
  { id: "size", title: "Size", width: "6.5rem" },
  { id: "health", title: "Health", width: "minmax(12rem,1.5fr)" },
  { id: "where", title: "Where", width: "minmax(9rem,1fr)" },
  { id: "holds", title: "On it", width: "minmax(10rem,1.4fr)" },
];

/** Every drive, stick and card that was ever seen, whatever machine it sits in; those that need a look come first. */
export function DriveRegister({ drives }: { drives: DriveLine[] }) {
  const [words, setWords] = useState("");
  const [shown, setShown] = useState<Shown>("all");
  const rows = drives.filter((d) => belongs[shown](d) && hasWords(Object.values(d).join(" "), words));
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end gap-x-8 gap-y-2">
        <NarrowField
          {...{ words, onChange: setWords }}
          placeholder="serial, model, machine, what is on it …"
        />
        <div role="radiogroup" aria-label="Which drives" className="flex flex-wrap gap-x-4">
          {SHOWN.map((s) => (
            <RadioWord
              key={s.key}
              name="shown"
              text={s.title}
              checked={shown === s.key}
              onChoose={() => setShown(s.key)}
            />
          ))}
        </div>
        <ShownCount shown={rows.length} all={drives.length} what="drives" />
      </div>
      <ListTable
        label="Drives"
        columns={COLUMNS}
        rows={rows}
        height={ROW}
        minWidth="64rem"
        keyOf={(d) => d.key}
        cells={(d) => <DriveCells drive={d} />}
      />
      {rows.length === 0 && (
        <p className="quiet py-3">
          {drives.length === 0
            ? "No drive yet: they come with the facts of machines, or are added by hand."
            : "No drive carries these words."}
        </p>
      )}
    </>
  );
}

const DriveCells = ({ drive: d }: { drive: DriveLine }) => (
  <>
    <div role="cell" className="flex min-w-0 items-center gap-2 pr-3">
      <MediaGlyph media={d.media} />
      <Link className="link truncate font-medium" href={`/machines/drives/${encodeURIComponent(d.key)}`}>
        {d.label || d.model || `${d.media} drive`}
      </Link>
    </div>
    <div role="cell" className="value truncate pr-3">
      {d.serial || "none"}
    </div>
    <div role="cell" className="value pr-3">
      {d.size}
    </div>
    <div role="cell" className="min-w-0 pr-3 leading-tight">
      <HealthMark verdict={d.verdict} />
      <div className="quiet truncate text-[0.86rem]" title={d.reasons}>
        {d.verdict === "good" ? d.wear : d.reasons}
      </div>
    </div>
    <div role="cell" className="truncate pr-3" title={d.where}>
      {d.where}
      {d.spare && <span className="quiet"> · spare</span>}
    </div>
    <div role="cell" className="min-w-0 pr-2 leading-tight">
      <div className="truncate" title={d.holds}>
        {d.holds || <span className="quiet">not known</span>}
      </div>
      {d.erased && <div className="quiet truncate text-[0.86rem]">{d.erased}</div>}
    </div>
  </>
);
