import { describe, expect, it } from "vitest";
import { aBuild, aDrive, NOW } from "../../../../tests/support/builds";
import { runChecks } from "../../finding";
import { machineDocumentSchema, type Facts, type Typed } from "..";
import { MACHINE_MESSAGES, MACHINE_SHEET_CHECKS, type MachineContext } from ".";

interface Changes extends Partial<Omit<MachineContext, "document">> {
  facts?: Partial<Facts>;
  typed?: Partial<Typed>;
  disputes?: object;
}

/** A machine about which no rule has anything to say, with the given changes. */
function aMachine({ facts, typed, disputes, ...context }: Changes): MachineContext {
  const { document } = aBuild().machine!;
  return {
    now: NOW,
    today: NOW.slice(0, 10),
    timeZone: "UTC",
    name: "wrk-hv1",
    rivals: [],
    pasts: [],
    circuit: null,
    ...context,
    document: machineDocumentSchema.parse({
      ...document,
      facts: { ...document.facts, ...facts },
      typed: { ...document.typed, ...typed },
      disputes: disputes ?? {},
    }),
  };
}
const found = (changes: Changes) => runChecks(MACHINE_SHEET_CHECKS, MACHINE_MESSAGES, aMachine(changes));

const contents = [{ part: "a1", sizeBytes: 9, kind: "ext4", label: null, mountedAt: [] }];
const sensor = (value: number, max: number | null) => ({
  id: "cpu",
  kind: "temperature" as const,
  value,
  max,
  critical: null,
  min: null,
});
const set = (more: object) => ({
  id: "pool tank",
  kind: "pool" as const,
  name: "tank",
  level: "mirror",
  state: "ONLINE",
  health: "good" as const,
  sizeBytes: null,
  wwn: null,
  members: [{ name: "sda", drive: "NV-0001", role: "member" as const, group: null, state: "ONLINE" }],
  progress: null,
  remark: null,
  ...more,
});
const fitted = (slot: string, gib: number, megatransfers: number | null = 3200) => ({
  slot,
  sizeBytes: gib * 2 ** 30,
  kind: "DDR4",
  part: null,
  megatransfers,
});
const firmware = (more: object) => ({
  part: "system firmware",
  installed: "2.9.1",
  available: "2.11.0",
  decision: "undecided" as const,
  due: null,
  reason: "",
  by: "J. Pell",
  at: NOW,
  ...more,
});
const past = (more: object) => ({
  driveId: "NV-0001",
  cameFrom: null,
  hoursAtMove: null,
  alsoIn: null,
  ...more,
});
const claim = { value: "OST-2", source: { tool: "redfish", from: "system.json", at: NOW } };
const delivery = {
  from: "note 7711",
  model: null,
  serial: null,
  cores: null,
  memoryBytes: null,
  memoryModules: null,
  ports: null,
  drives: [],
};

