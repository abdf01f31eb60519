"use client";

import type { CSSProperties, ReactNode } from "react";
import type { DrawnGroup, Drive, MachineDrawing as Drawing, Port } from "@/core/machine";
import { term } from "@/core/text";
import { DriveTile } from "./drive-tile";
import { moveFocus, sameSelection, type Selection } from "./selection";

interface Props {
  drawing: Drawing;
  chosen: Selection | null;
  onChoose: (selection: Selection) => void;
}

/** Width of a rack face and height of one unit, in millimetres (IEC 60297). */
const FACE = { width: 482.6, unit: 44.45 };

/** Front and rear of a machine to scale, drawn from its facts; every bay, port and controller in them can be chosen. */
export function MachineDrawing(props: Props) {
  const { drawing } = props;
  const hasFront = drawing.front.length + drawing.unplaced.length > 0;
  return (
    <div className="space-y-3">
      <Face title="Front" hotkey="f" units={drawing.rackUnits}>
        {drawing.front.map((g) => (
          <BayBlock key={g.title + g.prefix} group={g} {...props} />
        ))}
        {!hasFront && <p className="quiet self-center px-3">No drive known yet.</p>}
        {drawing.front.length === 0 && drawing.unplaced.length > 0 && (
          <p className="quiet self-center px-3">
            No bay has a name yet: assign the drives below to their bays.
          </p>
        )}
      </Face>
      {drawing.unplaced.length > 0 && (
        <Tray title="Bay unknown" name="tray" drives={drawing.unplaced} {...props} />
      )}
      <Face title="Rear" hotkey="r" units={drawing.rackUnits}>
        <Rear {...props} />
      </Face>
      {drawing.shown.length > 0 && (
        <Tray title="Virtual drives of controllers" name="shown" drives={drawing.shown} {...props} />
      )}
      {drawing.inside.length > 0 && (
        <Face title="Inside" units={null}>
          {drawing.inside.map((g) => (
            <BayBlock key={g.title + g.prefix} group={g} {...props} />
          ))}
        </Face>
      )}
    </div>
  );
}

/** One face as a drawing with its rack ears; arrow keys move inside it. */
function Face({
  title,
  units,
  hotkey,
  children,
}: {
  title: string;
  units: number | null;
  hotkey?: string;
  children: ReactNode;
}) {
  return (
    <section aria-label={`${title} of the machine`}>
      <div className="mb-0.5 flex items-baseline gap-2">
        <h2 className="label">
          {title}
          {units !== null ? `, ${units}U` : ""}
        </h2>
        {hotkey && <span className="kbd text-[0.65rem] leading-4">{hotkey.toUpperCase()}</span>}
      </div>
      <div
        role="group"
        data-face={title.toLowerCase()}
        aria-label={title}
        className={`flex items-stretch border-2 border-base-content sheet:aspect-(--face) ${units === null ? "min-h-14 w-fit max-w-full min-w-72" : "w-full"}`}
        style={
          {
            "--face": units === null ? "auto" : `${FACE.width} / ${Math.max(FACE.unit * units, 38)}`,
          } as CSSProperties
        }
        onKeyDown={(e) => moveFocus(e.currentTarget, e.key) && e.preventDefault()}
      >
        {units !== null && <Ear units={units} />}
        <div className="flex min-w-0 flex-1 flex-wrap items-stretch gap-2 p-1.5">{children}</div>
        {units !== null && <Ear units={units} />}
      </div>
    </section>
  );
}

/** The ear by which it is bolted to the rack: three holes a unit. */
function Ear({ units }: { units: number }) {
  return (
    <div
      aria-hidden="true"
      className="flex w-3 shrink-0 flex-col justify-around py-1"
      style={{ background: "color-mix(in oklab, currentColor 10%, transparent)" }}
    >
      {Array.from({ length: units * 3 }, (_, i) => (
        <span key={i} className="mx-auto h-1 w-1.5 border border-current" />
      ))}
    </div>
  );
}

function BayBlock({ group, chosen, onChoose }: { group: DrawnGroup } & Props) {
  const single = group.columns * group.rows === 1;
  return (
    <div
      className={`flex min-w-0 flex-col ${single ? "w-44" : group.face === "rear" ? "ml-auto" : "flex-1"}`}
      style={
        group.face === "rear" && !single ? { width: `${Math.min(group.columns * 6.5, 40)}rem` } : undefined
      }
    >
      <div
        className="grid min-h-0 flex-1 gap-1"
        style={{
          gridTemplateColumns: `repeat(${group.columns}, minmax(0, 1fr))`,
          gridTemplateRows: `repeat(${group.rows}, minmax(0, 1fr))`,
        }}
      >
        {group.bays.map((bay, i) => {
          const selection: Selection = bay.drive
            ? { kind: "drive", id: bay.drive.id }
            : { kind: "bay", name: bay.name };
          return (
            <DriveTile
              key={bay.name}
              bay={bay}
              drive={bay.drive}
              chosen={sameSelection(chosen, selection)}
              tabbable={i === 0}
              onChoose={() => onChoose(selection)}
              narrow={group.columns >= 6 || group.prefix !== ""}
              style={{ gridColumn: bay.column + 1, gridRow: bay.row + 1 }}
            />
          );
        })}
      </div>
    </div>
  );
}

