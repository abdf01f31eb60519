"use client";

import { memo, useMemo, useRef, useState, type KeyboardEvent } from "react";
import {
  endKey,
  segmentsOfCable,
  segmentsOfPort,
  switchPort,
  type Cable,
  type CableEnd,
  type Device,
} from "@/core/network";
import { endWords, type Directory, type Site } from "@/core/site";
import { segmentLook } from "../network/segment-look";
import { cablePath, layWiring, PORT, type PlacedBox } from "../network/wiring-layout";

const FEW = 20;
const ZOOMS = [0.6, 0.8, 1, 1.4, 2];

interface Shown {
  site: Pick<Site, "segments" | "devices" | "cables">;
  directory: Directory;
  chosen: CableEnd | null;
  onChoose: (end: CableEnd) => void;
}

/** What is drawn of a site: all of it, or one network alone. Worked out when the plan changes, and not at each key. */
function drawn(site: Shown["site"], directory: Directory, only: string) {
  const carried = new Map(site.cables.map((c) => [c.id, segmentsOfCable(site, site.segments, c)]));
  const cables = site.cables.filter((c) => only === "" || carried.get(c.id)?.some((s) => s.id === only));
  const cableAt = new Map(site.cables.flatMap((c) => [c.a, c.b].map((e) => [endKey(e), c] as const)));
  const ends = new Set(cables.flatMap((c) => [endKey(c.a), endKey(c.b)]));
  // A machine without a cable is drawn where there are few; in a hall it is found by its name in the list of cables.
  const isSmall = only === "" && directory.machines.length <= FEW;
  const machines = directory.machines.filter(
    (m) => m.ports.length > 0 && (isSmall || m.ports.some((p) => ends.has(endKey({ mac: p.mac })))),
  );
  const devices = site.devices.filter((d) => isDrawn(site, d) && (only === "" || inNetwork(site, d, only)));
  return { carried, cables, cableAt, ends, layout: layWiring(machines, devices) };
}
type Drawn = ReturnType<typeof drawn>;