/** For every rule: what makes it fire on a sound machine, at this severity, saying this. */
const FIRING: [code: string, severity: string, says: RegExp, changes: Changes][] = [
  [
    "machine.memory-lost",
    "caution",
    /^64\.0 GiB installed/,
    { facts: { memory: { installedBytes: 64 * 2 ** 30, recognisedBytes: 48 * 2 ** 30 } } },
  ],
  [
    "machine.memory-unequal",
    "note",
    /32\.0 GiB and 16\.0 GiB/,
    { facts: { memory: { modules: [fitted("A1", 32), fitted("B1", 16), fitted("C1", 0)] } } },
  ],
  [
    "machine.memory-unequal",
    "note",
    /3200 MT\/s and 2666 MT\/s/,
    { facts: { memory: { modules: [fitted("A1", 32), fitted("B1", 32, 2666)] } } },
  ],
  [
    "machine.twin",
    "stop",
    /serial OST-1 is also that of wrk-old/,
    { rivals: [{ kind: "serial", key: "OST-1", owner: "wrk-old" }] },
  ],
  [
    "machine.twin",
    "stop",
    /MAC 02:61:0a:00:00:14/,
    { rivals: [{ kind: "mac", key: "02:61:0a:00:00:14", owner: "wrk-old" }] },
  ],
  ["machine.stale", "note", /60 days old/, { now: "2027-01-19T08:00:00.000Z" }],
  [
    "machine.tools-disagree",
    "caution",
    /chassis\.serial is OST-1; another tool reports OST-2/,
    { disputes: { "chassis.serial": [claim] } },
  ],
  [
    "machine.tools-disagree",
    "caution",
    /another tool reports OST-2/,
    { disputes: { "drives.NV-0001.model": [claim] } },
  ],
  [
    "machine.not-as-delivered",
    "caution",
    /Cores: the delivery note says 16, the machine reports 8/,
    { typed: { expected: { ...delivery, cores: 16 } } },
  ],
  ["machine.hot", "caution", /reports 91 °C; the limit is 90 °C/, { facts: { sensors: [sensor(91, 90)] } }],
  ["machine.hot", "note", /reports 84 °C; the limit is 90 °C/, { facts: { sensors: [sensor(84, 90)] } }],
  ["machine.hot", "note", /reports 66 °C; the limit is 60 °C/, { facts: { sensors: [sensor(66, null)] } }],
  [
    "machine.laptop",
    "caution",
    /closing the lid does not stop it; the battery/,
    {
      facts: { chassis: { form: "Notebook" } },
      typed: { laptop: { lid: false, sleep: true, battery: false } },
    },
  ],
  [
    "machine.defect",
    "note",
    /fan 3 rattles/,
    {
      typed: {
        defects: [
          {
            id: "d1",
            what: "fan 3 rattles",
            affects: "temperature",
            since: "2026-10-01",
            by: "J. Pell",
            mendedOn: null,
          },
        ],
      },
    },
  ],
  [
    "machine.firmware-outdated",
    "caution",
    /is at 2\.9\.1; 2\.11\.0 is available/,
    { typed: { firmware: [firmware({})] } },
  ],
  [
    "machine.firmware-due",
    "caution",
    /postponed to 1 Nov 2026/,
    {
      typed: {
        firmware: [firmware({ decision: "postponed", due: "2026-11-01", reason: "waits for the move" })],
      },
    },
  ],
  [
    "machine.date-over",
    "caution",
    /restore drill was due on 1 Nov 2026/,
    {
      typed: { dates: [{ id: "d1", what: "restore drill", due: "2026-11-01", doneOn: null, by: "J. Pell" }] },
    },
  ],
  [
    "drive.idle-space",
    "note",
    /380 GB \(354 GiB\) \(79 %\) is in no partition/,
    {
      facts: {
        drives: [
          aDrive("NV-0001", {
            health: { hours: 1 },
            contents: [{ part: "p2", sizeBytes: 100e9, kind: "ext4", label: null, mountedAt: ["/"] }],
          }),
        ],
      },
    },
  ],
  [
    "machine.supply",
    "caution",
    /PSU 2 reports Critical/,
    { facts: { powerSupplies: [{ id: "PSU 2", model: null, ratedWatts: 800, state: "Critical" }] } },
  ],
  [
    "machine.circuit",
    "caution",
    /draw 3400 W under load; the limit of the site is 3000 W: 400 W above it/,
    { circuit: { name: "A1", watts: 3400, limitWatts: 3000, machines: 4, unread: 0 } },
  ],
  [
    "drive.failing",
    "caution",
    /12 media errors/,
    { facts: { drives: [aDrive("NV-0001", { health: { mediaErrors: 12 } })] } },
  ],
  [
    "drive.watch",
    "note",
    /3 reallocated sectors/,
    { facts: { drives: [aDrive("NV-0001", { health: { hours: 100, reallocated: 3 } })] } },
  ],
  [
    "drive.unread",
    "note",
    /1 used drive has no SMART data/,
    { facts: { drives: [aDrive("NV-0001", { contents })] } },
  ],
  [
    "drive.moved-in",
    "caution",
    /480 GB \(447 GiB\) was in wrk-old before/,
    { pasts: [past({ cameFrom: "wrk-old", hoursAtMove: 900 })] },
  ],
  [
    "drive.elsewhere",
    "caution",
    /480 GB \(447 GiB\) is listed as present in wrk-old too/,
    { pasts: [past({ alsoIn: "wrk-old" })] },
  ],
  [
    "drive.same-serial",
    "caution",
    /Two drives report the serial number NV-0001/,
    {
      facts: {
        drives: [aDrive("NV-0001", {}), { ...aDrive("NV-0001", {}), id: "NV-0001@sdb", seenAs: "sdb" }],
      },
    },
  ],
  [
    "drive.size-unknown",
    "caution",
    /no plausible size/,
    { facts: { drives: [aDrive("NV-0001", { sizeBytes: 0 })] } },
  ],
  [
    "drive.set-as-drive",
    "note",
    /virtual drive R5-DATA \(RAID5, 1 members\)/,
    {
      facts: {
        drives: [aDrive("NV-0001", { presentedBy: "R5-DATA" })],
        sets: [set({ id: "virtual drive R5-DATA", kind: "virtual drive", name: "R5-DATA", level: "RAID5" })],
      },
    },
  ],
  [
    "machine.set-degraded",
    "caution",
    /pool tank: DEGRADED\. Members: sdc FAULTED/,
    {
      facts: {
        sets: [
          set({
            state: "DEGRADED",
            health: "degraded",
            members: [{ name: "sdc", drive: null, role: "member", state: "FAULTED" }],
          }),
        ],
      },
    },
  ],
  [
    "machine.pool-behind-raid",
    "caution",
    /behind Halden 9, which is in RAID mode/,
    {
      facts: {
        drives: [aDrive("NV-0001", { controller: "03:00.0" })],
        sets: [set({})],
        storageControllers: [
          { id: "03:00.0", name: "Halden 9", mode: "RAID", firmware: null, driver: null, health: null },
        ],
      },
    },
  ],
  [
    "network.only-wireless",
    "stop",
    /wireless/,
    { facts: { ports: aBuild({ portKind: "wireless" }).machine!.document.facts.ports } },
  ],
  [
    "machine.no-controller",
    "note",
    /no management controller/,
    { facts: { controller: { present: false } } },
  ],
  [
    "machine.no-media-licence",
    "note",
    /The licence of the management controller excludes virtual media/,
    { facts: { controller: { present: true, virtualMedia: "not licensed" } } },
  ],
];

