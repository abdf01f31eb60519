"use client";

import { term } from "@/core/text";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useState } from "react";
import { LAYOUTS } from "@/core/image";
import { presentDrives, visibleDrives, type Drive } from "@/core/machine";
import {
  benchQuery,
  dispositionOf,
  FATES,
  roleIn,
  SEAT_ROLES,
  setName,
  setOf,
  withFate,
  withLayout,
  withSeat,
  type ConsentView,
  type PlanOfDrives,
  type StorageSlice,
} from "@/core/storage";
import { formatBinaryBytes } from "@/core/units";
import { FigureValue } from "../fields/figure-value";
import { Unfold } from "../fields/unfold";
import { Field, SelectField } from "../fields/fields";
import { TypedProof } from "../fields/typed-proof";
import { foldAlike } from "./alike-drives";
import { DriveRack, type FateChoice } from "./drive-rack";
import { TargetParts } from "./target-parts";
import type { ZoneProps } from "./zone-props";
import { Day } from "../frame/person";

/** Loaded once zone D stands open: its figures are more than a sheet needs at first. */
const PlannedSets = dynamic(() => import("./planned-sets").then((m) => m.PlannedSets), {
  ssr: false,
  // As high as it is while nothing is planned, so that the sheet does not jump.
  loading: () => <div className="h-[4.3rem]" />,
});

const FATE_CHOICES: readonly FateChoice[] = [
  { value: "target", text: "target", title: "Installation target; its contents are erased" },
  { value: "spare", text: "spare", title: "Hot spare of the target; its contents are erased" },
  { value: "leave alone", text: "protected", title: "Must not be written" },
  { value: "free", text: "free", title: "Available for later; not touched by the installation" },
];

/** How the choices are called that make a drive part of a set. */
const CHOICE_OF = { member: "set", spare: "by", special: "special", log: "log", cache: "cache" } as const;

/** What a drive can become on this sheet: of the target, one of a planned set, or none of them. */
function choicesOf(drive: Drive, { layout, sets }: StorageSlice): FateChoice[] {
  return [
    ...FATE_CHOICES.filter((f) => f.value !== "spare" || layout !== "single drive"),
    // What a controller shows as one drive is no drive to make a set of.
    ...(drive.presentedBy === null ? sets : []).flatMap((set) => [
      { value: `set ${set.id}`, text: set.name || `set ${set.id}`, title: `A member of the ${setName(set)}` },
      { value: `by ${set.id}`, text: "its spare", title: `Hot spare of the ${setName(set)}` },
      // What it is beside the data is chosen at the set; here it is only shown.
      ...(["special", "log", "cache"] as const)
        .filter((role) => roleIn(set, drive.id) === role)
        .map((role) => ({
          ...{ value: `${role} ${set.id}`, text: `its ${role}` },
          title: `A ${role} device of the ${setName(set)}`,
        })),
    ]),
  ];
}

function fateOf(drive: Drive, storage: StorageSlice): string {
  const set = setOf(drive, storage);
  if (set) return `${CHOICE_OF[roleIn(set, drive.id) ?? "member"]} ${set.id}`;
  const isSpare = storage.partners.some((p) => p.drive === drive.id && p.role === "spare");
  return isSpare ? "spare" : dispositionOf(drive, storage);
}

/** The plan once a drive has been given one of the choices. */
function given(storage: StorageSlice, drive: string, choice: string): PlanOfDrives {
  const [, name, set] = /^(set|by|special|log|cache) (.+)$/.exec(choice) ?? [];
  const role = SEAT_ROLES.find((r) => CHOICE_OF[r] === name);
  if (set && role) return withSeat(storage, drive, set, role);
  const fate = FATES.find((f) => f === choice);
  return withFate(storage, drive, fate ?? "leave alone");
}

/** Whether a set could be made of a drive: it is there, is a drive of its own, and belongs to nothing on this sheet. */
const canBeSeated = (drive: Drive, storage: StorageSlice): boolean =>
  ["free", "leave alone", "undecided"].includes(dispositionOf(drive, storage)) &&
  drive.missingSince === null &&
  !drive.removable &&
  drive.presentedBy === null;

