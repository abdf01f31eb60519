"use client";

import { useState } from "react";
import type { Region } from "@/core/image";
import { formatBytes, formatExactBytes } from "@/core/units";
import { Size } from "../frame/person";

const FILL: Record<Region["kind"], string> = {
  boot: "solid",
  table: "solid",
  description: "dotted-fill",
  files: "hatched",
  partition: "",
  beyond: "",
  missing: "hatched",
  unknown: "hatched",
};

const digits = (bytes: number): string => formatExactBytes(bytes).replace(" B", "");

/**
 * The file as one strip from its first byte to its last, to scale; what is too small to see is drawn at least a hair
 * wide. A region that is chosen, in the strip or in the list, is told in full; zooming goes to its neighbourhood.
 */
export function ByteMap({ regions, size }: { regions: Region[]; size: number }) {
  const [chosen, setChosen] = useState(0);
  const [zoom, setZoom] = useState(false);
  const region = regions[chosen];
  const whole = Math.max(size, ...regions.map((r) => r.offset + r.length), 1);
  const from = zoom && region ? Math.max(0, region.offset - Math.max(region.length, 32_768)) : 0;
  const to = zoom && region ? Math.min(whole, region.offset + 2 * Math.max(region.length, 32_768)) : whole;
  const at = (offset: number): number => (100 * (Math.min(Math.max(offset, from), to) - from)) / (to - from);
  return (
    <div>
      <div
        className="relative h-12 border border-current"
        role="group"
        aria-label="The file, from first to last byte"
      >
        {regions.map((r, i) => {
          const left = at(r.offset);
          const width = at(r.offset + r.length) - left;
          if (r.offset + r.length < from || r.offset > to) return null;
          return (
            <button
              key={`${r.name}${r.offset}`}
              type="button"
              aria-label={`${r.name}, at byte ${r.offset}, ${formatBytes(r.length)}`}
              aria-pressed={i === chosen}
              onClick={() => setChosen(i)}
              className={`absolute cursor-pointer border-x border-current ${r.kind === "missing" ? "border-dashed" : ""} ${r.kind === "partition" ? "bottom-0 h-3 border-t" : "inset-y-0"} ${FILL[r.kind] === "solid" ? "" : FILL[r.kind]}`}
              style={{
                left: `${left}%`,
                width: `max(3px, ${width}%)`,
                color: r.kind === "missing" ? "var(--color-error)" : undefined,
                backgroundColor:
                  FILL[r.kind] === "solid"
                    ? "currentColor"
                    : r.kind === "missing"
                      ? "color-mix(in oklab, var(--color-error) 22%, transparent)"
                      : undefined,
                boxShadow: i === chosen ? "inset 0 -5px 0 var(--color-warning)" : undefined,
                zIndex: r.kind === "files" ? 0 : 1,
              }}
            />
          );
        })}
      </div>
      <div className="quiet flex justify-between text-[0.79rem]">
        <span className="value">{digits(from)}</span>
        <button type="button" className="link" onClick={() => setZoom(!zoom)}>
          {zoom ? "the whole file" : "zoom to the chosen region"}
        </button>
        <span className="value">{digits(to)}</span>
      </div>
      <div className="overflow-x-auto">
        <table className="table mt-2" aria-label="Regions">
          <thead>
            <tr>
              <th>Region</th>
              <th className="text-right">At byte</th>
              <th className="text-right">Length</th>
            </tr>
          </thead>
          <tbody>
            {regions.map((r, i) => (
              <tr
                key={`${r.name}${r.offset}`}
                style={
                  i === chosen
                    ? { background: "color-mix(in oklab, var(--color-warning) 12%, transparent)" }
                    : undefined
                }
              >
                <td>
                  <button
                    type="button"
                    className={`text-left ${r.kind === "missing" ? "font-semibold" : ""}`}
                    style={r.kind === "missing" ? { color: "var(--color-error)" } : undefined}
                    onClick={() => setChosen(i)}
                  >
                    {r.name}
                  </button>
                </td>
                <td className="value text-right">{digits(r.offset)}</td>
                <td className="value text-right">
                  <Size bytes={r.length} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}
