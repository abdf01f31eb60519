import { describe, expect, it } from "vitest";
import { emptyMachine, fillFromList, type ListedMachine, type MachineDocument } from "..";

const AT = "2026-11-24T08:00:00.000Z";
const FROM = "rack-list.csv";
const NOTHING: ListedMachine = {
  ...{ line: 2, name: "wrk-x", site: "Works", maker: null, model: null, serial: null, assetTag: null },
  ...{ place: null, role: null, controller: null, macs: [], memoryBytes: null, cores: null, notes: null },
};
const fill = (row: Partial<ListedMachine>, document: MachineDocument = emptyMachine()) =>
  fillFromList(document, { ...NOTHING, ...row }, FROM, AT);

describe("a row of a list", () => {
  it.each<[string, Partial<ListedMachine>, string[], (d: MachineDocument) => unknown, unknown]>([
    ["a serial", { serial: "OST-7" }, ["serial"], (d) => d.facts.chassis?.serial, "OST-7"],
    [
      "a controller",
      { controller: "10.61.10.9" },
      ["controller"],
      (d) => d.facts.controller?.address,
      "10.61.10.9",
    ],
    ["a place", { place: "rack B" }, ["place"], (d) => d.typed.place, "rack B"],
    ["a role in any case", { role: "Storage" }, ["role"], (d) => d.typed.role, "storage"],
    ["a role that is none", { role: "pet" }, [], (d) => d.typed.role, null],
    ["cores", { cores: 8 }, ["expected"], (d) => d.typed.expected?.cores, 8],
    ["memory", { memoryBytes: 2 ** 36 }, ["expected"], (d) => d.typed.expected?.memoryBytes, 2 ** 36],
    [
      "ports",
      { macs: ["02:61:0a:00:00:01"] },
      ["ports"],
      (d) => d.facts.ports.map((p) => p.link),
      ["unknown"],
    ],
    ["notes", { notes: "key F11" }, ["notes"], (d) => d.notes, "key F11"],
    ["nothing", {}, [], (d) => d, emptyMachine()],
  ])("with %s fills the gap, and says so", (_, row, fills, see, value) => {
    const filled = fill(row);
    expect([filled.fills, see(filled.document)]).toEqual([fills, value]);
  });

  it("marks what it filled as typed from that file, and what somebody wrote down as expected, not observed", () => {
    const { document } = fill({ serial: "OST-7", cores: 8, macs: ["02:61:0a:00:00:01"] });
    expect(document.sources["chassis.serial"]).toEqual({ tool: "typed", from: FROM, at: AT });
    expect(document.sources["ports.02:61:0a:00:00:01.mac"]).toEqual({ tool: "typed", from: FROM, at: AT });
    expect([document.facts.processors?.cores, document.typed.expected?.from]).toEqual([undefined, FROM]);
  });

  it("overwrites nothing that is there: laid over itself, or under another, it changes nothing", () => {
    const row = {
      ...{
        maker: "Ostler",
        model: "R114",
        serial: "OST-7",
        assetTag: "A1",
        place: "rack B",
        role: "storage",
      },
      ...{
        controller: "10.61.10.9",
        macs: ["02:61:0a:00:00:01"],
        memoryBytes: 2 ** 36,
        cores: 8,
        notes: "n",
      },
    };
    const { document } = fill(row);
    expect(fill(row, document)).toEqual({ document, fills: [] });
    const other = {
      ...{ maker: "Varley", model: "W7", serial: "V-1", assetTag: "A2", place: "rack C", role: "bench" },
      ...{ controller: "10.61.10.8", macs: ["02:61:0a:00:00:02"], memoryBytes: 1, cores: 1, notes: "m" },
    };
    expect(fill(other, document)).toEqual({ document, fills: [] });
  });
});
