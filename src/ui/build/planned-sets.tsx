"use client";

import dynamic from "next/dynamic";
import Link from "next/link";
import { useState } from "react";
import type { Drive } from "@/core/machine";
import {
  CACHES,
  chance,
  classOfDrives,
  dispositionOf,
  layoutOf,
  withNewSet,
  withoutSet,
  withSetLayout,
  type BenchCandidate,
  type PlannedSet,
  type PlanOfDrives,
  type SetView,
} from "@/core/storage";
import { formatDuration } from "@/core/units";
import { Field, ParsedField, SelectField, TextField } from "../fields/fields";
import { numberField } from "../fields/numbers";
import { Bays } from "../storage-bench/bays";
import { Ladder, Working } from "../storage-bench/figures";
import { SetBeside } from "./set-beside";
import { SetVolumes } from "./set-volumes";
import type { ZoneProps } from "./zone-props";
import { Size } from "../frame/person";

const SetBench = dynamic(() => import("./set-bench"), { loading: () => <p className="quiet">…</p> });

type Props = Pick<ZoneProps, "view" | "sheet" | "edit" | "marks"> & {
  drives: readonly Drive[];
  /** Those of which something could be made. */
  beside: readonly Drive[];
  change: (next: PlanOfDrives) => void;
};

/** What is made of the drives beside the target: pools, arrays, virtual drives, each with what follows from it. */
export function PlannedSets({ view, sheet, edit, marks, drives, beside, change }: Props) {
  const { storage } = sheet;
  const free = drives.filter((d) => dispositionOf(d, storage) === "free" && d.missingSince === null);
  const taken = (view.context.machine?.document.facts.sets ?? []).map((s) => s.name);
  const put = (set: PlannedSet): void =>
    edit({ "storage.sets": storage.sets.map((s) => (s.id === set.id ? set : s)) });
  const add = (of: readonly Drive[]): void =>
    change(
      withNewSet(
        storage,
        of.map((d) => d.id),
        taken,
      ),
    );
  return (
    <Field path="storage.sets" label="Additional arrays and pools" marks={marks("storage.sets")}>
      {storage.sets.map((set) => {
        const shown = view.sets.find((v) => v.id === set.id);
        return shown ? (
          <OneSet
            key={set.id}
            {...{ set, shown, put, change }}
            plan={storage}
            beside={beside}
            take={(layout, ids) => change(withSetLayout(storage, set.id, layout, ids))}
            drives={drives}
            build={view.build.id}
            remove={() => change(withoutSet(storage, set.id))}
          />
        ) : null;
      })}
      <p className="mt-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <button type="button" className="btn" onClick={() => add(free)}>
          {storage.sets.length > 0 ? "Add another array or pool" : "Add a pool, array or virtual drive"}
        </button>
        <span className="quiet">
          {free.length > 0
            ? `of the ${free.length} free ${free.length === 1 ? "drive" : "drives"}`
            : "no drive is free: set the use of a drive to free in the list above"}
        </span>
        {beside.length > Math.max(1, free.length) && (
          <button type="button" className="link" onClick={() => add(beside)}>
            Add one of all {beside.length} drives except the target
          </button>
        )}
      </p>
    </Field>
  );
}

interface SetProps {
  set: PlannedSet;
  shown: SetView;
  drives: readonly Drive[];
  build: string;
  plan: PlanOfDrives;
  beside: readonly Drive[];
  change: (next: PlanOfDrives) => void;
  put: (set: PlannedSet) => void;
  take: (layout: BenchCandidate["layout"], ids: readonly string[]) => void;
  remove: () => void;
}

function OneSet({ set, shown, drives, build, put, take, remove, plan, beside, change }: SetProps) {
  const layout = layoutOf(set);
  const nameOf = (place: number): string => shown.seats[place]?.place.replace(/^bay /, "") ?? String(place);
  return (
    <section aria-label={shown.title} className="mb-5 border-l-2 pl-3 border-base-content" data-set={set.id}>
      {shown.fault ? (
        <p className="text-[1.2rem] font-semibold text-error">
          The {shown.title}: {shown.fault}.
        </p>
      ) : (
        <Sentence shown={shown} />
      )}
      <SetFields set={set} put={put} />
      <div className="mt-2 space-y-2">
        {set.keeper === "ZFS" && <SetBeside {...{ set, plan, drives, beside, change }} />}
        <SetVolumes set={set} shown={shown.volumes} put={put} />
      </div>
      {layout.ok && shown.seats.length > 0 && (
        <div className="mt-3">
          <span className="label">Select a drive to simulate its failure.</span>
          <Bays
            key={`${shown.layout} ${set.members.join(" ")}`}
            layout={layout.value}
            sizes={shown.seats.map((s) => s.sizeBytes)}
            nameOf={nameOf}
          />
        </div>
      )}
      <Opened title="All layouts of these drives">
        <OtherLayouts {...{ set, shown, drives, take }} />
      </Opened>
      {shown.ladder.length > 0 && (
        <Opened title="Capacity breakdown">
          <Ladder candidate={shown} />
        </Opened>
      )}
      {shown.working && <Working candidate={shown.working} question={shown.working.question} />}
      <p className="mt-2 flex flex-wrap gap-x-4">
        <Link className="link" href={`/builds/${build}/commands`}>
          Commands that create it
        </Link>
        <button type="button" className="link" onClick={remove}>
          Remove from the plan and protect its drives
        </button>
      </p>
    </section>
  );
}

