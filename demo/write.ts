// Writes demo/marrowby-water.json: the demo data, made by the same core that the application uses, so that every
// finding, step and log entry in it is what the application would say. Run with `npm run demo:write`.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import {
  applyEdits,
  diffSheets,
  emptySheet,
  valueAt,
  type BuildContext,
  type Neighbour,
  type Sheet,
} from "@/core/build";
import { imageSchema, parseProfileYaml, type Image, type Inspection, type Profile } from "@/core/image";
import { type MachineDocument } from "@/core/machine";
import { exportSchema, type Export } from "@/core/record";
import {
  decide,
  foldRun,
  freezePlan,
  type LoggedEvent,
  type RunCommand,
  type RunEvent,
  type RunPlan,
} from "@/core/run";
import { siteSchema, type Site } from "@/core/site";
import { addSeconds } from "@/core/units";
import type { AcceptanceLine } from "@/core/verify";
import { at, DAY } from "./parts";
import { notesOfDemo, readingsOfDemo, registerOfDemo } from "./register";
import { coldLaneBackup, coldLaneWorkstation, thornhopeA, thornhopeB } from "./stations";
import { wrkHv1, wrkHv2, wrkSt1, wrkTm1 } from "./works";

const ARKLE = "M. Arkle";
const PELL = "J. Pell";
const NOW = at(0);
const digest = (seed: string): string =>
  Array.from(
    { length: 64 },
    (_, i) => "0123456789abcdef"[(seed.charCodeAt(i % seed.length) * (i + 3)) % 16],
  ).join("");

const profiles = readdirSync("profiles").map((name) => {
  const yaml = readFileSync(`profiles/${name}`, "utf8");
  const read = parseProfileYaml(yaml);
  if (!read.ok) throw new Error(`${name}: ${read.problems[0]?.message}`);
  return { yaml, profile: read.value };
});

const site = (id: string, document: object) => ({
  id,
  document: siteSchema.parse({
    schemaVersion: 1,
    timeZone: "Europe/London",
    locale: "en_GB.UTF-8",
    keyboard: "gb",
    domain: "marrowby.example",
    tariff: { perKilowattHour: 0.29, currency: "£" },
    ...document,
  }),
});

const sites = [
  site("s-works", {
    name: "Works",
    room: "Control building, rack A, 24U",
    circuits: [{ name: "A1", limitWatts: 1500 }],
    link: { bitsPerSecond: 12e6, roundTripSeconds: 0.038 },
    segments: [
      {
        id: "works-mgmt",
        name: "Works management",
        purpose: "management",
        vlan: 10,
        prefix: "10.61.10.0/24",
        gateway: "10.61.10.1",
        nameServers: ["10.61.10.2", "10.61.10.3"],
        dhcp: [{ from: "10.61.10.100", to: "10.61.10.179" }],
        reservations: [{ mac: "02:61:0a:00:00:09", address: "10.61.10.9", name: "rack A power strip" }],
      },
      {
        id: "works-store",
        name: "Works storage",
        purpose: "storage",
        vlan: 30,
        prefix: "10.61.11.0/24",
        gateway: null,
      },
    ],
    occupied: [
      { address: "10.61.10.4", what: "switch wrk-sw1" },
      { address: "10.61.10.5", what: "switch wrk-sw2" },
    ],
  }),
  site("s-thornhope", {
    name: "Thornhope",
    room: "Pumping station, wall cabinet",
    circuits: [{ name: "cabinet", limitWatts: 400 }],
    addressSchool: "reserved",
    segments: [
      {
        id: "tho-lan",
        name: "Thornhope station",
        purpose: "management",
        prefix: "10.61.20.0/26",
        gateway: "10.61.20.1",
        nameServers: ["10.61.20.1"],
        dhcp: [{ from: "10.61.20.32", to: "10.61.20.55" }],
        reservations: [
          { mac: "02:61:14:00:00:01", address: "10.61.20.11", name: "tho-a" },
          { mac: "02:61:14:00:00:02", address: "10.61.20.12", name: "tho-b" },
        ],
      },
    ],
  }),
  site("s-coldlane", {
    name: "Cold Lane",
    room: "Office, store room shelf",
    circuits: [{ name: "office", limitWatts: 2000 }],
    segments: [
      {
        id: "cl-lan",
        name: "Cold Lane office",
        purpose: "management",
        prefix: "10.61.30.0/24",
        gateway: "10.61.30.1",
        nameServers: ["10.61.30.1"],
        dhcp: [{ from: "10.61.30.50", to: "10.61.30.200" }],
      },
    ],
  }),
];

