"use client";

import { useEffect, useRef, type KeyboardEvent } from "react";
import type { BootPicture, MomentView, Verdict } from "@/core/boot";
import type { Sheet, SheetChanges } from "@/core/sheet";
import { formatDuration } from "@/core/units";
import { Signal } from "../frame/signal";
import { changeBy, droppedOn, moved, stationsOf, type Station } from "./boot-path";

interface Props {
  picture: BootPicture;
  sheet: Sheet;
  edit: (changes: SheetChanges) => void;
}

const BAD: readonly Verdict[] = ["installer again", "another system", "nowhere", "medium not started"];

/** What this firmware starts at each moment of the build: the devices in its order, and the path that it takes. */
export function BootPathPicture({ picture, sheet, edit }: Props) {
  const figure = useRef<HTMLElement>(null);
  /** The stop that had the focus when a key changed the plan: it may stand elsewhere now, and keeps it. */
  const held = useRef<string | null>(null);
  useEffect(() => {
    if (held.current) figure.current?.querySelector<HTMLElement>(held.current)?.focus();
  }, [picture]);
  const keys = (e: KeyboardEvent): void => {
    const changes = pressed(e, picture, sheet);
    if (changes === null) return;
    e.preventDefault();
    e.stopPropagation();
    held.current = changes === "moved" ? null : placeOf(e.target as HTMLElement);
    if (changes !== "moved") edit(changes);
  };
  return (
    // The stops inside are what is focused; the figure only hears their keys.
    <figure ref={figure} role="group" aria-label="Boot sequence" onKeyDown={keys}>
      <p className="mb-2 text-[1.15rem] leading-snug" data-story>
        {picture.story}
      </p>
      {!picture.isListRead && (
        <p className="mb-2 text-warning">
          {sheet.boot.mode === "uefi"
            ? "Boot entries were not collected; the diagram shows an empty list. Import the output of efibootmgr -v."
            : "No tool reports the boot order of a legacy BIOS. Check it in the firmware setup."}
        </p>
      )}
      <div className="border-t border-base-300">
        {picture.moments.map((m) => (
          <Moment key={m.moment} view={m} edit={edit} />
        ))}
      </div>
      <figcaption className="quiet mt-1 text-[0.86rem]">
        <span className="kbd">P</span> go to the diagram; <span className="kbd">←</span>{" "}
        <span className="kbd">→</span> move along it; with <span className="kbd">Shift</span> they change the
        permanent boot order; <span className="kbd">O</span> one-time or permanent;{" "}
        <span className="kbd">L</span> UEFI or legacy BIOS; <span className="kbd">S</span> Secure Boot;{" "}
        <span className="kbd">W</span> next boot source.
      </figcaption>
    </figure>
  );
}

const placeOf = ({ dataset }: HTMLElement): string =>
  `[data-moment="${dataset.moment}"][data-station="${CSS.escape(dataset.station ?? "")}"]`;

/** What a key means where the focus is: a change of the plan, "moved" for the focus alone, null for nothing. */
function pressed(e: KeyboardEvent, picture: BootPicture, sheet: Sheet): SheetChanges | "moved" | null {
  if (e.ctrlKey || e.metaKey || e.altKey || !(e.target instanceof HTMLElement)) return null;
  const station = e.target.closest<HTMLElement>("[data-station]");
  if (!station) return null;
  const by = e.key === "ArrowRight" ? 1 : e.key === "ArrowLeft" ? -1 : null;
  const moment = picture.moments.find((m) => m.moment === station.dataset.moment);
  if (e.shiftKey) return by && moment ? moved(moment, station.dataset.station ?? "", by) : null;
  if (by !== null || e.key === "ArrowDown" || e.key === "ArrowUp") {
    focusNext(e.currentTarget as HTMLElement, station, e.key);
    return "moved";
  }
  return changeBy(e.key, sheet);
}

/** The next stop along a path, or the same place of the next path. */
function focusNext(figure: HTMLElement, station: HTMLElement, key: string): void {
  const rows = [...figure.querySelectorAll<HTMLElement>("[data-row]")].map((row) => [
    ...row.querySelectorAll<HTMLElement>("[data-station]"),
  ]);
  const row = rows.findIndex((r) => r.includes(station));
  const at = rows[row]?.indexOf(station) ?? 0;
  const down = key === "ArrowDown" ? 1 : key === "ArrowUp" ? -1 : 0;
  const right = key === "ArrowRight" ? 1 : key === "ArrowLeft" ? -1 : 0;
  const next = rows[row + down];
  next?.[Math.min(at + right, next.length - 1)]?.focus();
}

