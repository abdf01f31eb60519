"use client";

import { useEffect, useState } from "react";
import { Slip } from "./dialog";
import { useCharacter } from "./use-keys";

const GROUPS = [
  {
    title: "Everywhere",
    keys: [
      ["/", "find a machine, image, sheet, finding or step"],
      ["1 to 6", "open a drawer"],
      ["?", "this list"],
      ["Esc", "close a slip, leave a field"],
    ],
  },
  {
    title: "Where you write",
    keys: [
      ["U", "undo your last change"],
      ["Shift U", "make it again"],
    ],
  },
  {
    title: "Build sheet",
    keys: [
      ["A to K", "open or fold a zone"],
      ["]  [", "next and previous finding"],
      ["M", "margin, in a narrow window"],
      ["P", "into the picture of the start, in zone C"],
      ["X", "the main action of the title block"],
    ],
  },
  {
    title: "Picture of the start",
    keys: [
      ["arrows", "to the next device, or moment"],
      ["Shift ← →", "earlier or later in the order, for good"],
      ["O", "the medium once, or for good"],
      ["L", "UEFI or legacy"],
      ["S", "secure boot on or off"],
      ["W", "the next way to the machine"],
    ],
  },
  {
    title: "Machine",
    keys: [
      ["F  R", "into the front or the rear drawing"],
      ["arrows", "to the next bay, port or controller"],
      ["Enter", "its card into the margin"],
      ["Esc", "close the card"],
    ],
  },
  {
    title: "Run",
    keys: [
      ["Enter", "as expected"],
      ["D", "differs"],
      ["N", "note"],
      ["R", "reading"],
      ["S", "skip this step, with its reason"],
      ["T", "start the timer again"],
      ["C", "copy the first value to type"],
      ["L", "log"],
    ],
  },
] as const;

/** Every action has a key; this sheet shows them. */
export function KeySheet() {
  const [open, setOpen] = useState(false);
  useCharacter("?", () => setOpen(true));
  return (
    <>
      <LeaveField />
      <button
        type="button"
        className="cursor-pointer px-1 font-mono text-base font-semibold"
        aria-label="Keys"
        title="Keys"
        onClick={() => setOpen(true)}
      >
        ?
      </button>
      <Slip open={open} onClose={() => setOpen(false)} title="Keys">
        <div className="grid gap-4 sm:grid-cols-2">
          {GROUPS.map((group) => (
            <section key={group.title}>
              <h3 className="label mb-1">{group.title}</h3>
              <dl className="grid grid-cols-[5rem_1fr] gap-y-1">
                {group.keys.map(([key, what]) => (
                  <div key={key} className="contents">
                    <dt>
                      <span className="kbd">{key}</span>
                    </dt>
                    <dd>{what}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
        </div>
      </Slip>
    </>
  );
}

/** Escape leaves a field of the sheet, so that the keys are those of the sheet again; a slip takes its own Escape. */
function LeaveField() {
  useEffect(() => {
    const leave = (e: KeyboardEvent): void => {
      const { activeElement } = document;
      const inSlip = activeElement?.closest("dialog") !== null;
      if (e.key === "Escape" && !inSlip && activeElement instanceof HTMLElement) activeElement.blur();
    };
    addEventListener("keydown", leave);
    return () => removeEventListener("keydown", leave);
  }, []);
  return null;
}
