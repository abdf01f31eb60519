import { describe, expect, it } from "vitest";
import { aBuild, aDrive } from "../../../../tests/support/builds";
import {
  bayName,
  compareDelivery,
  drawMachine,
  judgeDrive,
  machineDocumentSchema,
  type BayGroup,
  type Drive,
} from "..";
import { compareVersions } from "../../text";

const document = (facts: object, typed: object = {}) => {
  const base = aBuild().machine!.document;
  return machineDocumentSchema.parse({
    ...base,
    facts: { ...base.facts, ...facts },
    typed: { ...base.typed, ...typed },
  });
};
const group: BayGroup = {
  title: "Front",
  face: "front",
  size: "large",
  columns: 4,
  rows: 3,
  first: 0,
  order: "columns",
  prefix: "",
};

describe("the drawing of a machine", () => {
  it("numbers bays down columns or along rows, as the maker does", () => {
    const { front } = drawMachine(document({ drives: [aDrive("Z-1", { bay: "4" })] }, { bays: [group] }));
    const bay = front[0]?.bays.find((b) => b.name === "4");
    expect([bay?.column, bay?.row, bay?.drive?.id]).toEqual([1, 1, "Z-1"]);
    const rows = drawMachine(document({}, { bays: [{ ...group, order: "rows" }] })).front[0]?.bays[4];
    expect([rows?.column, rows?.row, rows?.drive]).toEqual([0, 1, null]);
  });

  it("shows bays that only drives name, and lays the rest beside the machine", () => {
    const drawing = drawMachine(
      document({
        drives: [
          aDrive("A", { bay: "2" }),
          aDrive("B", { bay: "rear 0" }),
          aDrive("C", { bay: "boot module" }),
          aDrive("D", {}),
        ],
      }),
    );
    expect(drawing.front[0]).toMatchObject({ typed: false, first: 2, bays: [{ name: "2" }] });
    expect(drawing.rear[0]?.bays[0]?.name).toBe("rear 0");
    expect(drawing.inside[0]?.bays[0]?.drive?.id).toBe("C");
    expect(drawing.unplaced.map((d) => d.id)).toEqual(["D"]);
    expect(bayName({ ...group, columns: 1, rows: 1, prefix: "boot module" }, 0)).toBe("boot module");
  });

  it("puts the ports of one card together", () => {
    const port = (n: number, pci: string) => ({
      mac: `02:00:00:00:00:0${n}`,
      seenAs: `p${n}`,
      kind: "ethernet",
      link: "up",
      pci,
    });
    const pci = [
      {
        slot: "04:00.0",
        className: "Ethernet",
        classId: "0200",
        maker: "Halden",
        device: "Twin port",
        ids: "1:2",
        place: "slot 2",
      },
    ];
    const { cards } = drawMachine(
      document({
        ports: [port(1, "04:00.0"), port(2, "04:00.1"), port(3, "00:14.0")],
        pci: [...pci, { ...pci[0], slot: "04:00.1" }],
      }),
    );
    expect(cards.map((c) => [c.place, c.ports.length])).toEqual([
      ["", 1],
      ["slot 2", 2],
    ]);
  });
});

describe("the judgement of a drive", () => {
  const of = (health: Drive["health"], media: Drive["media"] = "spinning") =>
    judgeDrive(aDrive("Z", { health, media }));

  it("takes silence for silence", () => {
    expect(of(null).verdict).toBe("not known");
    expect(of({ warnings: [] }).verdict).toBe("not known");
  });

  it.each([
    ["good", { passed: true, hours: 8766, reallocated: 0 }, "8,766 h (1.0 years) of operation, no errors"],
    ["watch", { hours: 44_000 }, "44,000 h (5.0 years) of operation"],
    ["watch", { reallocated: 49 }, "49 reallocated sectors"],
    ["failing", { reallocated: 50 }, "50 reallocated sectors"],
    ["failing", { pending: 1 }, "1 pending sectors"],
    ["failing", { passed: false }, "the drive reports that it is failing"],
    ["watch", { wearPercent: 80 }, "80 % of the rated writes used"],
    ["failing", { wearPercent: 100 }, "100 % of the rated writes used"],
    ["failing", { sparePercent: 10, spareThresholdPercent: 10 }, "spare blocks at 10 %, threshold 10 %"],
    ["watch", { temperatureC: 55 }, "55 °C; the usual limit is 55 °C"],
    [
      "failing",
      { selfTest: { kind: "Short offline", passed: false, atHours: 3 } },
      "its last self-test (Short offline) failed",
    ],
  ] as const)("is %s for %j", (verdict, health, reason) => {
    expect(of(health as Drive["health"])).toEqual({ verdict, reasons: [reason] });
  });
});

it("compares the delivery note with the machine, and never calls unseen what differs", () => {
  const note = {
    from: "7711",
    model: "R 114",
    serial: "OST-1",
    cores: 16,
    memoryBytes: 64 * 2 ** 30,
    memoryModules: 2,
    ports: 1,
    drives: [
      { count: 2, sizeBytes: 480e9, model: "" },
      { count: 1, sizeBytes: 480e9, model: "Birch" },
    ],
  };
  expect(compareDelivery(document({}, { expected: note })).map((l) => [l.what, l.verdict])).toEqual([
    ["Model", "as expected"],
    ["Serial number", "as expected"],
    ["Cores", "differs"],
    ["Memory", "as expected"],
    ["Memory modules", "not seen"],
    ["Network ports", "as expected"],
    ["Drives of 480 GB", "differs"],
    ["Drives of 480 GB (Birch)", "differs"],
  ]);
});

it("orders versions by their numbers", () => {
  const order = (a: string, b: string) => Math.sign(compareVersions(a, b));
  expect([
    order("2.9", "2.11.2"),
    order("1.4", "1.4.0"),
    order("2.0b", "2.0a"),
    order("x86-64-v3", "x86-64-v2"),
    order("", "1"),
  ]).toEqual([-1, 0, 1, 1, 0]);
});
