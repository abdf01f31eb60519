"use client";

import type { Typed } from "@/core/machine";
import { useKept } from "../draft/use-kept";
import { TextField } from "../fields/fields";
import { useMachine } from "./machine-draft";

/** What is due on a day: restore drills, self-tests, parts to be swapped. It stands on the first page, too. */
export function DatesForm({ today, by }: { today: string; by: string }) {
  const machine = useMachine();
  const { dates } = machine.document.typed;
  const [what, setWhat] = useKept("date what", "");
  const [due, setDue] = useKept("date due", "");
  const put = (id: string, change: Partial<Typed["dates"][number]>) =>
    machine.type({ "typed.dates": dates.map((d) => (d.id === id ? { ...d, ...change } : d)) });
  return (
    <div>
      <ul>
        {dates
          .toSorted((a, b) => a.due.localeCompare(b.due))
          .map((d) => (
            <li key={d.id} className="flex flex-wrap items-baseline gap-x-3 border-b py-1 border-base-300">
              <span className="value">{d.due}</span>
              <span className={d.doneOn ? "line-through opacity-80" : "font-medium"}>{d.what}</span>
              <span className="quiet">
                {d.by}
                {d.doneOn ? `; done on ${d.doneOn}` : d.due < today ? "; overdue" : ""}
              </span>
              {!d.doneOn && (
                <button
                  type="button"
                  className="link quiet ml-auto"
                  onClick={() => put(d.id, { doneOn: today })}
                >
                  Done today
                </button>
              )}
            </li>
          ))}
      </ul>
      <form
        className="mt-2 grid items-end gap-4 sm:grid-cols-[1fr_10rem_auto]"
        onSubmit={(e) => {
          e.preventDefault();
          const id = `t${Date.now().toString(36)}`;
          machine.type({ "typed.dates": [...dates, { id, what, due, doneOn: null, by }] });
          setWhat("");
        }}
      >
        <TextField
          path="date.what"
          label="Task"
          value={what}
          placeholder="restore drill"
          onChange={setWhat}
        />
        <TextField path="date.due" label="Due date" type="date" value={due} onChange={setDue} />
        <button type="submit" className="btn" disabled={what.trim() === "" || due === ""}>
          Add date
        </button>
      </form>
    </div>
  );
}