const machines: { id: string; siteId: string; name: string; document: MachineDocument }[] = [
  { id: "m-wrk-hv1", siteId: "s-works", name: "wrk-hv1", document: wrkHv1 },
  { id: "m-wrk-hv2", siteId: "s-works", name: "wrk-hv2", document: wrkHv2 },
  { id: "m-wrk-st1", siteId: "s-works", name: "wrk-st1", document: wrkSt1 },
  { id: "m-wrk-tm1", siteId: "s-works", name: "wrk-tm1", document: wrkTm1 },
  { id: "m-tho-a", siteId: "s-thornhope", name: "tho-a", document: thornhopeA },
  { id: "m-tho-b", siteId: "s-thornhope", name: "tho-b", document: thornhopeB },
  { id: "m-cl-bk1", siteId: "s-coldlane", name: "cl-bk1", document: coldLaneBackup },
  { id: "m-cl-ws1", siteId: "s-coldlane", name: "cl-ws1", document: coldLaneWorkstation },
];

/** What the inspector would say of the made-up Cairn image: a hybrid for both firmwares, with one EFI image. */
const cairnInside: Inspection = {
  sizeBytes: 642_777_088,
  kind: "ISO 9660 image, made to be written to sticks as well",
  volumeId: "CAIRN_9_0_OSTLER",
  made: "CAIRN IMAGE BUILDER",
  udf: false,
  joliet: "CAIRN_9_0_OSTLER",
  faults: [],
  verdict: {
    optical: {
      legacy: { answer: "boots", reason: "El Torito entry for legacy firmware, without emulation" },
      x64: { answer: "boots", reason: "El Torito entry for UEFI with a loader for this architecture" },
      ia32: { answer: "does not", reason: "its loader is for x64 only" },
      aa64: { answer: "does not", reason: "its loader is for x64 only" },
    },
    stick: {
      legacy: { answer: "boots", reason: "boot code in the first sector" },
      x64: { answer: "boots", reason: "a FAT partition with a loader for this architecture" },
      ia32: { answer: "does not", reason: "its loader is for x64 only" },
      aa64: { answer: "does not", reason: "its loader is for x64 only" },
    },
  },
  loaders: [{ path: "EFI/BOOT/BOOTX64.EFI", arch: "x64", where: "boot image" }],
  regions: [
    { name: "boot sector with code", kind: "boot", offset: 0, length: 512 },
    { name: "volume descriptors", kind: "description", offset: 32_768, length: 8192 },
    { name: "files", kind: "files", offset: 40_960, length: 642_736_128 },
    { name: "boot catalog", kind: "table", offset: 67_584, length: 2048 },
    { name: "boot image for UEFI", kind: "boot", offset: 69_632, length: 33_554_432 },
    { name: "partition 2 (EFI system)", kind: "partition", offset: 69_632, length: 33_554_432 },
    { name: "boot image for legacy", kind: "boot", offset: 33_624_064, length: 2048 },
  ],
  bytesRead: 174_080,
};

