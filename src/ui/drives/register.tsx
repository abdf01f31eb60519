"use client";

import Link from "next/link";
import { useState } from "react";
import { VirtualRows } from "../frame/virtual-rows";
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

/** Every drive, stick and card that was ever seen, whatever machine it sits in; those that need a look come first. */
export function DriveRegister({ drives }: { drives: DriveLine[] }) {
  const [words, setWords] = useState("");
  const [shown, setShown] = useState<Shown>("all");
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const rows = drives.filter(
    (d) => belongs[shown](d) && wanted.every((w) => Object.values(d).join(" ").toLowerCase().includes(w)),
  );
  const grid = {
    gridTemplateColumns:
      "minmax(11rem,1.3fr) minmax(9rem,1fr) 6.5rem minmax(12rem,1.5fr) minmax(9rem,1fr) minmax(10rem,1.4fr)",
  };
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end gap-x-8 gap-y-2">
        <label className="w-72">
          <span className="label">Narrow by any words</span>
          <input
            className="input"
            value={words}
            placeholder="serial, model, machine, what is on it …"
            onChange={(e) => setWords(e.target.value)}
          />
        </label>
        <div role="radiogroup" aria-label="Which drives" className="flex flex-wrap gap-x-4">
          {SHOWN.map((s) => (
            <label
              key={s.key}
              className={`cursor-pointer border-b-2 has-focus-visible:outline-2 ${shown === s.key ? "font-semibold" : "quiet"}`}
              style={{ borderColor: shown === s.key ? "currentColor" : "transparent" }}
            >
              <input
                type="radio"
                className="sr-only"
                name="shown"
                checked={shown === s.key}
                onChange={() => setShown(s.key)}
              />
              {s.title}
            </label>
          ))}
        </div>
        <span className="quiet ml-auto" role="status">
          {rows.length === drives.length
            ? `${drives.length} drives`
            : `${rows.length} of ${drives.length} drives`}
        </span>
      </div>
      <div className="overflow-x-auto overflow-y-clip">
        <div role="table" aria-label="Drives" aria-rowcount={rows.length + 1} className="min-w-[64rem]">
          <div role="rowgroup">
            <div
              role="row"
              className="label grid border-b py-1"
              style={{
                ...grid,
                borderColor: "color-mix(in oklab, var(--color-base-content) 50%, transparent)",
              }}
            >
              {["Drive", "Serial", "Size", "Health", "Where", "On it"].map((h) => (
                <div role="columnheader" key={h}>
                  {h}
                </div>
              ))}
            </div>
          </div>
          <VirtualRows
            count={rows.length}
            height={ROW}
            render={(index, place) => {
              const d = rows[index];
              if (!d) return null;
              return (
                <div
                  key={d.key}
                  role="row"
                  className="grid w-full items-center border-b hover:bg-base-200"
                  aria-rowindex={place["aria-rowindex"]}
                  style={{ ...grid, ...place.style, borderColor: "var(--color-base-300)" }}
                >
                  <div role="cell" className="flex min-w-0 items-center gap-2 pr-3">
                    <MediaGlyph media={d.media} />
                    <Link
                      className="link truncate font-medium"
                      href={`/machines/drives/${encodeURIComponent(d.key)}`}
                    >
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
                </div>
              );
            }}
          />
        </div>
      </div>
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
