import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { capture, captures } from "../../../../tests/support/formats";
import {
  emptyMachine,
  mergeReadings,
  placeDrive,
  readTexts,
  type MachineDocument,
  type NamedText,
  type TakenReading,
} from "..";

// What a poorer output does to what a richer one told: nothing. Each import stands alone, as people drop them.

const MACHINES = ["server-bios-small", "server-uefi-2socket"];
const FIRST = "2026-11-20T10:00:00.000Z";

interface Node {
  name: string;
  children?: Node[];
}
/** lsblk as it prints with some columns only. */
const columns = (text: string, keep: readonly string[]): string => {
  const cut = (node: Node): Node =>
    Object.fromEntries(
      Object.entries(node).flatMap(([key, value]) =>
        key === "children" ? [[key, (value as Node[]).map(cut)]] : keep.includes(key) ? [[key, value]] : [],
      ),
    ) as unknown as Node;
  const { blockdevices } = JSON.parse(text) as { blockdevices: Node[] };
  return JSON.stringify({ blockdevices: blockdevices.map(cut) });
};
const PLAIN = ["name", "maj:min", "rm", "size", "ro", "type", "mountpoints"];
const plainLsblk = (machine: string): NamedText => ({
  name: "lsblk",
  text: columns(capture(machine, "lsblk.json"), PLAIN),
});
const plainEfibootmgr = (machine: string): NamedText => ({
  name: "efibootmgr",
  text: capture(machine, "efibootmgr-v.txt").replace(/\t.*$/gm, ""),
});
const signatures = (machine: string): NamedText => ({
  name: "lsblk with signatures",
  text: columns(capture(machine, "lsblk.json"), [...PLAIN, "fstype"]),
});

const take = (document: MachineDocument, texts: NamedText[], at: string) =>
  mergeReadings(document, readTexts(texts).readings, at);
/** Each text is read once: what is tried here is the laying. */
const readings = new Map<NamedText, TakenReading[]>();
const readOnce = (text: NamedText): TakenReading[] => {
  const known = readings.get(text) ?? readTexts([text]).readings;
  readings.set(text, known);
  return known;
};
const rich = (machine: string) =>
  take(emptyMachine(), [{ name: "lsblk", text: capture(machine, "lsblk.json") }], FIRST).document;

/** Every fact that is told, as path and value; items of lists by what names them. */
function told(value: unknown, path: string, all = new Map<string, unknown>()): Map<string, unknown> {
  if (value === null || value === undefined || value === "" || value === "unknown") return all;
  if (Array.isArray(value)) {
    all.set(`${path}#`, value.length);
    value.forEach((item: unknown, i) => {
      const named = typeof item === "object" && item !== null ? (item as Record<string, unknown>) : {};
      const key = named.id ?? named.mac ?? named.part ?? named.address ?? named.name ?? named.ids ?? i;
      told(item, `${path}[${String(named.slot ?? key)}]`, all);
    });
  } else if (typeof value === "object") {
    for (const [key, inner] of Object.entries(value)) told(inner, `${path}.${key}`, all);
  } else all.set(path, value);
  return all;
}