/** Drives whose bay nobody has named lie on a tray beside the machine until they are put in one. */
function Tray({
  title,
  name,
  drives,
  chosen,
  onChoose,
}: { title: string; name: string; drives: Drive[] } & Props) {
  return (
    <section aria-label={title}>
      <h2 className="label mb-0.5">{title}</h2>
      <div
        role="group"
        data-face={name}
        aria-label={title}
        className="flex flex-wrap gap-1 border border-dashed border-current/60 p-1.5"
        onKeyDown={(e) => moveFocus(e.currentTarget, e.key) && e.preventDefault()}
      >
        {drives.map((drive, i) => (
          <DriveTile
            key={drive.id}
            bay={null}
            drive={drive}
            chosen={sameSelection(chosen, { kind: "drive", id: drive.id })}
            tabbable={i === 0}
            onChoose={() => onChoose({ kind: "drive", id: drive.id })}
            style={{ width: "9rem" }}
          />
        ))}
      </div>
    </section>
  );
}

function Rear({ drawing, chosen, onChoose }: Props) {
  const empty =
    drawing.cards.length + drawing.controllers.length + drawing.supplies.length + drawing.rear.length === 0;
  return (
    <>
      {drawing.supplies.map((s) => (
        <Block
          key={s.id}
          label={`power supply ${s.id}, ${s.state}`}
          chosen={sameSelection(chosen, { kind: "supply", id: s.id })}
          onChoose={() => onChoose({ kind: "supply", id: s.id })}
        >
          <span className="text-[0.86rem] font-medium">{s.ratedWatts ? `${s.ratedWatts} W` : "supply"}</span>
          <span className="quiet text-[0.72rem]">{s.state}</span>
        </Block>
      ))}
      {drawing.cards.map((card, i) => (
        <div
          key={`${card.place}${i}`}
          className="flex min-w-0 flex-col justify-between border border-current/35 px-1 pb-0.5"
        >
          <div className="flex flex-1 items-center gap-0.5">
            {card.ports.map((p, n) => (
              <PortSocket
                key={p.mac}
                port={p}
                tabbable={i === 0 && n === 0}
                chosen={sameSelection(chosen, { kind: "port", mac: p.mac })}
                onChoose={() => onChoose({ kind: "port", mac: p.mac })}
              />
            ))}
          </div>
          <span className="quiet max-w-40 text-[0.72rem] leading-tight">{card.place || card.name}</span>
        </div>
      ))}
      {drawing.controllers.map((c) => (
        <Block
          key={c.id}
          label={`storage controller ${c.name}, ${term(c.mode)}`}
          chosen={sameSelection(chosen, { kind: "controller", id: c.id })}
          onChoose={() => onChoose({ kind: "controller", id: c.id })}
        >
          <span className="max-w-44 text-[0.79rem]">{c.name}</span>
          <span className="quiet text-[0.72rem]">{c.mode === "unknown" ? "storage" : term(c.mode)}</span>
        </Block>
      ))}
      {drawing.rear.map((g) => (
        <BayBlock key={g.title + g.prefix} group={g} drawing={drawing} chosen={chosen} onChoose={onChoose} />
      ))}
      {empty && <p className="quiet self-center px-3">No port known yet.</p>}
    </>
  );
}

function Block({
  label,
  chosen,
  onChoose,
  children,
}: {
  label: string;
  chosen: boolean;
  onChoose: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      data-tile
      tabIndex={-1}
      aria-label={label}
      aria-pressed={chosen}
      onClick={onChoose}
      className="flex min-w-0 cursor-pointer flex-col justify-center border border-current/60 px-2 text-left leading-tight aria-pressed:inset-ring-2 aria-pressed:inset-ring-primary"
    >
      {children}
    </button>
  );
}

/** A socket with its tab; filled when there is link, with a word below it. */
function PortSocket({
  port,
  chosen,
  tabbable,
  onChoose,
}: {
  port: Port;
  chosen: boolean;
  tabbable: boolean;
  onChoose: () => void;
}) {
  const speed =
    port.speedMegabits && port.link === "up"
      ? speedWords(port.speedMegabits)
      : port.link === "up"
        ? "link"
        : port.link === "down"
          ? "no link"
          : "?";
  return (
    <button
      type="button"
      data-tile
      tabIndex={tabbable ? 0 : -1}
      aria-label={`port ${port.seenAs}, ${port.mac}, ${port.kind === "wireless" ? "wireless, " : ""}link ${port.link}`}
      aria-pressed={chosen}
      onClick={onChoose}
      className="flex cursor-pointer flex-col items-center px-1 leading-none"
      style={{ boxShadow: chosen ? "inset 0 0 0 2px var(--color-primary)" : undefined }}
    >
      <span className="value text-[0.72rem]">{port.seenAs}</span>
      <svg
        viewBox="0 0 30 30"
        width="26"
        height="26"
        aria-hidden="true"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.6"
      >
        {port.kind === "wireless" ? (
          <path d="M15 27 V13 M8 9 a10 10 0 0 1 14 0 M5 5 a14.5 14.5 0 0 1 20 0" />
        ) : (
          <>
            <rect x="2" y="2" width="26" height="26" />
            <path d="M7 21 V9 H11 V6 H19 V9 H23 V21 Z" fill={port.link === "up" ? "currentColor" : "none"} />
          </>
        )}
      </svg>
      <span className="quiet text-[0.72rem]">{speed}</span>
    </button>
  );
}

export const speedWords = (megabits: number): string =>
  megabits >= 1000 ? `${megabits / 1000} Gbit/s` : `${megabits} Mbit/s`;