describe("every rule about a machine", () => {
  it("is silent on a sound machine", () => expect(found({})).toEqual([]));

  it.each(FIRING)("%s fires as a %s: %s", (code, severity, says, changes) => {
    const finding = found(changes).find((f) => f.code === code);
    expect(finding).toMatchObject({ severity });
    expect(finding?.says).toMatch(says);
    expect(`${finding?.says}${finding?.remedy}`).not.toMatch(/\{|\}|undefined|null/);
  });

  it("has a firing case, and words, and no words stand without a rule", () => {
    const codes = MACHINE_SHEET_CHECKS.map((c) => c.code);
    expect(new Set(codes).size).toBe(codes.length);
    expect(new Set(FIRING.map((f) => f[0]))).toEqual(new Set(codes));
    expect(new Set(Object.keys(MACHINE_MESSAGES))).toEqual(new Set(codes));
    expect(codes.length).toBeGreaterThanOrEqual(25);
  });
});

describe("rules that depend on time and decisions", () => {
  const codes = (changes: Changes) => found(changes).map((f) => f.code);

  it("leave a firmware alone that was decided about, or is the newest", () => {
    expect(codes({ typed: { firmware: [firmware({ decision: "not wanted" })] } })).toEqual([]);
    expect(codes({ typed: { firmware: [firmware({ available: "2.9.1" })] } })).toEqual([]);
    expect(codes({ typed: { firmware: [firmware({ decision: "postponed", due: "2026-12-24" })] } })).toEqual(
      [],
    );
  });

  it("ask a moved drive for a long self-test that is younger than the move, and are content with one", () => {
    const health = (atHours: number) => ({
      hours: 1000,
      selfTest: { kind: "Extended offline", passed: true, atHours },
    });
    const moved = (atHours: number): Changes => ({
      facts: { drives: [aDrive("NV-0001", { health: health(atHours) })] },
      pasts: [past({ cameFrom: "wrk-old", hoursAtMove: 900 })],
    });
    expect(codes(moved(950))).toEqual([]);
    expect(codes(moved(890))).toEqual(["drive.moved-in"]);
  });

  it("do not name a mended defect", () => {
    const defect = {
      id: "d1",
      what: "fan",
      affects: "temperature" as const,
      since: "2026-10-01",
      by: "x",
      mendedOn: "2026-10-02",
    };
    expect(codes({ typed: { defects: [defect] } })).toEqual([]);
  });
});

it.each([
  ["resilver", "good", null],
  ["resilver", "degraded", /rebuilding \(38 %\): wait/],
  ["scrub", "degraded", /^Repair it/],
] as const)("says of a %s on a set that is %s what is to be done", (what, health, remedy) => {
  const progress = { what, percent: 38, secondsLeft: null };
  const of = found({ facts: { sets: [set({ health, progress })] } }).find(
    (f) => f.code === "machine.set-degraded",
  );
  if (remedy === null) expect(of).toBeUndefined();
  else expect(of?.remedy).toMatch(remedy);
});
