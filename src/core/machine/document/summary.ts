import { presentDrives } from "../facts/describe";
import type { MachineDocument } from "../facts/document";
import type { Drive } from "../facts/drive";
import { judgeDrive, type Verdict } from "../drives/health";

/** The addresses of the system that was read, then that of the controller. */
export const addressesOf = ({ facts: { system, controller } }: MachineDocument): string[] =>
  [...(system?.addresses ?? []).map((a) => a.address), controller?.address ?? ""].filter(Boolean);

/** What of a machine calls for a person on a day: its dates that are not done, and firmware that was put off. */
export const machineDates = ({ typed }: MachineDocument): { due: string; what: string }[] => [
  ...typed.dates.filter((d) => d.doneOn === null).map(({ due, what }) => ({ due, what })),
  ...typed.firmware.flatMap((f) =>
    f.decision === "postponed" && f.due ? [{ due: f.due, what: `Update of ${f.part}` }] : [],
  ),
];

/** What the list of machines shows of one, kept beside its document. */
export interface MachineSummary {
  maker: string;
  model: string;
  assetTag: string;
  role: string;
  place: string;
  /** The first address that the machine has, of its system or its controller. */
  address: string;
  controller: string;
  cores: number | null;
  memoryBytes: number | null;
  drives: number;
  ports: number;
  rawBytes: number;
  health: Verdict;
  firmware: string;
  processor: string;
  system: string;
  readAt: string | null;
  defects: number;
  /** What is due and not done: dates of the machine and firmware that was put off. */
  dates: { due: string; what: string }[];
}

const WORST: Verdict[] = ["failing", "watch", "not known", "good"];

/** When tools last told something of the machine; null when none did. */
function readAtOf({ sources }: MachineDocument): string | null {
  const times = Object.values(sources).flatMap((s) => (s.tool === "typed" ? [] : s.at));
  return times.sort().at(-1) ?? null;
}

/** The worst verdict among its drives. Sets that a controller shows, sticks and cards keep no counters of their own. */
function healthOf(drives: readonly Drive[]): Verdict {
  const judged = drives.filter(
    (d) => d.presentedBy === null && !["usb", "card", "virtual"].includes(d.media),
  );
  const verdicts = new Set(judged.map((d) => judgeDrive(d).verdict));
  return WORST.find((v) => verdicts.has(v)) ?? "not known";
}

/** What lists show of a machine, from its document alone. */
export function summaryOf(document: MachineDocument): MachineSummary {
  const { facts, typed } = document;
  const { chassis, processors, memory, firmware, system, controller } = facts;
  const drives = presentDrives(facts);
  return {
    maker: chassis?.maker ?? "",
    model: chassis?.model ?? "",
    assetTag: chassis?.assetTag ?? "",
    role: typed.role ?? "",
    place: typed.place,
    address: addressesOf(document)[0] ?? "",
    controller: controller?.address ?? "",
    cores: processors?.cores ?? null,
    memoryBytes: memory?.installedBytes ?? memory?.recognisedBytes ?? null,
    drives: drives.length,
    ports: facts.ports.filter((p) => p.kind === "ethernet").length,
    rawBytes: drives.reduce((sum, d) => sum + d.sizeBytes, 0),
    health: healthOf(drives),
    firmware: firmware?.version ?? "",
    processor: processors?.model ?? "",
    system: system?.osName ?? "",
    readAt: readAtOf(document),
    defects: typed.defects.filter((d) => d.mendedOn === null).length,
    dates: machineDates(document),
  };
}
