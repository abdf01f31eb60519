"use client";

import type { DeliveryLine, Expected } from "@/core/machine";
import { formatBinaryBytes, formatDecimalBytes, parseByteSize } from "@/core/units";
import { bound } from "../draft/bound";
import { ParsedField, TextField } from "../fields/fields";
import { wholeField } from "../fields/numbers";
import { useMachine } from "./machine-draft";

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

const whole = wholeField("a whole number");
const counted = wholeField("a whole number above 0", (n) => n > 0);

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
        return { problem: `"${part}" is not a drive list; write 10 x 12 TB, and the model after it` };
      found.push({ count: Number(read[1]), sizeBytes: size.value, model: read[3] ?? "" });
    }
    return { value: found };
  },
};

/** What the delivery note says beside what the machine says; the two are never mixed. */
export function DeliveryForm({ lines }: { lines: DeliveryLine[] }) {
  const machine = useMachine();
  const note = machine.document.typed.expected ?? EMPTY;
  const field = bound<Expected>({
    document: note,
    type: (changes) => machine.type({ "typed.expected": { ...note, ...changes } }),
  });
  const open = (key: "model" | "serial", label: string) => ({
    ...{ path: key, label, value: note[key] ?? "" },
    onChange: (text: string) => machine.type({ "typed.expected": { ...note, [key]: text || null } }),
  });
  return (
    <div>
      {lines.length > 0 && <DeliveryLines lines={lines} />}
      <div className="grid gap-x-8 gap-y-3 sm:grid-cols-2 md:grid-cols-4">
        <TextField {...field("from", "Delivery note")} placeholder="number, day" />
        <TextField {...open("model", "Model")} />
        <TextField {...open("serial", "Serial")} />
        <ParsedField {...field("cores", "Cores")} {...counted} />
        <ParsedField {...field("memoryBytes", "Memory")} {...bytes} placeholder="256 GiB" />
        <ParsedField {...field("memoryModules", "Memory modules")} {...counted} />
        <ParsedField {...field("ports", "Network ports")} {...whole} />
        <ParsedField {...field("drives", "Drives")} {...drives} placeholder="10 x 12 TB, 1 x 240 GB" />
      </div>
    </div>
  );
}

const DeliveryLines = ({ lines }: { lines: DeliveryLine[] }) => (
  <table className="table mb-3" aria-label="Delivery note and machine">
    <thead>
      <tr>
        <th>Item</th>
        <th>Expected</th>
        <th>Found</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      {lines.map((l) => (
        <tr key={l.what}>
          <td>{l.what}</td>
          <td className="value">{l.expected}</td>
          <td className="value">{l.observed}</td>
          <td className={l.verdict === "differs" ? "font-semibold text-error" : "quiet"}>{l.verdict}</td>
        </tr>
      ))}
    </tbody>
  </table>
);
