// The drive register, bench readings and compatibility notes of the demo.
import { compatNoteSchema } from "@/core/compat";
import {
  layOnShelf,
  recordWipe,
  registerEntrySchema,
  registerKey,
  sightDrive,
  type MachineDocument,
  type RegisterEntry,
} from "@/core/machine";
import type { Reading } from "@/core/readings";
import { at, DAY } from "./parts";

const PELL = "J. Pell";
const ARKLE = "M. Arkle";

interface Machine {
  id: string;
  name: string;
  document: MachineDocument;
}

const loose = (values: object): RegisterEntry =>
  registerEntrySchema.parse({ schemaVersion: 1, state: "on the shelf", ...values });

/** Every drive where it sits now, with a few that have moved, been erased, or lie on the shelf. */
export function registerOfDemo(machines: Machine[]): { key: string; entry: RegisterEntry }[] {
  const entries = new Map<string, RegisterEntry>();
  for (const machine of machines)
    for (const drive of machine.document.facts.drives) {
      const key = registerKey(drive);
      if (key && drive.presentedBy === null)
        entries.set(key, sightDrive(null, drive, machine, at((machine.name.length * 17 + 30) * DAY)));
    }
  // Pulled from the storage server in 2025, erased, and now in the workstation: no self-test has run since.
  const moved = entries.get("CDB2T77120");
  const store = machines.find((m) => m.name === "wrk-st1");
  const bench = machines.find((m) => m.name === "cl-ws1");
  const drive = bench?.document.facts.drives.find((d) => d.id === "CDB2T77120");
  if (moved && store && bench && drive) {
    const before = sightDrive(
      null,
      {
        ...drive,
        bay: "7",
        contents: [
          { part: "p2", sizeBytes: 1_999_000_000_000, kind: "zfs_member", label: "reservoir", mountedAt: [] },
        ],
      },
      store,
      at(900 * DAY),
    );
    const erased = recordWipe(layOnShelf(before, "Works, shelf 3", false, at(400 * DAY)), {
      at: at(399 * DAY),
      by: ARKLE,
      method: "overwritten once",
      remark: "order 2231",
    });
    entries.set("CDB2T77120", sightDrive(erased, drive, bench, at(2 * DAY)));
  }
  entries.set(
    "CDB12T9017",
    loose({
      serial: "CDB12T9017",
      wwn: "naa.5000c500a1b2c3d4",
      model: "Caldbeck 12000",
      maker: "Caldbeck",
      sizeBytes: 12_000_138_625_024,
      media: "spinning",
      place: "Works, shelf 3",
      spare: true,
      holds: "nothing",
      health: { passed: true, hours: 14, reallocated: 0, warnings: [] },
    }),
  );
  entries.set(
    "BM4471900011",
    loose({
      serial: "BM4471900011",
      model: "BOOTCARD-A",
      sizeBytes: 63_999_836_160,
      media: "card",
      label: "spare boot card",
      place: "Works safe, envelope 14",
      spare: true,
      holds: "nothing",
    }),
  );
  entries.set(
    "PBL3-7742",
    loose({
      serial: "PBL3-7742",
      model: "Pebble 16",
      sizeBytes: 15_728_640_000,
      media: "usb",
      label: "blue stick 3",
      place: "Thornhope cabinet",
      holds: "pump manuals, October",
      written: "legacy",
      speedClass: "USB 2",
    }),
  );
  entries.set(
    "PBL3-7751",
    loose({
      serial: "PBL3-7751",
      model: "Pebble 32",
      sizeBytes: 31_457_280_000,
      media: "usb",
      label: "green stick",
      place: "Works, M. Arkle's desk",
      holds: "Lowland Server 7.4 installer",
      written: "as the image",
      speedClass: "USB 3",
      carries: { imageId: "i-lowland-7", name: "Lowland Server 7.4", at: at(24 * DAY), compared: true },
    }),
  );
  return [...entries].map(([key, entry]) => ({ key, entry }));
}

type Row = [
  kind: Reading["kind"],
  what: string,
  state: Reading["state"],
  value: number,
  limit: number | null,
  hoursAgo: number,
];

const readings = (machineId: string, by: string, rows: Row[]): { machineId: string; reading: Reading }[] =>
  rows.map(([kind, what, state, value, limit, hoursAgo]) => ({
    machineId,
    reading: {
      at: at(hoursAgo * 60),
      by,
      kind,
      what,
      state,
      value,
      limit,
      source: what === "at the wall" || kind === "network" || kind === "disk" ? "typed" : "sensors",
      how: state === "loaded" ? "four workers compiling, 20 min" : "",
    },
  }));

