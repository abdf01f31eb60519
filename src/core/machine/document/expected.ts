import { formatBinaryBytes, formatDecimalBytes } from "../../units";
import type { MachineDocument } from "../facts/document";
import { plainModel } from "../intake/disputes";
import { presentDrives } from "../facts/describe";

/** One line of the delivery note beside what the machine says. */
export interface DeliveryLine {
  what: string;
  expected: string;
  observed: string;
  verdict: "as expected" | "differs" | "not seen";
}

/** Drives of one nominal size differ by a few sectors; makers' sizes are met within half a per cent. */
const sameSize = (a: number, b: number): boolean => Math.abs(a - b) <= Math.max(a, b) * 0.005;

/** Compares the delivery note with the machine, line by line; a fact that no tool told is "not seen", never "differs". */
export function compareDelivery({ facts, typed }: MachineDocument): DeliveryLine[] {
  const note = typed.expected;
  if (!note) return [];
  const lines: DeliveryLine[] = [];
  const add = (what: string, expected: string | null, observed: string | null, same: boolean): void => {
    if (expected === null) return;
    lines.push({
      what,
      expected,
      observed: observed ?? "–",
      verdict: observed === null ? "not seen" : same ? "as expected" : "differs",
    });
  };
  const { chassis, processors, memory } = facts;
  const text = (what: string, want: string | null, got: string | null | undefined): void =>
    add(what, want, got ?? null, plainModel(want ?? "") === plainModel(got ?? ""));
  const number = (what: string, want: number | null, got: number | null | undefined): void =>
    add(what, want === null ? null : String(want), got == null ? null : String(got), want === got);
  text("Model", note.model, chassis?.model);
  text("Serial number", note.serial, chassis?.serial);
  number("Cores", note.cores, processors?.cores);
  const installed = memory?.installedBytes ?? null;
  add(
    "Memory",
    note.memoryBytes === null ? null : formatBinaryBytes(note.memoryBytes),
    installed === null ? null : formatBinaryBytes(installed),
    installed === note.memoryBytes,
  );
  number("Memory modules", note.memoryModules, memory?.modules?.filter((m) => m.sizeBytes > 0).length);
  number(
    "Network ports",
    note.ports,
    facts.ports.length === 0 ? null : facts.ports.filter((p) => p.kind === "ethernet").length,
  );
  const drives = presentDrives(facts);
  for (const { count, sizeBytes, model } of note.drives) {
    const like = drives.filter(
      (d) =>
        sameSize(d.sizeBytes, sizeBytes) &&
        (model === "" || plainModel(d.model ?? "").includes(plainModel(model))),
    );
    add(
      `Drives of ${formatDecimalBytes(sizeBytes)}${model ? ` (${model})` : ""}`,
      String(count),
      drives.length === 0 ? null : String(like.length),
      like.length === count,
    );
  }
  return lines;
}