const image = (id: string, document: Partial<Image>) => ({
  id,
  document: imageSchema.parse({
    schemaVersion: 1,
    architecture: "x86_64",
    bootModes: ["uefi", "legacy"],
    ...document,
  }),
});
const sum = (seed: string) => ({ algorithm: "sha256" as const, value: digest(seed) });
const images = [
  image("i-cairn-9", {
    name: "Cairn Hypervisor 9.0, Ostler build",
    profile: "cairn-hypervisor",
    version: "9.0",
    variant: "maker's custom",
    fileName: "cairn-hypervisor-9.0-ostler.iso",
    sizeBytes: 642_777_088,
    loaderSigned: "signed",
    published: sum("cairn-nine"),
    publishedFrom: "Ostler's download page, 18 Nov",
    computed: { checksum: sum("cairn-nine"), at: at(4 * DAY), by: ARKLE },
    inside: { found: cairnInside, fileName: "cairn-hypervisor-9.0-ostler.iso", at: at(4 * DAY), by: ARKLE },
    supportEnds: "2029-10-31",
  }),
  image("i-lowland-7", {
    name: "Lowland Server 7.4",
    profile: "lowland-server",
    version: "7.4",
    fileName: "lowland-server-7.4-x86_64.iso",
    sizeBytes: 2_147_483_648,
    loaderSigned: "signed",
    published: sum("lowland"),
    publishedFrom: "the project's mirror list, 2 Nov",
    supportEnds: "2031-05-31",
  }),
];

function sheetWith(values: Record<string, unknown>): Sheet {
  const empty = emptySheet();
  const made = applyEdits(
    empty,
    Object.entries(values).map(([path, after]) => ({ path, before: valueAt(empty, path), after })),
  );
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return made.value;
}

const usual = {
  "answers.domain": "marrowby.example",
  "answers.keyboard": "gb",
  "answers.locale": "en_GB.UTF-8",
  "answers.timeZone": "Europe/London",
};
const works = {
  ...usual,
  "network.segment": "works-mgmt",
  "network.gateway": "10.61.10.1",
  "network.nameServers": ["10.61.10.2", "10.61.10.3"],
  "boot.menuKey": "F11",
  "image.id": "i-cairn-9",
};
const thornhope = {
  ...usual,
  "network.segment": "tho-lan",
  "network.school": "reserved",
  "network.gateway": "10.61.20.1",
  "network.nameServers": ["10.61.20.1"],
  "boot.menuKey": "F7",
  "image.id": "i-lowland-7",
  "image.way": "stick",
  "image.stick.name": "blue stick 3",
  "image.stick.sizeBytes": 15_728_640_000,
};
const root = { name: "root", role: "super-user", logIn: "password" };

const hv = (n: 1 | 2, card: string, store: string) => ({
  ...works,
  subject: `Install Cairn Hypervisor 9 on wrk-hv${n}`,
  "machine.id": `m-wrk-hv${n}`,
  "storage.target": card,
  "storage.leaveAlone": [store],
  "network.port": `02:61:0a:00:1${n + 3}:01`,
  "answers.hostName": `wrk-hv${n}`,
  "answers.accounts": [root],
  "answers.secretsKept": "Works safe, envelope 14",
  "handOver.owner": "Control room",
  "handOver.licence": "evaluation",
  "handOver.evaluationEnds": "2027-01-23",
});

const hv1 = sheetWith({
  ...hv(1, "BM4471907F31", "R5D9A00514"),
  "network.address": "10.61.10.21",
  "storage.erase": { drive: "BM4471907F31", tail: "907F31", by: ARKLE, at: at(300) },
  "handOver.notes":
    "Version 6.7 had to be brought to 6.7 update 4 first: the boot module's firmware asks for it as a stepping stone. Guests of store-14 are registered again after the installation.",
  waivers: [
    {
      key: "storage.removable",
      reason: "two cards are mirrored in the module, and the configuration is kept in envelope 14",
      by: ARKLE,
      at: at(290),
    },
  ],
});
const hv2 = sheetWith({
  ...hv(2, "BM4471907F58", "R5D9A00515"),
  "network.address": "10.61.10.122",
  "handOver.evaluationEnds": null,
});
const thoA = sheetWith({
  ...thornhope,
  subject: "Install Lowland Server 7 on tho-a",
  "machine.id": "m-tho-a",
  "storage.target": "SLW5129931",
  "network.port": "02:61:14:00:00:01",
  "network.address": "10.61.20.11",
  "image.stick.written": "legacy",
  "image.stick.holds": "pump manuals, October",
  "answers.hostName": "tho-a",
  "answers.accounts": [
    { ...root, logIn: "none" },
    { name: "jpell", role: "administrator", logIn: "password" },
  ],
  "answers.secretsKept": "Thornhope cabinet, sealed card",
  "handOver.owner": "Pump crew",
});
const thoB = sheetWith({
  ...thornhope,
  subject: "Install Lowland Server 7 on tho-b",
  "machine.id": "m-tho-b",
  "storage.target": "SLW5129944",
  "network.port": "02:61:14:00:00:02",
  "network.address": "10.61.20.12",
  "image.stick.written": "uefi",
  "answers.hostName": "tho-b",
  "answers.accounts": [
    { ...root, logIn: "none" },
    { name: "jpell", role: "administrator", logIn: "password" },
  ],
  "answers.secretsKept": "Thornhope cabinet, sealed card",
  "handOver.owner": "Pump crew",
});

