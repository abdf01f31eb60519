"use client";

import { useState } from "react";
import { Slip } from "./dialog";

/** Whose hand draws: the name that stands under every change, waiver and step. */
export function HandName({ hand, setHand }: { hand: string; setHand: (name: string) => Promise<void> }) {
  const [open, setOpen] = useState(false);
  const [name, setName] = useState(hand);
  return (
    <>
      <button
        type="button"
        className="link hidden text-[0.93rem] sm:inline"
        onClick={() => setOpen(true)}
        title="The name under your changes"
      >
        {hand}
      </button>
      <Slip open={open} onClose={() => setOpen(false)} title="Whose hand is it?">
        <form
          onSubmit={async (e) => {
            e.preventDefault();
            await setHand(name);
            setOpen(false);
          }}
        >
          <p className="mb-3">This name stands under your changes, waivers and steps, and in the record.</p>
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
          <button type="submit" className="btn btn-primary mt-4">
            Use this name
          </button>
        </form>
      </Slip>
    </>
  );
}