export function StorageZone({ view, sheet, edit, marks, agree }: ZoneProps) {
  const read = view.context.machine?.document.facts;
  const facts = read && { ...read, drives: [...read.drives, ...view.made] };
  const seen = new Set(facts ? visibleDrives(facts) : []);
  // A drive that is gone stays in sight; members behind a controller are on no installer's list.
  const drives = (facts?.drives ?? []).filter((d) => seen.has(d) || d.missingSince !== null);
  const { storage } = sheet;
  const hidden = facts ? presentDrives(facts).filter((d) => !seen.has(d)) : [];
  const beside = (facts?.drives ?? []).filter((d) => canBeSeated(d, storage));
  const isErased = (drive: { id: string }, plan: PlanOfDrives = storage): boolean =>
    ["target", "set"].includes(dispositionOf(drive, plan));
  const change = (next: PlanOfDrives): void =>
    edit({
      "storage.target": next.target,
      "storage.partners": next.partners,
      "storage.layout": next.layout,
      "storage.leaveAlone": next.leaveAlone,
      "storage.free": next.free,
      "storage.sets": next.sets,
      // A consent ends with the choice that it was given for.
      "storage.erase": storage.erase.filter((c) => isErased({ id: c.drive }, next)),
    });
  const asked = new Set(view.consents.filter((c) => !c.given?.holds).map((c) => c.drive));
  const { shown, alike } = foldAlike(drives, (d) => fateOf(d, storage) === "leave alone");
  const rack = {
    among: drives,
    choices: (d: Drive) => choicesOf(d, storage),
    fateOf: (d: Drive) => fateOf(d, storage),
    isErased,
    hidesSerial: (d: Drive) => asked.has(d.id),
    onFate: (d: Drive, choice: string) => change(given(storage, d.id, choice)),
  };
  if (drives.length === 0)
    return <p className="quiet">The drives appear here once hardware data is imported.</p>;
  return (
    <div className="space-y-3">
      <TargetLayout {...{ view, storage, marks, change }} />
      <Field
        path="storage.target"
        label="Drives of this machine"
        marks={[...marks("storage.target"), ...marks("storage.leaveAlone")]}
      >
        <div data-field="storage.leaveAlone">
          {shown.length > 0 && <DriveRack drives={shown} {...rack} />}
          {alike.map(({ key, words, drives: members }) => (
            <Unfold key={key} title={words}>
              <DriveRack drives={members} {...rack} />
            </Unfold>
          ))}
        </div>
      </Field>
      <HiddenDrives
        drives={hidden}
        storage={storage}
        asked={asked}
        onFate={(d, choice) => change(given(storage, d.id, choice))}
      />
      {view.partitions && (
        <TargetParts
          plan={view.partitions}
          swap={storage.swap}
          marks={marks("storage.swap")}
          onSwap={(swap) => edit({ "storage.swap": swap })}
        />
      )}
      {view.cache && (
        <p>
          <span className="quiet">The ZFS cache (ARC) uses up to </span>
          <FigureValue text={formatBinaryBytes(view.cache.mostBytes)} figure={view.cache.figure} />
          <span className="quiet">
            of memory; {formatBinaryBytes(view.cache.leftBytes)} remain for the system
            {view.context.profile?.requirements.virtualisation === "required" ? " and its guests" : ""}
          </span>
        </p>
      )}
      <BenchLink drives={drives} />
      {(storage.sets.length > 0 || beside.length > 0) && (
        <PlannedSets {...{ view, sheet, edit, marks, change, beside }} drives={facts?.drives ?? []} />
      )}
      {view.consents.map((consent) => (
        <EraseConsent
          key={consent.drive}
          consent={consent}
          onAgree={(typed) => agree(consent.drive, typed)}
          onTakeBack={() => edit({ "storage.erase": storage.erase.filter((c) => c.drive !== consent.drive) })}
        />
      ))}
    </div>
  );
}

