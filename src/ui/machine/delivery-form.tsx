"use client";

import { useState } from "react";
import type { DeliveryLine, Expected, Typed } from "@/core/machine";
import { formatBinaryBytes, formatDecimalBytes, parseByteSize } from "@/core/units";
import { ParsedField, TextField } from "../fields/fields";
import { Problems } from "../frame/problems";
import { useSave, type SaveTyped } from "./save-typed";

const EMPTY: Expected = {
  from: "",
  model: null,
  serial: null,
  cores: null,
  memoryBytes: null,
  memoryModules: null,
  ports: null,
  drives: [],
};

const whole = {
  format: (n: number | null) => (n === null ? "" : String(n)),
  parse: (t: string): { value: number | null } | { problem: string } =>
    t.trim() === ""
      ? { value: null }
      : /^\d{1,5}$/.test(t.trim())
        ? { value: Number(t) }
        : { problem: "a whole number" },
};

const bytes = {
  format: (n: number | null) => (n === null ? "" : formatBinaryBytes(n)),
  parse(t: string): { value: number | null } | { problem: string } {
    if (t.trim() === "") return { value: null };
    const read = parseByteSize(t);
    return read.ok ? { value: read.value } : { problem: read.problems[0]?.message ?? "a size" };
  },
};

/** "10 x 12 TB Caldbeck": one kind of drive a line. */
const drives = {
  format: (all: Expected["drives"]) =>
    all
      .map((d) => `${d.count} x ${formatDecimalBytes(d.sizeBytes)}${d.model ? ` ${d.model}` : ""}`)
      .join(", "),
  parse(t: string): { value: Expected["drives"] } | { problem: string } {
    const found: Expected["drives"] = [];
    for (const part of t
      .split(/[\n,]/)
      .map((p) => p.trim())
      .filter(Boolean)) {
      const read = /^(\d+)\s*[x×]\s*([\d.]+\s*[kMGTP]i?B)\s*(.*)$/i.exec(part);
      const size = read ? parseByteSize(read[2] ?? "") : null;
      if (!read || !size?.ok)
        return { problem: `"${part}" is not read; write 10 x 12 TB, and the model behind it` };
      found.push({ count: Number(read[1]), sizeBytes: size.value, model: read[3] ?? "" });
    }
    return { value: found };
  },
};

/** What the delivery note says beside what the machine says; the two are never mixed. */
export function DeliveryForm({
  typed,
  lines,
  save,
}: {
  typed: Typed;
  lines: DeliveryLine[];
  save: SaveTyped;
}) {
  const { problems, keep } = useSave(save);
  const [note, setNote] = useState<Expected>(typed.expected ?? EMPTY);
  const set = (part: Partial<Expected>) => setNote({ ...note, ...part });
  const changed = JSON.stringify(note) !== JSON.stringify(typed.expected ?? EMPTY);
  return (
    <div>
      {lines.length > 0 && (
        <table className="table mb-3" aria-label="Delivery note and machine">
          <thead>
            <tr>
              <th>What</th>
              <th>Expected</th>
              <th>Observed</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            {lines.map((l) => (
              <tr key={l.what}>
                <td>{l.what}</td>
                <td className="value">{l.expected}</td>
                <td className="value">{l.observed}</td>
                <td
                  className={l.verdict === "differs" ? "font-semibold" : "quiet"}
                  style={l.verdict === "differs" ? { color: "var(--color-error)" } : undefined}
                >
                  {l.verdict}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void keep({ expected: note });
        }}
      >
        <div className="grid gap-x-8 gap-y-3 sm:grid-cols-4">
          <TextField
            path="d.from"
            label="Delivery note"
            value={note.from}
            placeholder="number, day"
            onChange={(from) => set({ from })}
          />
          <TextField
            path="d.model"
            label="Model"
            value={note.model ?? ""}
            onChange={(model) => set({ model: model || null })}
          />
          <TextField
            path="d.serial"
            label="Serial"
            value={note.serial ?? ""}
            onChange={(serial) => set({ serial: serial || null })}
          />
          <ParsedField
            path="d.cores"
            label="Cores"
            value={note.cores}
            {...whole}
            onChange={(cores) => set({ cores })}
          />
          <ParsedField
            path="d.memory"
            label="Memory"
            value={note.memoryBytes}
            {...bytes}
            placeholder="256 GiB"
            onChange={(memoryBytes) => set({ memoryBytes })}
          />
          <ParsedField
            path="d.modules"
            label="Memory modules"
            value={note.memoryModules}
            {...whole}
            onChange={(memoryModules) => set({ memoryModules })}
          />
          <ParsedField
            path="d.ports"
            label="Network ports"
            value={note.ports}
            {...whole}
            onChange={(ports) => set({ ports })}
          />
          <ParsedField
            path="d.drives"
            label="Drives"
            value={note.drives}
            {...drives}
            placeholder="10 x 12 TB, 1 x 240 GB"
            onChange={(list) => set({ drives: list })}
          />
        </div>
        {changed && (
          <button type="submit" className="btn mt-3">
            Keep the note
          </button>
        )}
      </form>
      <Problems problems={problems} />
    </div>
  );
}