/** What follows from the layout, to be read from afar; below it what it is worth. */
const Sentence = ({ shown }: { shown: SetView }) => (
  <>
    <p className="max-w-[60ch] text-[1.2rem] leading-snug font-semibold" data-consequence>
      {`${shown.title[0]?.toUpperCase()}${shown.title.slice(1)}`}, {shown.layout}. {shown.sentence}
    </p>
    <p className="quiet">
      Raw <Size bytes={shown.rawBytes} />; probability of data loss in 5 years: {chance(shown.loss)}
      {shown.rebuildSeconds &&
        shown.worst > 0 &&
        `; rebuild of one drive: about ${formatDuration(shown.rebuildSeconds.likely)}, up to ${formatDuration(shown.rebuildSeconds.late)}`}
      .
    </p>
  </>
);

const USES = ["bulk files", "guests", "database", "backup"] as const;
const plain = <T extends string>(all: readonly T[]) => all.map((value) => ({ value, text: value }));
const terabytes = numberField(1e12, "a number of TB", (n) => n > 0 && n < 1e6);
const stripe = numberField(1, "KiB, 4 to 4096", (n) => Number.isInteger(n) && n >= 4 && n <= 4096);

/** Where no set is named yet, a field's path tells them apart. */
function SetFields({ set, put }: Pick<SetProps, "set" | "put">) {
  const path = (field: string): string => `storage.sets.${set.id}.${field}`;
  return (
    <div className="mt-2 grid gap-x-6 gap-y-2 sm:grid-cols-2 md:grid-cols-4">
      <TextField
        {...{ path: path("name"), label: "Name", value: set.name, maxLength: 60 }}
        onChange={(name) => put({ ...set, name })}
      />
      <SelectField
        {...{ path: path("use"), label: "Purpose", value: set.use, options: plain(USES) }}
        onChange={(use) => put({ ...set, use })}
      />
      <ParsedField
        {...{ path: path("dataBytes"), label: "Expected data, TB", value: set.dataBytes }}
        {...terabytes}
        onChange={(bytes) => put({ ...set, dataBytes: bytes === null ? null : Math.round(bytes) })}
      />
      <TextField
        {...{ path: path("later"), label: "Create later, on", value: set.later ?? "", type: "date" }}
        onChange={(day) => put({ ...set, later: day || null })}
      />
      {set.keeper !== "ZFS" && (
        <ParsedField
          {...{ path: path("stripeKib"), label: "Stripe size, KiB", value: set.stripeKib }}
          {...stripe}
          placeholder="default of the implementation"
          onChange={(stripeKib) => put({ ...set, stripeKib })}
        />
      )}
      {set.keeper === "RAID controller" && (
        <SelectField
          {...{ path: path("cache"), label: "Cache", value: set.cache, options: plain(CACHES) }}
          onChange={(cache) => put({ ...set, cache })}
        />
      )}
    </div>
  );
}

/** A part that is built only once somebody opens it. */
function Opened({ title, children }: { title: string; children: React.ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="mt-2" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="cursor-pointer">{title}</summary>
      {open && children}
    </details>
  );
}

/** The bench over the drives of the set. */
function OtherLayouts({ set, shown, drives, take }: Pick<SetProps, "set" | "shown" | "drives" | "take">) {
  const own = shown.seats.flatMap((s) => drives.find((d) => d.id === s.id) ?? []);
  const sector = own.length > 0 && own.every((d) => d.logicalSectorBytes === 4096) ? 4096 : 512;
  return own.length === 0 ? (
    <p className="quiet">It has no drives yet: assign drives in the list above.</p>
  ) : (
    <>
      <SetBench
        sizes={own.map((d) => d.sizeBytes)}
        asked={{ media: classOfDrives(own), use: set.use, sector }}
        layout={shown.layout}
        take={(layout) =>
          take(
            layout,
            own.map((d) => d.id),
          )
        }
      />
      {shown.bench && (
        <p>
          <Link className="link" href={`/bench?${shown.bench}`}>
            Plan storage with these drives
          </Link>{" "}
          <span className="quiet">with failure simulation, and a link that you can share</span>
        </p>
      )}
    </>
  );
}
