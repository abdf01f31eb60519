"use client";

import type { Typed } from "@/core/machine";
import { useKept } from "../draft/use-kept";
import { TextField } from "../fields/fields";
import { useMachine } from "./machine-draft";

type Decision = Typed["firmware"][number];

const DECISIONS = ["undecided", "postponed", "not wanted", "done"] as const;

/** Firmware that was looked at: installed, available, and what was decided, with a day for what is put off. */
export function FirmwareForm({ installed }: { installed: Record<string, string> }) {
  const machine = useMachine();
  const { firmware } = machine.document.typed;
  const set = (rows: Decision[]): void => machine.type({ "typed.firmware": rows });
  return (
    <div>
      {firmware.length > 0 && (
        <table className="table">
          <thead>
            <tr>
              <th>Part</th>
              <th>Installed</th>
              <th>Available</th>
              <th>Decision</th>
              <th>Due</th>
              <th>Reason</th>
            </tr>
          </thead>
          <tbody>
            {firmware.map((f) => (
              <DecisionRow
                key={f.part}
                row={f}
                installed={installed[f.part] ?? f.installed}
                put={(change) => set(firmware.map((o) => (o.part === f.part ? { ...o, ...change } : o)))}
              />
            ))}
          </tbody>
        </table>
      )}
      <LookedAt
        installed={installed}
        add={(row) => set([...firmware.filter((f) => f.part !== row.part), row])}
      />
    </div>
  );
}

function DecisionRow({
  row,
  installed,
  put,
}: {
  row: Decision;
  installed: string;
  put: (change: Partial<Decision>) => void;
}) {
  return (
    <tr>
      <td>{row.part}</td>
      <td className="value">{installed}</td>
      <td className="value">{row.available}</td>
      <td>
        <select
          className="select"
          aria-label={`Decision for ${row.part}`}
          value={row.decision}
          onChange={(e) => put({ decision: DECISIONS.find((d) => d === e.target.value) ?? row.decision })}
        >
          {DECISIONS.map((d) => (
            <option key={d}>{d}</option>
          ))}
        </select>
      </td>
      <td>
        {row.decision === "postponed" && (
          <input
            className="input"
            type="date"
            aria-label={`Due date of ${row.part}`}
            value={row.due ?? ""}
            onChange={(e) => put({ due: e.target.value || null })}
          />
        )}
      </td>
      <td>
        <input
          className="input"
          aria-label={`Reason for ${row.part}`}
          value={row.reason}
          maxLength={300}
          onChange={(e) => put({ reason: e.target.value })}
        />
      </td>
    </tr>
  );
}

/** Who looked at it, and when, is put in by the server. */
function LookedAt({ installed, add }: { installed: Record<string, string>; add: (row: Decision) => void }) {
  const [part, setPart] = useKept("firmware part", "system firmware");
  const [available, setAvailable] = useKept("firmware available", "");
  return (
    <form
      className="mt-2 grid items-end gap-4 sm:grid-cols-[1fr_10rem_auto]"
      onSubmit={(e) => {
        e.preventDefault();
        const own = { part: part.trim(), available: available.trim() };
        const open = { decision: "undecided", due: null, reason: "", by: "" } as const;
        const at = new Date().toISOString();
        add({ ...own, ...open, installed: installed[own.part] ?? "unknown", at });
        setAvailable("");
      }}
    >
      <TextField path="fw.part" label="Part" value={part} onChange={setPart} />
      <TextField path="fw.available" label="Available version" value={available} onChange={setAvailable} />
      <button type="submit" className="btn" disabled={part.trim() === "" || available.trim() === ""}>
        Check
      </button>
    </form>
  );
}
