import { expect, it } from "vitest";
import { captures } from "../../../tests/support/formats";
import { emptyMachine, mergeReadings, readTexts } from "../machine";
import { dispositionOf, drivesAlike, identityOf, installerSize, memberPartners } from ".";

const { facts } = mergeReadings(
  emptyMachine(),
  readTexts(captures("server-uefi-2socket")).readings,
  "2026-11-24T08:00:00Z",
).document;
const drive = (id: string) => facts.drives.find((d) => d.id === id)!;

it("finds the drives that an installer's list cannot tell apart", () => {
  expect(drivesAlike(facts, drive("SAMPLENVME0001")).map((d) => d.id)).toEqual(["SAMPLENVME0002"]);
  expect(drivesAlike(facts, drive("SAMPLESAS0001"))).toHaveLength(5);
  expect(drivesAlike(facts, drive("SAMPLEUSB01"))).toEqual([]);
  expect(installerSize(drive("SAMPLENVME0001"))).toBe("447 GiB");
});

it("names the other members of what a drive belongs to", () => {
  const partners = memberPartners(facts, drive("SAMPLENVME0001"));
  expect(partners.map((p) => [p.name, p.partners.map((d) => d.id)])).toEqual([
    ["array md0", ["SAMPLENVME0002"]],
    ["array md1", ["SAMPLENVME0002"]],
    ["volume group vg0", ["SAMPLENVME0002"]],
  ]);
});

it("tells what a plan does with each drive, and what identifies it", () => {
  const plan = {
    target: "a",
    partners: [{ drive: "e", role: "spare" as const }],
    layout: "mirror" as const,
    leaveAlone: ["b"],
    free: ["c"],
    sets: [{ id: "1", members: ["f"], spares: ["g"], special: ["h"], logs: ["i"], caches: ["j"] }],
  };
  expect(["a", "e", "b", "c", "d", "f", "g", "h", "i", "j"].map((id) => dispositionOf({ id }, plan))).toEqual(
    ["target", "target", "leave alone", "free", "undecided", ...Array<string>(5).fill("set")],
  );
  expect(identityOf({ ...drive("SAMPLEUSB01"), serial: null })).toBe("letter");
});