function Moment({ view, edit }: { view: MomentView; edit: Props["edit"] }) {
  const stations = stationsOf(view);
  const bad = BAD.includes(view.verdict);
  const reached = stations.filter((s) => s.outcome !== "not reached");
  const failing = reached.filter((s) => s.why !== null);
  return (
    <div
      data-row={view.moment}
      className="grid grid-cols-1 gap-x-4 gap-y-1 border-b py-2 border-base-300 sm:grid-cols-[7.5rem_1fr]"
    >
      <div className={`pt-1 ${bad ? "font-semibold text-error" : "quiet"}`}>
        {view.title}
        {view.mediumIn && <div className="text-[0.79rem] font-normal">medium still connected</div>}
      </div>
      <div className="min-w-0">
        <div className="flex flex-wrap items-center gap-y-1.5">
          {reached.map((s) => (
            <Stop key={s.devices[0] ?? s.name} station={s} view={view} edit={edit} />
          ))}
          <span className={`flex items-center gap-1.5 pl-2 font-semibold ${bad ? "text-error" : ""}`}>
            {bad && <Signal severity="stop" size={12} />}
            {view.ends}
          </span>
        </div>
        {failing.map((s, i) => (
          <p key={i} className="quiet mt-1 text-[0.9rem]">
            {s.why}
            {s.seconds > 0 && ` Takes about ${formatDuration(s.seconds)}.`}
          </p>
        ))}
        <Behind stations={stations} view={view} edit={edit} />
        {view.depends.map((d) => (
          <p key={d.on} className="mt-1 flex items-baseline gap-1.5 text-[0.9rem]">
            <svg viewBox="0 0 30 8" className="h-2 w-7 shrink-0" aria-hidden="true">
              <path d="M0 4 H26" stroke="currentColor" strokeWidth="2" strokeDasharray="2 3" />
            </svg>
            <span>
              {d.isFirmware ? "Depends on the firmware: if" : "Only if"} {d.on}; otherwise it{" "}
              <b className={BAD.includes(d.verdict) ? "text-error" : ""}>{d.otherwise}</b>
            </span>
          </p>
        ))}
      </div>
    </div>
  );
}

/** What stands behind in the order and is not reached any more. */
function Behind({ stations, view, edit }: { stations: Station[]; view: MomentView; edit: Props["edit"] }) {
  const rest = stations.filter((s) => s.outcome === "not reached");
  if (rest.length === 0) return null;
  return (
    <div className="mt-1 flex flex-wrap items-center gap-x-2 gap-y-1">
      <span className="quiet text-[0.9rem]">not reached:</span>
      {rest.map((s) => (
        <Box key={s.name} station={s} view={view} edit={edit} />
      ))}
    </div>
  );
}

/** The path leads into a stop; it is strong where something runs from it, and passes under what does not start. */
function Stop(props: { station: Station; view: MomentView; edit: Props["edit"] }) {
  const { station } = props;
  return (
    <>
      <span
        aria-hidden="true"
        className={`h-0 w-5 ${station.outcome === "starts" ? "border-t-4 border-primary" : "border-t-2 border-base-content"}`}
      />
      <Box {...props} />
      {station.outcome === "starts" && (
        <svg viewBox="0 0 26 12" className="h-3 w-6 text-primary" aria-hidden="true">
          <path d="M0 6 H20" stroke="currentColor" strokeWidth="4" />
          <path d="M16 0 L26 6 L16 12 Z" fill="currentColor" />
        </svg>
      )}
    </>
  );
}

const LOOKS: Readonly<Record<Station["outcome"], string>> = {
  starts: "border-2 border-primary font-semibold",
  skipped: "border border-dotted border-base-content",
  fails: "border border-dashed border-base-content",
  returns: "border border-dashed border-base-content",
  hangs: "border-2 border-dashed border-error",
  "not reached": "border border-base-300 text-secondary",
};

function Box({ station, view, edit }: { station: Station; view: MomentView; edit: Props["edit"] }) {
  const [device] = station.devices;
  const single = station.devices.length === 1 && device !== undefined;
  const { name, outcome, once } = station;
  return (
    <button
      type="button"
      data-station={device ?? name}
      data-moment={view.moment}
      aria-label={`${view.title}: ${name}, ${once ? "once, " : ""}${outcome}`}
      className={`max-w-56 cursor-grab px-2 py-0.5 text-left ${LOOKS[outcome]}`}
      draggable={single}
      onDragStart={(e) => e.dataTransfer.setData("text/plain", device ?? "")}
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        const changes = device && droppedOn(view, e.dataTransfer.getData("text/plain"), device);
        if (changes) edit(changes);
      }}
    >
      {name}
      {once && <span className="quiet font-normal"> one-time</span>}
      {(outcome === "fails" || outcome === "skipped") && <span className="quiet"> ✕</span>}
    </button>
  );
}
