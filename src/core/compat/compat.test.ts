import { expect, it } from "vitest";
import { aBuild } from "../../../tests/support/builds";
import { compatNoteSchema, coversVersion, matchNotes, noteProblems } from ".";

const note = (kind: string, value: string, more: object = {}) =>
  compatNoteSchema.parse({
    schemaVersion: 1,
    subject: { kind, value },
    profile: "cairn-hypervisor",
    verdict: "works",
    by: "J. Pell",
    at: "2026-11-20T08:00:00Z",
    ...more,
  });
const facts = {
  ...aBuild().machine!.document.facts,
  pci: [
    {
      slot: "04:00.0",
      className: "Ethernet",
      classId: "0200",
      maker: "Halden",
      device: "Twin port",
      ids: "f0a1:10d3",
      subsystem: null,
      driver: null,
      iommuGroup: null,
      place: null,
    },
  ],
  usb: [{ ids: "46f4:0001", name: "Stick" }],
};

it("covers a version and what is under it", () => {
  expect([
    coversVersion("9", "9.1"),
    coversVersion("9", "9"),
    coversVersion("9", "90"),
    coversVersion("", "7"),
    coversVersion("9.1", "9"),
  ]).toEqual([true, true, false, true, false]);
});

it("meets devices by id, drives and machines by model, under its profile only", () => {
  const notes = [
    note("pci", "f0a1:10d3"),
    note("usb", "46f4:0001"),
    note("drive model", "alder-480"),
    note("machine model", "Ostler R114"),
    note("pci", "ffff:0000"),
    note("pci", "f0a1:10d3", { profile: "lowland-server" }),
    note("pci", "f0a1:10d3", { version: "8" }),
  ];
  expect(matchNotes(notes, facts, "cairn-hypervisor", "9.0").map((h) => h.part)).toEqual([
    "Halden Twin port",
    "Stick",
    "1 × Alder 480",
    "Ostler R114",
  ]);
});

it("asks for ids that are ids, and for the condition", () => {
  expect(noteProblems(note("pci", "10d3"))[0]).toMatch(/f0a1:10d3/);
  expect(noteProblems(note("pci", "f0a1:10d3", { verdict: "works with a condition" }))[0]).toMatch(
    /condition/,
  );
  expect(noteProblems(note("drive model", "Alder"))).toEqual([]);
});
