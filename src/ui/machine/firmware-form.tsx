"use client";

import { useState } from "react";
import type { Typed } from "@/core/machine";
import { TextField } from "../fields/fields";
import { Problems } from "../frame/problems";
import { useSave, type SaveTyped } from "./save-typed";

type Decision = Typed["firmware"][number];

/** Firmware that was looked at: installed, available, and what was decided, with a day for what is put off. */
export function FirmwareForm({
  typed,
  installed,
  by,
  save,
}: {
  typed: Typed;
  installed: Record<string, string>;
  by: string;
  save: SaveTyped;
}) {
  const { problems, keep } = useSave(save);
  const [part, setPart] = useState("system firmware");
  const [available, setAvailable] = useState("");
  const put = (row: Decision, change: Partial<Decision>) =>
    keep({
      firmware: typed.firmware.map((f) =>
        f.part === row.part ? { ...f, ...change, by, at: new Date().toISOString() } : f,
      ),
    });
  return (
    <div>
      {typed.firmware.length > 0 && (
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
            {typed.firmware.map((f) => (
              <tr key={f.part}>
                <td>{f.part}</td>
                <td className="value">{installed[f.part] ?? f.installed}</td>
                <td className="value">{f.available}</td>
                <td>
                  <select
                    className="select"
                    aria-label={`Decision about ${f.part}`}
                    value={f.decision}
                    onChange={(e) => void put(f, { decision: e.target.value as Decision["decision"] })}
                  >
                    {["undecided", "postponed", "not wanted", "done"].map((d) => (
                      <option key={d}>{d}</option>
                    ))}
                  </select>
                </td>
                <td>
                  {f.decision === "postponed" && (
                    <input
                      className="input"
                      type="date"
                      aria-label={`Day for ${f.part}`}
                      value={f.due ?? ""}
                      onChange={(e) => void put(f, { due: e.target.value || null })}
                    />
                  )}
                </td>
                <td>
                  <input
                    className="input"
                    aria-label={`Reason for ${f.part}`}
                    defaultValue={f.reason}
                    maxLength={300}
                    onBlur={(e) => e.target.value !== f.reason && void put(f, { reason: e.target.value })}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <form
        className="mt-2 grid items-end gap-4 sm:grid-cols-[1fr_10rem_auto]"
        onSubmit={async (e) => {
          e.preventDefault();
          const row: Decision = {
            part: part.trim(),
            installed: installed[part.trim()] ?? "not known",
            available: available.trim(),
            decision: "undecided",
            due: null,
            reason: "",
            by,
            at: new Date().toISOString(),
          };
          if (await keep({ firmware: [...typed.firmware.filter((f) => f.part !== row.part), row] }))
            setAvailable("");
        }}
      >
        <TextField path="fw.part" label="Part" value={part} onChange={setPart} />
        <TextField path="fw.available" label="Available version" value={available} onChange={setAvailable} />
        <button type="submit" className="btn" disabled={part.trim() === "" || available.trim() === ""}>
          Look at it
        </button>
      </form>
      <Problems problems={problems} />
    </div>
  );
}
