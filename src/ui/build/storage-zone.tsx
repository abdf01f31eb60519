"use client";

import { useState } from "react";
import { driveName, serialTail, visibleDrives, type Drive } from "@/core/machine";
import { Field } from "../fields/fields";
import { DriveRack } from "./drive-rack";
import type { ZoneProps } from "./zone-props";

const without = (list: readonly string[], id: string): string[] => list.filter((x) => x !== id);

export function StorageZone({ view, sheet, edit, marks, hand }: ZoneProps & { hand: string }) {
  const facts = view.context.machine?.document.facts;
  const seen = new Set(facts ? visibleDrives(facts) : []);
  // A drive that is gone stays in sight; members behind a controller are on no installer's list.
  const drives = (facts?.drives ?? []).filter((d) => seen.has(d) || d.missingSince !== null);
  const { target, leaveAlone, free, erase } = sheet.storage;
  const fateOf = (d: Drive) =>
    d.id === target
      ? "target"
      : leaveAlone.includes(d.id)
        ? "leave alone"
        : free.includes(d.id)
          ? "free"
          : "undecided";
  const onFate = (d: Drive, fate: "target" | "leave alone" | "free") => {
    const others = { "storage.leaveAlone": without(leaveAlone, d.id), "storage.free": without(free, d.id) };
    // A drive that stops being the target goes back to the safe list.
    if (fate === "target")
      edit({
        "storage.target": d.id,
        "storage.free": others["storage.free"],
        "storage.leaveAlone":
          target && target !== d.id
            ? [...others["storage.leaveAlone"], target]
            : others["storage.leaveAlone"],
        "storage.erase": null,
      });
    else {
      const list = fate === "leave alone" ? "storage.leaveAlone" : "storage.free";
      edit({
        ...(target === d.id && { "storage.target": null, "storage.erase": null }),
        ...others,
        [list]: [...others[list], d.id],
      });
    }
  };
  const chosen = drives.find((d) => d.id === target);
  const holds = chosen && (chosen.contents.length > 0 || chosen.memberOf.length > 0);
  if (drives.length === 0)
    return <p className="quiet">The drives appear here once the machine has been read.</p>;
  return (
    <div className="space-y-3">
      <Field
        path="storage.target"
        label="Drives of this machine"
        marks={[...marks("storage.target"), ...marks("storage.leaveAlone")]}
      >
        <div data-field="storage.leaveAlone">
          <DriveRack drives={drives} fateOf={fateOf} onFate={onFate} />
        </div>
      </Field>
      {chosen && holds && (
        <EraseConsent
          key={chosen.id}
          drive={chosen}
          agreed={erase?.drive === chosen.id ? `${erase.by}, ${erase.at.slice(0, 10)}` : null}
          onAgree={(tail) =>
            edit({ "storage.erase": { drive: chosen.id, tail, by: hand, at: new Date().toISOString() } })
          }
          onTakeBack={() => edit({ "storage.erase": null })}
        />
      )}
    </div>
  );
}

function EraseConsent({
  drive,
  agreed,
  onAgree,
  onTakeBack,
}: {
  drive: Drive;
  agreed: string | null;
  onAgree: (tail: string) => void;
  onTakeBack: () => void;
}) {
  const [typed, setTyped] = useState("");
  const wanted = serialTail(drive) || String(drive.sizeBytes);
  if (agreed)
    return (
      <p className="border-l-2 pl-2" style={{ borderColor: "var(--color-warning)" }}>
        Agreed to erase {driveName(drive)} – {agreed}.{" "}
        <button type="button" className="link-quiet" onClick={onTakeBack}>
          take back
        </button>
      </p>
    );
  return (
    <form
      className="flex flex-wrap items-end gap-3 border-l-2 pl-2"
      style={{ borderColor: "var(--color-error)" }}
      onSubmit={(e) => {
        e.preventDefault();
        if (typed.trim() === wanted) onAgree(wanted);
      }}
    >
      <label className="min-w-48 flex-1">
        <span className="legend">
          To agree that it is erased, write{" "}
          {serialTail(drive) ? `the tail of its serial` : "its size in bytes"}
        </span>
        <input
          className="pen"
          value={typed}
          placeholder={wanted}
          autoComplete="off"
          onChange={(e) => setTyped(e.target.value)}
          aria-label="Tail of the serial, to agree"
        />
      </label>
      <button type="submit" className="stamp" disabled={typed.trim() !== wanted}>
        Agree to erase
      </button>
    </form>
  );
}
