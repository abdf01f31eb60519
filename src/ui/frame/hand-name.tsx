"use client";

import { useState } from "react";
import { ChoiceField } from "../fields/fields";
import type { Units } from "./units";
import { Slip } from "./dialog";

const UNIT_WORDS = [
  { value: "both", text: "480 GB (447 GiB)" },
  { value: "decimal", text: "480 GB" },
  { value: "binary", text: "447 GiB" },
] as const;

/** Whose hand draws: the name that stands under every change, waiver and step. */
export function HandName({
  hand,
  units: present,
  setHand,
}: {
  hand: string;
  units: Units;
  setHand: (name: string, units: Units) => Promise<void>;
}) {
  const [open, setOpen] = useState(false);
  const [name, setName] = useState(hand);
  const [units, setUnits] = useState(present);
  return (
    <>
      <button
        type="button"
        className="link hidden text-[0.93rem] sm:inline"
        onClick={() => setOpen(true)}
        title="Name for your changes"
      >
        {hand}
      </button>
      <Slip open={open} onClose={() => setOpen(false)} title="Your name">
        <form
          onSubmit={async (e) => {
            e.preventDefault();
            await setHand(name, units);
            setOpen(false);
          }}
        >
          <p className="mb-3">
            Your name is saved with your changes, waivers and run steps, and appears in the handover record.
          </p>
          <label className="block">
            <span className="label">Name or initials</span>
            <input
              autoFocus
              className="input"
              value={name}
              maxLength={60}
              onChange={(e) => setName(e.target.value)}
            />
          </label>
          <div className="mt-3">
            <ChoiceField
              path="units"
              label="Units of size"
              value={units}
              options={UNIT_WORDS}
              onChange={setUnits}
              hint="Tooltips, printouts, findings and steps always show both units."
            />
          </div>
          <button type="submit" className="btn btn-primary mt-4">
            Save
          </button>
        </form>
      </Slip>
    </>
  );
}