/** Machines, things and the cables between their ports, coloured and patterned by network; one network can be shown alone. */
export function WiringDrawing({ site, directory, chosen, onChoose }: Shown) {
  const [only, setOnly] = useState("");
  // Until someone zooms, the drawing is as wide as its place, and at most as large as it was drawn.
  const [zoom, setZoom] = useState<number | null>(null);
  const drawing = useRef<SVGSVGElement>(null);
  const { segments, devices, cables } = site;
  const plan = useMemo(() => ({ segments, devices, cables }), [segments, devices, cables]);
  const picture = useMemo(() => drawn(plan, directory, only), [plan, directory, only]);
  const { layout, carried } = picture;
  const chosenKey = chosen && endKey(chosen);
  const scale = zoom ?? 1;
  const step = (zooms: readonly number[], isNext: (zoom: number, shown: number) => boolean) => () => {
    const shown = (drawing.current?.clientWidth ?? 0) / (layout.width + 16);
    setZoom(zooms.find((z) => isNext(z, shown)) ?? zoom);
  };
  return (
    <figure aria-label="Cables between ports">
      <div className="no-print mb-2 flex flex-wrap items-end gap-4">
        <label>
          <span className="label">Network</span>
          <select
            aria-label="Network"
            className="select w-auto"
            value={only}
            onChange={(e) => setOnly(e.target.value)}
          >
            <option value="">all</option>
            {site.segments.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
        </label>
        <span className="flex gap-2">
          <button
            type="button"
            className="btn"
            disabled={zoom === ZOOMS[0]}
            onClick={step(ZOOMS.toReversed(), (z, shown) => z < shown - 0.01)}
          >
            Smaller
          </button>
          <button
            type="button"
            className="btn"
            disabled={zoom === ZOOMS.at(-1)}
            onClick={step(ZOOMS, (z, shown) => z > shown + 0.01)}
          >
            Larger
          </button>
        </span>
        <Legend site={site} />
      </div>
      <div className="max-h-[70vh] overflow-auto border border-base-300 print:max-h-none">
        <svg
          ref={drawing}
          viewBox={`-8 -4 ${layout.width + 16} ${layout.height + 8}`}
          width={(layout.width + 16) * scale}
          height={(layout.height + 8) * scale}
          fill="none"
          stroke="currentColor"
          className={`${zoom === null ? "h-auto max-w-full" : "max-w-none"} print:h-auto print:w-full`}
        >
          <g aria-hidden="true">
            {picture.cables.map((c) => (
              <CableLine
                key={c.id}
                {...{ site, cable: c, carried: carried.get(c.id) ?? [], only }}
                path={cablePath(layout, c)}
              />
            ))}
          </g>
          {layout.boxes.map((box) => (
            <Box
              key={box.key}
              {...{ box, plan, directory, picture, onChoose }}
              at={box.ports.findIndex((p) => endKey(p.end) === chosenKey)}
            />
          ))}
        </svg>
      </div>
    </figure>
  );
}

/** A thing without ports is in the table only. */
const isDrawn = ({ cables }: Shown["site"], d: Device): boolean =>
  d.portCount > 0 ||
  d.ports.length > 0 ||
  cables.some((c) => [c.a, c.b].some((e) => "device" in e && e.device === d.id));

const inNetwork = ({ segments }: Shown["site"], d: Device, id: string): boolean =>
  d.ports.some((p) => segmentsOfPort(p, segments).some((s) => s.id === id));

/** A cable in the look of its network; one that carries several is drawn double, one that carries none that is known thin. */
function CableLine({
  site,
  cable,
  carried,
  only,
  path,
}: {
  site: Shown["site"];
  cable: Cable;
  carried: Site["segments"];
  only: string;
  path: string | null;
}) {
  if (path === null) return null;
  const look = segmentLook(site.segments, only || (carried[0]?.id ?? null));
  const isTrunk = carried.length > 1;
  return (
    <g className={look.colour} data-cable={cable.id}>
      <path
        d={path}
        strokeWidth={isTrunk ? 5 : carried.length === 1 ? 2.5 : 1}
        strokeDasharray={look.dashes}
      />
      {isTrunk && <path d={path} strokeWidth={2} className="stroke-base-100" />}
    </g>
  );
}

const Legend = ({ site }: { site: Shown["site"] }) => (
  <ul className="flex flex-wrap gap-x-4 gap-y-1 text-[0.86rem]">
    {site.segments.map((s) => {
      const { colour, dashes } = segmentLook(site.segments, s.id);
      return (
        <li key={s.id} className="flex items-center gap-1.5">
          <svg width="34" height="8" className={colour} aria-hidden="true">
            <path d="M0 4 H34" stroke="currentColor" strokeWidth="2.5" strokeDasharray={dashes} />
          </svg>
          {s.name}
        </li>
      );
    })}
    <li className="quiet">double line: several networks; thin line: network unspecified</li>
  </ul>
);

const settingOf = ({ devices }: Pick<Site, "devices">, end: CableEnd) =>
  "device" in end ? switchPort(devices.find((d) => d.id === end.device) ?? { ports: [] }, end.port) : null;

/** What a port is, as a person would read it out. */
function portTitle(
  plan: Shown["site"],
  directory: Directory,
  cable: Cable | undefined,
  end: CableEnd,
): string {
  const far = cable && (endKey(cable.a) === endKey(end) ? cable.b : cable.a);
  const port = settingOf(plan, end);
  return [
    endWords(directory, end),
    port &&
      `${port.mode}, native ${port.native ?? "none"}${port.mode === "trunk" ? `, tagged ${port.allowed || "none"}` : ""}${port.group ? `, LAG ${port.group}` : ""}`,
    far ? `cable to ${endWords(directory, far)}` : "no cable",
  ]
    .filter(Boolean)
    .join(": ");
}

/** A machine or a thing: one stop of the keyboard, and arrows go from port to port. */
const Box = memo(function Box({
  box,
  plan,
  directory,
  picture,
  at,
  onChoose,
}: {
  box: PlacedBox;
  plan: Shown["site"];
  directory: Directory;
  picture: Pick<Drawn, "cableAt" | "ends">;
  /** Which of its ports is chosen; -1 for none. */
  at: number;
  onChoose: (end: CableEnd) => void;
}) {
  const { ends, cableAt } = picture;
  const keys = (e: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key];
    const next = step === undefined ? undefined : box.ports[at < 0 ? 0 : at + step];
    if (!next) return;
    e.preventDefault();
    onChoose(next.end);
  };
  return (
    <g
      role="listbox"
      tabIndex={0}
      aria-label={[box.name, box.what].filter(Boolean).join(", ")}
      aria-activedescendant={at < 0 ? undefined : `port-${box.key}-${at}`.replaceAll(" ", "-")}
      onKeyDown={keys}
    >
      <text
        x={box.x}
        y={box.y + 13}
        fontSize="14"
        fill="currentColor"
        fontWeight="600"
        className="stroke-base-100"
        strokeWidth="4"
        paintOrder="stroke"
      >
        {box.name}
        <tspan fontWeight="400" fontSize="12" dx="8">
          {box.what}
        </tspan>
      </text>
      {box.ports.map((p, i) => {
        const isMachine = "mac" in p.end;
        const key = endKey(p.end);
        const port = settingOf(plan, p.end);
        const networks = port ? segmentsOfPort(port, plan.segments) : [];
        const title = portTitle(plan, directory, cableAt.get(key), p.end);
        return (
          <g
            key={key}
            id={`port-${box.key}-${i}`.replaceAll(" ", "-")}
            role="option"
            aria-selected={i === at}
            aria-label={title}
            className={`cursor-pointer ${segmentLook(plan.segments, networks[0]?.id ?? null).colour}`}
            onClick={() => onChoose(p.end)}
          >
            <title>{title}</title>
            <rect
              x={p.x - PORT / 2}
              y={p.y - PORT / 2}
              width={PORT}
              height={PORT}
              strokeWidth={i === at ? 3.5 : 1.3}
              className={ends.has(key) ? "fill-base-300" : "fill-base-100"}
            />
            <text
              x={isMachine ? p.x - PORT / 2 - 6 : p.x}
              y={p.y + 4}
              fontSize={isMachine ? 12 : 9.5}
              textAnchor={isMachine ? "end" : "middle"}
              stroke="none"
              className="fill-base-content"
            >
              {p.name.slice(0, isMachine ? 20 : 3)}
            </text>
          </g>
        );
      })}
    </g>
  );
});
