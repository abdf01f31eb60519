"use client";

import { useState } from "react";
import { bayWords, type Facts } from "@/core/machine";
import {
  classOfDrives,
  growthOf,
  GROWTH_WORDS,
  toldLayout,
  type Growth,
  type ToldLayout,
} from "@/core/storage";
import { formatBytes, formatDuration } from "@/core/units";
import { ParsedField } from "../fields/fields";
import { numberField } from "../fields/numbers";
import { Table, type Column } from "../frame/table";
import { Bays } from "../storage-bench/bays";

type DriveSet = Facts["sets"][number];

/** What becomes of the sets of a machine when one more drive fails, and how they can be made larger. */
export function WhatIf({ facts }: { facts: Facts }) {
  const told = facts.sets.flatMap((set) => {
    const layout = toldLayout(set);
    return layout ? [{ set, layout }] : [];
  });
  return told.map(({ set, layout }) => (
    <details key={set.id} className="mt-2">
      <summary className="cursor-pointer">Simulate a drive failure or expansion of {set.id}</summary>
      <OneSet {...{ facts, set, told: layout }} />
    </details>
  ));
}

const largerField = numberField(1e12, "a number of TB", (n) => n > 0 && n < 1000);

function OneSet({ facts, set, told }: { facts: Facts; set: DriveSet; told: ToldLayout }) {
  const drives = told.members.map((m) => facts.drives.find((d) => d.id === m.drive) ?? null);
  const known = drives.filter((d) => d !== null);
  const [larger, setLarger] = useState<number | null>(null);
  const sizes = drives.map((d) => d?.sizeBytes ?? 0);
  const nameOf = (i: number): string => {
    const drive = drives[i];
    return drive?.bay ? bayWords(drive.bay).replace(/^bay /, "") : (told.members[i]?.name ?? "");
  };
  const largest = Math.max(...sizes);
  // The next size that makers sell is about half as large again.
  const usual = Math.ceil((largest / 1e12) * 1.5) * 1e12;
  const growth =
    known.length === drives.length && largest > 0
      ? growthOf(told.layout, sizes, {
          ...{ sector: known.every((d) => d.logicalSectorBytes === 4096) ? 4096 : 512, full: 80 },
          ...{ media: classOfDrives(known), larger: larger ?? usual },
        })
      : null;
  return (
    <div className="my-2 pl-4">
      <span className="label">Select a drive to simulate its failure.</span>
      <Bays layout={told.layout} sizes={sizes} nameOf={nameOf} lost={told.lost} />
      {set.progress && (
        <p className="quiet">
          {set.progress.what} is in progress: until it ends, the fault tolerance is lower than shown.
        </p>
      )}
      {growth === null ? (
        <p className="quiet mt-2">Expansion is computed once all drives of the pool or array are known.</p>
      ) : (
        <>
          <div className="mt-3 max-w-48">
            <ParsedField
              {...{ path: `grow ${set.id}`, label: "Larger drives, TB", value: larger ?? usual }}
              format={(n: number | null) => largerField.format(n)}
              parse={largerField.parse}
              onChange={setLarger}
            />
          </div>
          <Table label={`Expansion of ${set.id}`} columns={COLUMNS} rows={growth} keyOf={(g) => g.way} />
          <p className="quiet mt-1">Times at typical rates of such drives, 80 % full.</p>
        </>
      )}
    </div>
  );
}

const COLUMNS: readonly Column<Growth>[] = [
  { title: "Method", heads: true, width: "w-[42%]", cell: (g) => GROWTH_WORDS[g.way] },
  { title: "Drives to buy", className: "value", cell: (g) => `${g.drives} of ${formatBytes(g.driveBytes)}` },
  {
    title: "Usable",
    className: "value",
    cell: (g) => `${formatBytes(g.before)}, then ${formatBytes(g.after)}`,
  },
  {
    title: "Duration",
    className: "value",
    cell: (g) =>
      g.seconds
        ? `${formatDuration(g.seconds.likely)}, up to ${formatDuration(g.seconds.late)}`
        : "no data is copied",
  },
];
