"use client";

import Link from "next/link";
import { useState } from "react";
import { LAYOUTS } from "@/core/image";
import { visibleDrives, type Drive } from "@/core/machine";
import { benchQuery, dispositionOf, withFate, withLayout, type ConsentView, type Fate } from "@/core/storage";
import { Field, SelectField } from "../fields/fields";
import { TypedProof } from "../fields/typed-proof";
import { DriveRack } from "./drive-rack";
import type { ZoneProps } from "./zone-props";

export function StorageZone({ view, sheet, edit, marks, agree }: ZoneProps) {
  const facts = view.context.machine?.document.facts;
  const seen = new Set(facts ? visibleDrives(facts) : []);
  // A drive that is gone stays in sight; members behind a controller are on no installer's list.
  const drives = (facts?.drives ?? []).filter((d) => seen.has(d) || d.missingSince !== null);
  const { storage } = sheet;
  const change = (next: ReturnType<typeof withFate>): void =>
    edit({
      "storage.target": next.target,
      "storage.partners": next.partners,
      "storage.layout": next.layout,
      "storage.leaveAlone": next.leaveAlone,
      "storage.free": next.free,
      // A consent ends with the choice that it was given for.
      "storage.erase": storage.erase.filter((c) => dispositionOf({ id: c.drive }, next) === "target"),
    });
  const fateOf = (d: Drive): Fate | "undecided" =>
    storage.partners.some((p) => p.drive === d.id && p.role === "spare")
      ? "spare"
      : dispositionOf(d, storage);
  const asked = new Set(view.consents.filter((c) => !c.given?.holds).map((c) => c.drive));
  const offered = view.context.profile?.layouts ?? LAYOUTS;
  if (drives.length === 0)
    return <p className="quiet">The drives appear here once the machine has been read.</p>;
  return (
    <div className="space-y-3">
      {(offered.length > 1 || storage.layout !== "single drive") && (
        <SelectField
          path="storage.layout"
          label="The system stands on"
          marks={marks("storage.layout")}
          value={storage.layout}
          options={[...new Set([...offered, storage.layout])].map((l) => ({ value: l, text: l }))}
          onChange={(chosen) => {
            const layout = LAYOUTS.find((l) => l === chosen);
            if (layout) change(withLayout(storage, layout));
          }}
        />
      )}
      <Field
        path="storage.target"
        label="Drives of this machine"
        marks={[...marks("storage.target"), ...marks("storage.leaveAlone")]}
      >
        <div data-field="storage.leaveAlone">
          <DriveRack
            drives={drives}
            fateOf={fateOf}
            withSpares={storage.layout !== "single drive"}
            hidesSerial={(d) => asked.has(d.id)}
            onFate={(d, fate) => change(withFate(storage, d.id, fate))}
          />
        </div>
      </Field>
      <BenchLink drives={drives} />
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

/** The same drives on the bench: every layout of them, with what may fail and what can be used. */
function BenchLink({ drives }: { drives: readonly Drive[] }) {
  const query = benchQuery(drives);
  return query && drives.length > 1 ? (
    <p>
      <Link className="link" href={`/bench?${query}`}>
        These drives on the bench
      </Link>{" "}
      <span className="quiet">every layout of them, with what may fail and what can be used</span>
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
        Agreed to erase {look} ({holds}) – {given.by}, {given.at.slice(0, 10)}.{" "}
        <button type="button" className="link" onClick={onTakeBack}>
          take back
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
            {given.by} agreed on {given.at.slice(0, 10)}; that has ended, since what stands on the drive has
            changed{given.was ? ` (it was: ${given.was})` : ""}.
          </p>
        )}
      </div>
      <label className="min-w-48 flex-1">
        <span className="label">To agree that it is erased, type {asks}</span>
        <TypedProof value={typed} onChange={setTyped} label={`To agree to erase ${look}`} className="input" />
      </label>
      <button type="submit" className="btn" disabled={typed.trim() === ""}>
        Agree to erase
      </button>
    </form>
  );
}