/** Drives behind a controller, which no installer lists: a set can be made of them in its set-up pages. */
function HiddenDrives({
  drives,
  storage,
  asked,
  onFate,
}: {
  drives: readonly Drive[];
  storage: StorageSlice;
  asked: ReadonlySet<string>;
  onFate: (drive: Drive, choice: string) => void;
}) {
  if (drives.length === 0) return null;
  const isSeated = drives.some((d) => setOf(d, storage));
  return (
    <details open={isSeated}>
      <summary className="cursor-pointer">
        {drives.length} {drives.length === 1 ? "drive" : "drives"} behind a controller
      </summary>
      <DriveRack
        drives={[...drives]}
        choices={(d) => choicesOf(d, storage).filter((c) => /^(leave alone|set .+|by .+)$/.test(c.value))}
        // Nothing reaches them through the installer, so what is not said of them is that they stay.
        fateOf={(d) => (setOf(d, storage) ? fateOf(d, storage) : "leave alone")}
        isErased={(d) => setOf(d, storage) !== undefined}
        hidesSerial={(d) => asked.has(d.id)}
        onFate={onFate}
      />
    </details>
  );
}

/** How the drives of the target stand together, where the installer offers more than one way. */
function TargetLayout({
  view,
  storage,
  marks,
  change,
}: Pick<ZoneProps, "view" | "marks"> & { storage: StorageSlice; change: (next: PlanOfDrives) => void }) {
  const offered = view.context.profile?.layouts ?? LAYOUTS;
  if (offered.length < 2 && storage.layout === "single drive") return null;
  return (
    <SelectField
      path="storage.layout"
      label="Target layout"
      marks={marks("storage.layout")}
      value={storage.layout}
      options={[...new Set([...offered, storage.layout])].map((l) => ({ value: l, text: term(l) }))}
      onChange={(chosen) => {
        const layout = LAYOUTS.find((l) => l === chosen);
        if (layout) change(withLayout(storage, layout));
      }}
    />
  );
}

/** The same drives on the bench: every layout of them, with what may fail and what can be used. */
function BenchLink({ drives }: { drives: readonly Drive[] }) {
  const query = benchQuery(drives);
  return query && drives.length > 1 ? (
    <p>
      <Link className="link" href={`/bench?${query}`}>
        Plan storage with these drives
      </Link>{" "}
      <span className="quiet">compare usable capacity and fault tolerance of all layouts</span>
    </p>
  ) : null;
}

/** A person agrees to lose what stands on a drive by typing what only the drive, its label or a console tells. */
function EraseConsent({
  consent: { look, holds, asks, given },
  onAgree,
  onTakeBack,
}: {
  consent: ConsentView;
  onAgree: (typed: string) => Promise<void>;
  onTakeBack: () => void;
}) {
  const [typed, setTyped] = useState("");
  if (given?.holds)
    return (
      <p className="border-l-2 pl-2 border-warning">
        Erase confirmed {look} ({holds}) – {given.by}, <Day at={given.at} />.{" "}
        <button type="button" className="link" onClick={onTakeBack}>
          Revoke
        </button>
      </p>
    );
  return (
    <form
      className="flex flex-wrap items-end gap-3 border-l-2 pl-2 border-error"
      onSubmit={async (e) => {
        e.preventDefault();
        await onAgree(typed);
        setTyped("");
      }}
    >
      <div className="w-full">
        <strong>{look}</strong>: {holds}
        {given && (
          <p className="text-error">
            {given.by} confirmed on <Day at={given.at} />; no longer valid, because the contents of the drive
            have changed{given.was ? ` (was: ${given.was})` : ""}.
          </p>
        )}
      </div>
      <label className="min-w-48 flex-1">
        <span className="label">To confirm erasing this drive, type {asks}</span>
        <TypedProof value={typed} onChange={setTyped} label={`Confirm erasing ${look}`} className="input" />
      </label>
      <button type="submit" className="btn" disabled={typed.trim() === ""}>
        Confirm erase
      </button>
    </form>
  );
}