function contextFor(sheet: Sheet, now: string): BuildContext {
  const machine = machines.find((m) => m.id === sheet.machine.id);
  const found = images.find((i) => i.id === sheet.image.id)?.document ?? null;
  const neighbours: Neighbour[] = machines
    .filter((m) => m !== machine)
    .map((m) => ({
      name: m.name,
      serial: m.document.facts.chassis?.serial ?? null,
      macs: m.document.facts.ports.map((p) => p.mac),
      hostNames: [m.document.facts.system?.hostName ?? ""].filter(Boolean),
      addresses: [],
    }));
  return {
    now,
    sheet,
    machine: machine ? { name: machine.name, document: machine.document } : null,
    site: sites.find((s) => s.id === machine?.siteId)?.document as Site,
    image: found,
    profile: profiles.find((p) => p.profile.profile === found?.profile)?.profile as Profile,
    neighbours,
    pasts: [],
    circuit: null,
    compat: notesOfDemo.map((n) => n.note).filter((n) => n.profile === found?.profile),
  };
}

/** A log as an operator would have made it: each command decided by the core at its time. */
class Teller {
  readonly log: LoggedEvent[] = [];
  constructor(
    readonly plan: RunPlan,
    private clock: string,
    readonly by: string,
  ) {
    this.put({ kind: "started", by });
  }
  private put(event: RunEvent): void {
    this.log.push({
      seq: this.log.length + 1,
      at: this.clock,
      key: `demo-${String(this.log.length + 1).padStart(4, "0")}`,
      event,
    });
  }
  wait(seconds: number): this {
    this.clock = addSeconds(this.clock, seconds);
    return this;
  }
  say(command: RunCommand): this {
    const decided = decide(this.plan, foldRun(this.plan.steps, this.log), command);
    if (!decided.ok) throw new Error(decided.problems[0]?.message);
    this.put(decided.value);
    return this;
  }
  note(text: string): this {
    return this.say({ kind: "note", step: this.step?.id ?? null, text, by: this.by });
  }
  get step() {
    return this.plan.steps[foldRun(this.plan.steps, this.log).current];
  }
  /** Goes on as expected up to a step, each step taking its likely time, more or less. */
  to(id: string): this {
    for (let i = 0; this.step && this.step.id !== id; i += 1) {
      this.wait(this.step.duration.likelySeconds * (0.8 + ((i * 7) % 5) / 10));
      this.say(
        this.step.guard
          ? { kind: "guard", step: this.step.id, typed: this.step.guard.expect, by: this.by }
          : { kind: "as expected", step: this.step.id, by: this.by },
      );
    }
    return this;
  }
  accept(lines: AcceptanceLine[]): this {
    this.put({ kind: "accepted", from: "tho-b-installed.txt", lines, by: this.by });
    return this;
  }
}

