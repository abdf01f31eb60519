"use client";

import { useEffect, useState } from "react";
import { Slip } from "./dialog";
import { KEY_GROUPS } from "./keys";
import { useCharacter } from "./use-keys";

/** Every action has a key; this sheet shows them. */
export function KeySheet() {
  const [open, setOpen] = useState(false);
  useCharacter("?", () => setOpen(true));
  return (
    <>
      <LeaveField />
      <button
        type="button"
        data-keys
        className="cursor-pointer px-1 font-mono text-base font-semibold"
        aria-label="Keyboard shortcuts"
        title="Keyboard shortcuts"
        onClick={() => setOpen(true)}
      >
        ?
      </button>
      <Slip open={open} onClose={() => setOpen(false)} title="Keyboard shortcuts">
        <div className="grid gap-4 md:grid-cols-2">
          {KEY_GROUPS.map((group) => (
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
