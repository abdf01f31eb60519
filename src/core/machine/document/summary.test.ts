import { describe, expect, it } from "vitest";
import { captures } from "../../../../tests/support/formats";
import {
  emptyMachine,
  mergeReadings,
  readTexts,
  summaryOf,
  typedSchema,
  type Drive,
  type MachineDocument,
} from "..";

const AT = "2026-11-24T08:00:00.000Z";
const read: MachineDocument = mergeReadings(
  emptyMachine(),
  readTexts(captures("server-uefi-2socket")).readings,
  AT,
).document;
const drive = (changes: Partial<Drive>): Drive => ({ ...read.facts.drives[0]!, health: null, ...changes });
const withDrives = (...drives: Drive[]) => summaryOf({ ...read, facts: { ...read.facts, drives } });

describe("what lists show of a machine", () => {
  it("is what its tools told", () =>
    expect(summaryOf(read)).toMatchObject({
      ...{ maker: "Example", assetTag: "ASSET-0042", cores: 4, drives: 11, ports: 3, address: "192.0.2.10" },
      ...{ firmware: "2.4.1", readAt: AT, defects: 0, dates: [] },
    }));

  it("is empty, and no more than that, where nobody has read anything", () =>
    expect(summaryOf(emptyMachine())).toEqual({
      ...{ maker: "", model: "", assetTag: "", role: "", place: "", address: "", controller: "" },
      ...{ cores: null, memoryBytes: null, drives: 0, ports: 0, rawBytes: 0, health: "not known" },
      ...{ firmware: "", processor: "", system: "", readAt: null, defects: 0, dates: [] },
    }));

  it("counts drives that are there", () => {
    const gone = drive({ id: "gone", missingSince: AT });
    expect(withDrives(drive({ sizeBytes: 7 }), gone)).toMatchObject({ drives: 1, rawBytes: 7 });
  });

  it.each<[string, Drive[], string]>([
    [
      "the worst drive",
      [drive({ health: { passed: true } }), drive({ health: { passed: false } })],
      "failing",
    ],
    ["no drive that keeps no counters", [drive({ health: { passed: false }, media: "usb" })], "not known"],
    [
      "no set that a controller shows",
      [drive({ health: { passed: false }, presentedBy: "v0" })],
      "not known",
    ],
    ["one that nobody has asked", [drive({})], "not known"],
  ])("tells the health of %s", (_, drives, health) => expect(withDrives(...drives).health).toBe(health));

  it("calls for what is due and not done, and for firmware that was put off", () => {
    const day = { id: "d", what: "Scrub", due: "2026-12-01", by: "J. Pell" };
    const typed = typedSchema.parse({ dates: [day, { ...day, id: "e", doneOn: "2026-11-20" }] });
    expect(summaryOf({ ...read, typed }).dates).toEqual([{ due: "2026-12-01", what: "Scrub" }]);
  });
});