/** An evening on the bench with the workstation, and a few readings of the others to compare with. */
export const readingsOfDemo = [
  ...readings("m-cl-ws1", PELL, [
    ["power", "at the wall", "idle", 128, null, 26],
    ["power", "at the wall", "loaded", 297, null, 25.2],
    ["power", "at the wall", "loaded", 311, null, 24.4],
    ["temperature", "processor", "idle", 61, 84, 26],
    ["temperature", "processor", "loaded", 74, 84, 25.7],
    ["temperature", "processor", "loaded", 79, 84, 25.2],
    ["temperature", "processor", "loaded", 81, 84, 24.4],
    ["temperature", "Kestrel 40", "loaded", 83, 92, 24.4],
    ["clock", "processor", "loaded", 3700, null, 25.7],
    ["clock", "processor", "loaded", 3250, null, 25.2],
    ["clock", "processor", "loaded", 2900, null, 24.4],
    ["fan", "fan 1", "idle", 1450, null, 26],
    ["fan", "fan 1", "loaded", 3900, null, 24.4],
    ["disk", "system drive, reading", "loaded", 412, null, 25],
    ["network", "port 1, receiving", "loaded", 713, 1000, 25],
  ]),
  ...readings("m-tho-a", PELL, [
    ["power", "at the wall", "idle", 9, null, 50],
    ["power", "at the wall", "loaded", 21, null, 49.5],
    ["temperature", "processor", "idle", 52, 95, 50],
  ]),
  ...readings("m-tho-b", PELL, [
    ["power", "at the wall", "idle", 8.5, null, 720],
    ["power", "at the wall", "loaded", 20, null, 719.5],
  ]),
  ...readings("m-wrk-hv1", ARKLE, [
    ["power", "whole machine", "idle", 196, null, 120],
    ["power", "whole machine", "loaded", 412, null, 119],
    ["temperature", "processor 1", "idle", 47, 88, 120],
    ["temperature", "processor 2", "idle", 49, 88, 120],
  ]),
  ...readings("m-wrk-hv2", ARKLE, [
    ["power", "whole machine", "idle", 204, null, 96],
    ["power", "whole machine", "loaded", 431, null, 95],
    ["temperature", "processor 1", "idle", 48, 88, 96],
    ["temperature", "processor 2", "idle", 81, 88, 96],
  ]),
  ...readings("m-wrk-st1", ARKLE, [
    ["power", "whole machine", "idle", 268, null, 216],
    ["power", "whole machine", "loaded", 388, null, 215],
  ]),
  ...readings("m-wrk-tm1", ARKLE, [["power", "whole machine", "idle", 118, null, 48]]),
  ...readings("m-cl-bk1", PELL, [
    ["power", "at the wall", "idle", 41, null, 744],
    ["temperature", "processor", "idle", 39, 80, 744],
  ]),
];

const note = (id: string, values: object) => ({
  id,
  note: compatNoteSchema.parse({ schemaVersion: 1, by: ARKLE, at: at(20 * DAY), ...values }),
});

export const notesOfDemo = [
  note("n-six-port", {
    subject: { kind: "pci", value: "f0a1:1521", name: "six-port adapter of the R114" },
    profile: "cairn-hypervisor",
    version: "9",
    verdict: "works",
    evidence: "all six ports link at 1 Gbit/s, tried on wrk-hv1",
  }),
  note("n-boot-module", {
    subject: { kind: "machine model", value: "Ostler R114", name: "R114 with boot-card module" },
    profile: "cairn-hypervisor",
    version: "9",
    verdict: "works with a condition",
    condition: "install 6.7 update 4 first; with plain 6.7 the installer does not see the boot module",
    evidence: "three attempts on wrk-hv1",
    trials: [
      {
        at: at(24 * DAY),
        by: ARKLE,
        changed: "9.0 directly over 6.7",
        expected: "the boot module is offered",
        happened: "the installer lists R5-DATA only",
        outcome: "did not work",
      },
      {
        at: at(23 * DAY),
        by: ARKLE,
        changed: "firmware of the module 1.7 to 1.8, then 9.0",
        happened: "the same list",
        outcome: "did not work",
      },
      {
        at: at(20 * DAY),
        by: ARKLE,
        changed: "6.7 update 4 first, then 9.0",
        happened: "BOOTCARD-A is offered and boots",
        outcome: "worked",
      },
    ],
  }),
  note("n-wireless", {
    subject: { kind: "pci", value: "f0e5:7922", name: "wireless card of the Pippin 3" },
    profile: "lowland-server",
    version: "7",
    verdict: "does not work",
    by: PELL,
    evidence: "no firmware file in the installer; the wired port works",
  }),
  note("n-graphics", {
    subject: { kind: "pci", value: "f0c3:1c30", name: "Kestrel 20 graphics" },
    profile: "cairn-hypervisor",
    version: "9",
    verdict: "does not work",
    by: PELL,
    evidence:
      "shares its IOMMU group with the second SATA controller, so pass-through takes the drives away from the host",
    trials: [
      {
        at: at(1 * DAY),
        by: PELL,
        changed: "moved the card from slot 4 to slot 3",
        expected: "a group of its own",
        happened: "the same group, number 14",
        outcome: "did not work",
      },
    ],
  }),
];
