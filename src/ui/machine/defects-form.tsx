"use client";

import type { Typed } from "@/core/machine";
import { useKept } from "../draft/use-kept";
import { SelectField, TextField } from "../fields/fields";
import { useMachine } from "./machine-draft";

/** Known faults of the machine, shown beside every result that they may blur, until they are mended. */
export function DefectsForm({ today, by }: { today: string; by: string }) {
  const machine = useMachine();
  const { defects } = machine.document.typed;
  const set = (next: typeof defects): void => machine.type({ "typed.defects": next });
  const [what, setWhat] = useKept("defect", "");
  const [affects, setAffects] = useKept<Typed["defects"][number]["affects"]>("defect affects", "other");
  const kinds = ["power", "temperature", "memory", "drives", "network", "console", "other"] as const;
  return (
    <div>
      <ul>
        {defects.map((d) => (
          <li key={d.id} className="flex flex-wrap items-baseline gap-x-3 border-b py-1 border-base-300">
            <span className={d.mendedOn ? "line-through opacity-80" : "font-medium"}>{d.what}</span>
            <span className="quiet">
              affects {d.affects}, since {d.since}, {d.by}
              {d.mendedOn ? `; repaired on ${d.mendedOn}` : ""}
            </span>
            {!d.mendedOn && (
              <button
                type="button"
                className="link quiet ml-auto"
                onClick={() => set(defects.map((o) => (o.id === d.id ? { ...o, mendedOn: today } : o)))}
              >
                Repaired today
              </button>
            )}
          </li>
        ))}
      </ul>
      <form
        className="mt-2 grid items-end gap-4 sm:grid-cols-[1fr_9rem_auto]"
        onSubmit={(e) => {
          e.preventDefault();
          const id = `d${Date.now().toString(36)}`;
          set([...defects, { id, what, affects, since: today, by, mendedOn: null }]);
          setWhat("");
        }}
      >
        <TextField
          path="defect"
          label="Known defect"
          value={what}
          placeholder="fan 3 stops below 30 °C"
          onChange={setWhat}
        />
        <SelectField
          path="affects"
          label="Affects"
          value={affects}
          options={kinds.map((k) => ({ value: k, text: k }))}
          onChange={setAffects}
        />
        <button type="submit" className="btn" disabled={what.trim() === ""}>
          Add defect
        </button>
      </form>
    </div>
  );
}