describe.each(MACHINES)("%s", (machine) => {
  const full = rich(machine);

  it("keeps its drives and what stands on them when lsblk prints fewer columns", () => {
    for (const text of [plainLsblk(machine), signatures(machine)]) {
      const poorer = take(full, [text], "2026-11-24T10:00:00.000Z").document;
      expect(poorer.facts.drives).toEqual(full.facts.drives);
    }
  });

  it("keeps them when both are dropped at once, in either order", () => {
    const both = [{ name: "lsblk", text: capture(machine, "lsblk.json") }, plainLsblk(machine)];
    for (const texts of [both, both.toReversed()])
      expect(take(emptyMachine(), texts, FIRST).document.facts.drives).toEqual(full.facts.drives);
  });

  it("knows the drives of a poorer listing again when a richer one names them", () => {
    const poor = take(emptyMachine(), [plainLsblk(machine)], FIRST).document;
    expect(poor.facts.drives.every((d) => d.id.startsWith("?"))).toBe(true);
    const both = take(poor, [{ name: "lsblk", text: capture(machine, "lsblk.json") }], FIRST).document;
    expect(both.facts.drives.map((d) => d.id).sort()).toEqual(full.facts.drives.map((d) => d.id).sort());
    expect(Object.keys(both.sources).filter((path) => path.startsWith("drives.?"))).toEqual([]);
  });

  it("keeps the paths of boot entries when they are listed without", () => {
    const text = { name: "efibootmgr", text: capture(machine, "efibootmgr-v.txt") };
    const all = take(emptyMachine(), [text], FIRST).document;
    const again = take(all, [plainEfibootmgr(machine)], FIRST).document;
    expect(again.facts.firmware).toEqual(all.facts.firmware);
  });

  it("loses no fact to any set of its outputs in any order", () => {
    const texts = [
      ...captures(machine, /blank|default/),
      plainLsblk(machine),
      plainEfibootmgr(machine),
      signatures(machine),
    ];
    fc.assert(
      fc.property(fc.shuffledSubarray(texts), (chosen) => {
        let document = emptyMachine();
        let before = new Map<string, unknown>();
        for (const text of chosen) {
          document = mergeReadings(document, readOnce(text), FIRST).document;
          const now = told(document.facts, "");
          // A drive that was only a name has got its identity: its facts stand under that.
          const lost = [...before.keys()].filter((path) => !path.startsWith(".drives[?") && !now.has(path));
          const fewer = [...before].filter(
            ([path, count]) => path.endsWith("#") && (now.get(path) as number) < (count as number),
          );
          expect({ after: text.name, lost, fewer }).toEqual({ after: text.name, lost: [], fewer: [] });
          expect(document.facts.drives.filter((d) => d.missingSince)).toEqual([]);
          before = now;
        }
      }),
      { seed: 14, numRuns: 60 },
    );
  });
});

const reading = (tool: string, facts: TakenReading["reading"]["facts"], complete = {}): TakenReading => ({
  ...{ tool, from: tool, warnings: [], mayBeCut: false },
  reading: { facts, complete, understood: "", ignored: [] },
});
const drive = (more: object) => ({ sizeBytes: 4e12, ...more });
const lay = (document: MachineDocument, ...readings: TakenReading[]) =>
  mergeReadings(document, readings, FIRST);
const ALL = { drives: true, sensors: true, pci: true };

describe("what one listing shows and another cannot see", () => {
  const behind = reading("redfish", {
    drives: [drive({ serial: "BEHIND-1", seenAs: "Disk 0" })],
    sensors: [{ id: "CPU", kind: "temperature", value: 40 }],
  });
  const listed = reading("lsblk", { drives: [drive({ serial: "SEEN-1", seenAs: "sda" })] }, ALL);

  it("is not gone", () => {
    for (const order of [
      [behind, listed],
      [listed, behind],
    ]) {
      const { document } = lay(lay(emptyMachine(), order[0]!).document, order[1]!);
      expect(document.facts.drives.map((d) => [d.id, d.missingSince]).sort()).toEqual([
        ["BEHIND-1", null],
        ["SEEN-1", null],
      ]);
    }
    const sensors = reading("sensors", { sensors: [{ id: "fan1", kind: "fan", value: 900 }] }, ALL);
    const both = lay(lay(emptyMachine(), behind).document, sensors).document;
    expect(both.facts.sensors.map((s) => s.id)).toEqual(["CPU", "fan1"]);
  });

  it("is gone when a listing of its own kind misses it, whatever system ran", () => {
    const bsd = reading("geom disk", { drives: [drive({ serial: "SEEN-2", seenAs: "ada0" })] }, ALL);
    const { document } = lay(lay(emptyMachine(), listed).document, bsd);
    expect(document.facts.drives.map((d) => [d.id, d.missingSince])).toEqual([
      ["SEEN-1", FIRST],
      ["SEEN-2", null],
    ]);
  });

  it("is another device in the same slot, of which nothing old is kept", () => {
    const card = (ids: string, more = {}) =>
      reading("lspci", { pci: [{ slot: "01:00.0", ids, ...more }] }, ALL);
    const before = lay(emptyMachine(), card("1:1", { driver: "old" })).document;
    expect(lay(before, card("1:1")).document.facts.pci).toMatchObject([{ driver: "old" }]);
    expect(lay(before, card("2:2")).document.facts.pci).toMatchObject([{ ids: "2:2", driver: null }]);
  });
});