const planHv1 = freezePlan({ number: "B-0041", revision: "B" }, contextFor(hv1, at(60)));
const tellHv1 = (startMinutesAgo: number): Teller => {
  const teller = new Teller(planHv1, at(startMinutesAgo), ARKLE).to("firmware");
  teller
    .wait(60)
    .note(
      "Boot module shows: mirror degraded, secondary card syncing 38 %. Expected until about 14:50; a fault after that.",
    );
  teller.to("media-in").wait(40).say({
    kind: "differs",
    step: "media-in",
    seen: "the session dropped once while mapping; mapped again",
    decision: "go on",
    by: ARKLE,
  });
  teller
    .to("screen-disk")
    .wait(40)
    .say({ kind: "reading", step: "screen-disk", what: "inlet temperature", value: "23 °C", by: ARKLE });
  return teller.to("screen-writing");
};
// Start so long ago that the writing has been going on for two minutes when the demo opens.
const first = tellHv1(200);
const secondsTaken = (Date.parse(first.log.at(-1)?.at ?? NOW) - Date.parse(first.log[0]?.at ?? NOW)) / 1000;
const runHv1 = tellHv1(secondsTaken / 60 + 2);

const planB = freezePlan({ number: "B-0038", revision: "A" }, contextFor(thoB, at(22 * DAY)));
const runB = new Teller(planB, at(22 * DAY + 400), PELL).to("collect");
const planned = (id: string): string => planB.expectations.find((e) => e.id === id)?.planned ?? "";
runB.wait(120).accept(
  planB.expectations.map(({ id, zone, what, planned: wanted }): AcceptanceLine => {
    if (id === "keyboard") return { id, zone, what, planned: wanted, found: "us", verdict: "differs" };
    if (id === "gateway") return { id, zone, what, planned: wanted, found: "", verdict: "not seen" };
    return {
      id,
      zone,
      what,
      planned: wanted,
      found:
        id === "system"
          ? "Lowland Server 7.4"
          : id === "target"
            ? "the system stands on SLW5129944"
            : planned(id),
      verdict: "as planned",
    };
  }),
);
runB.wait(60).note("Keyboard was us on the console; set to gb after the comparison.").to("end");
runB.wait(300).say({ kind: "handed over", to: "Pump crew", by: PELL });

type BuildOut = Export["builds"][number];
const build = (
  id: string,
  number: string,
  sheet: Sheet,
  by: string,
  daysAgo: number,
  letters: string[],
): BuildOut => {
  const start = emptySheet();
  const edits = diffSheets(start, sheet);
  const half = Math.ceil(edits.length / 2);
  const rows: BuildOut["history"] = [
    { version: 2, at: at(daysAgo * DAY + 200), by, letter: null, edits: edits.slice(0, half) },
    { version: 3, at: at(daysAgo * DAY + 120), by, letter: null, edits: edits.slice(half) },
  ];
  letters.forEach((letter, i) =>
    rows.push({ version: 4 + i, at: at(daysAgo * DAY + 60 - i * 20), by, letter, edits: [] }),
  );
  return { id, number, sheet, revision: letters.at(-1) ?? null, history: rows.reverse() };
};

const file: Export = exportSchema.parse({
  format: "derrick-export",
  version: 1,
  exportedAt: NOW,
  sites,
  machines,
  profiles: profiles.map((p) => ({ key: p.profile.profile, version: p.profile.version, yaml: p.yaml })),
  images,
  builds: [
    build("b-wrk-hv1", "B-0041", hv1, ARKLE, 3, ["A", "B"]),
    build("b-wrk-hv2", "B-0042", hv2, ARKLE, 1, []),
    build("b-tho-a", "B-0043", thoA, PELL, 2, []),
    build("b-tho-b", "B-0038", thoB, PELL, 23, ["A"]),
  ],
  runs: [
    { id: "r-wrk-hv1", buildId: "b-wrk-hv1", plan: planHv1, log: runHv1.log },
    { id: "r-tho-b", buildId: "b-tho-b", plan: planB, log: runB.log },
  ],
  drives: registerOfDemo(machines),
  readings: readingsOfDemo,
  compatNotes: notesOfDemo,
});
writeFileSync("demo/marrowby-water.json", `${JSON.stringify(file, null, 1)}\n`);
console.log(
  `demo/marrowby-water.json: ${file.machines.length} machines, ${file.builds.length} builds, ${file.runs.length} runs`,
);