describe("a drive without serial and WWN", () => {
  const known = lay(
    emptyMachine(),
    reading("lsblk", { drives: [drive({ serial: "A", seenAs: "sda" })] }),
  ).document;
  const named = (name: string, more = {}) => ({ drives: [drive({ seenAs: name, ...more })] });

  it("is the only one of its size, whatever it is called now", () => {
    const { document } = lay(known, reading("lsblk", named("sdf", { model: "ALDER" })));
    expect(document.facts.drives).toMatchObject([{ id: "A", model: "ALDER", seenAs: "sdf" }]);
  });

  it("is not told where several have its size, and nothing is taken of it", () => {
    const two = lay(known, reading("lsblk", { drives: [drive({ serial: "B", seenAs: "sdb" })] })).document;
    const { document, remarks, changes } = lay(two, reading("lsblk", named("sda", { model: "WRONG" })));
    expect([document.facts, changes]).toEqual([two.facts, []]);
    expect(remarks).toEqual([
      expect.stringMatching(
        /^lsblk reports sda without serial number and WWN, and 2 drives .* cannot be identified.*-O/,
      ),
    ]);
    const pair = { drives: [...named("sda").drives, ...named("sdb").drives] };
    expect(lay(known, reading("lsblk", pair)).document.facts.drives).toEqual(known.facts.drives);
  });

  it("in another bay is another drive, and without a name it is not known which", () => {
    const placed = placeDrive(known, "A", "3", FIRST, "J. Pell");
    const other = lay(placed, reading("lsblk", named("sdf", { bay: "5" }))).document.facts.drives;
    expect(other.map((d) => d.id)).toEqual(["A", "?sdf"]);
    const twice = { drives: [drive({ bay: "1" }), drive({ bay: "2" })] };
    const { document, remarks } = lay(emptyMachine(), reading("redfish", twice));
    expect(document.facts.drives).toEqual([]);
    expect(remarks).toEqual([
      expect.stringMatching(/a drive in bay 1 without serial/),
      expect.stringMatching(/bay 2/),
    ]);
  });

  it("is one drive by its name where nothing else is known, of whatever size", () => {
    const first = lay(emptyMachine(), reading("geom disk", named("ada0"))).document;
    const { document } = lay(first, reading("geom disk", named("ada0", { sizeBytes: 8e12 })));
    expect(document.facts.drives).toMatchObject([{ id: "?ada0", sizeBytes: 8e12 }]);
  });

  it("keeps what was told of it when it gets a name, and what a person placed", () => {
    const nameless = lay(emptyMachine(), reading("lsblk", named("sda", { model: "ALDER" }))).document;
    const placed = placeDrive(nameless, "?sda", "3", FIRST, "J. Pell");
    const { document, changes } = lay(placed, reading("smartctl", named("sda", { serial: "A" })));
    expect(document.facts.drives).toMatchObject([{ id: "A", model: "ALDER", bay: "3" }]);
    expect(document.typed.placed).toEqual({ A: "3" });
    expect(document.sources["drives.A.model"]?.tool).toBe("lsblk");
    expect(changes).toMatchObject([{ path: "drives.A.id", before: "?sda", after: "A" }, { after: "A" }]);
  });
});

it("a listing without the column of signatures is not told to be run as root for them", () => {
  const plain = readTexts([plainLsblk("server-bios-small")]).readings[0]!.reading;
  expect(plain.ignored.join(" ")).not.toContain("root");
  expect(plain.understood).toMatch(/no serial numbers and WWNs \(lsblk -J -b -O prints them\)/);
});

it("partitions of which lsblk may read nothing are not read, and not empty", () => {
  const text = JSON.stringify({
    blockdevices: [
      {
        ...{ name: "sda", type: "disk", size: 4e12, serial: "A", fstype: null, pttype: null },
        children: [{ name: "sda1", type: "part", size: 1e12, fstype: null, pttype: null }],
      },
      { name: "sdb", type: "disk", size: 8e12, serial: "B", fstype: null, pttype: null },
    ],
  });
  const { document } = take(emptyMachine(), [{ name: "lsblk", text }], FIRST);
  expect(document.facts.drives.map((d) => d.contents?.map((c) => c.kind) ?? null)).toEqual([
    ["unknown content"],
    null,
  ]);
});
