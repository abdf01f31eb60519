import { describe, expect, it } from "vitest";
import { aDrive } from "../../../../tests/support/builds";
import { deviceOf, driveNamed, findDrive, plainWwn } from "./identity";
import { emptyMachine, mergeReadings, placeDrive, type MachineDocument } from "..";
import type { TakenReading } from "../intake/intake";

const AT = "2026-11-24T08:00:00.000Z";
const never = () => false;

describe("one drive told by two tools", () => {
  const a = aDrive("ZA-1", { wwn: "0x5000c50000000101", seenAs: "sda" });
  const bare = aDrive("0x5000c50000000102", { serial: null, wwn: "0x5000c50000000102", seenAs: "sdb" });

  it("is found by serial, whatever it is called now", () => {
    expect(findDrive([a, bare], { serial: "ZA-1", seenAs: "sdx" }, never)).toBe(a);
  });

  it("is found by WWN in any spelling, where one side has no serial", () => {
    expect(findDrive([a, bare], { wwn: "naa.5000C50000000102", serial: "ZB-2" }, never)).toBe(bare);
    expect(["0x5000c5", "naa.5000c5", "wwn-0x5000c5", "eui.5000C5"].map(plainWwn)).toEqual(
      Array(4).fill("5000c5"),
    );
  });

  it("is not joined by WWN to another serial: whole batches share one", () => {
    expect(findDrive([a], { serial: "ZA-9", wwn: a.wwn }, never)).toBeUndefined();
  });

  it("is known by a serial that is really its WWN", () => {
    const sas = aDrive("5000c50000000103", { wwn: "0x5000c50000000103" });
    expect(findDrive([sas], { serial: "ZC-3", wwn: "5000c50000000103" }, never)).toBe(sas);
  });

  it("is found by name only within one reading of the machine", () => {
    expect(findDrive([a], { seenAs: "sda" }, never)).toBeUndefined();
    expect(findDrive([a], { seenAs: "sda" }, () => true)).toBe(a);
  });
});

it("finds the device under a partition, and the drive behind a by-id name", () => {
  expect(
    ["sda1", "/dev/nvme0n1p3", "mmcblk0p1", "vdb", "disk/by-id/ata-X_ZA-100-part1"].map(deviceOf),
  ).toEqual(["sda", "nvme0n1", "mmcblk0", "vdb", "ata-X_ZA-100"]);
  const drive = aDrive("ZA-10000", { wwn: "0x5000c50000000104" });
  expect(driveNamed([drive], "ata-ALDER_ZA-10000-part1")).toBe(drive);
  expect(driveNamed([drive], "wwn-0x5000c50000000104")).toBe(drive);
  expect(driveNamed([drive], "gptid/aa-bb")).toBeUndefined();
});

const reading = (tool: string, facts: TakenReading["reading"]["facts"]): TakenReading => ({
  tool,
  from: tool,
  reading: { facts, understood: "", ignored: [] },
  warnings: [],
  mayBeCut: false,
});

describe("tools that disagree", () => {
  const first = mergeReadings(
    emptyMachine(),
    [reading("dmidecode", { chassis: { serial: "OST-1", model: "R114" } })],
    AT,
  );

  it("leave both values, the later standing, until one gives in", () => {
    const second = mergeReadings(
      first.document,
      [reading("redfish", { chassis: { serial: "OST-2", model: "R114 (rev 2)" } })],
      AT,
    );
    expect(second.document.facts.chassis).toMatchObject({ serial: "OST-2", model: "R114 (rev 2)" });
    expect(second.document.disputes).toMatchObject({
      "chassis.serial": [{ value: "OST-1", source: { tool: "dmidecode" } }],
    });
    const third = mergeReadings(
      second.document,
      [reading("dmidecode", { chassis: { serial: "OST-2" } })],
      AT,
    );
    expect(third.document.disputes).toEqual({});
  });

  it("about wording only are no dispute, and the fuller wording stands", () => {
    const drive = (model: string) => ({ drives: [{ serial: "Z", seenAs: "sda", model, sizeBytes: 5 }] });
    const both = mergeReadings(
      emptyMachine(),
      [reading("smartctl", drive("ALDER A-480 PRO")), reading("lsblk", drive("ALDER_A-480"))],
      AT,
    );
    expect(both.document.disputes).toEqual({});
    expect(both.document.facts.drives[0]?.model).toBe("ALDER A-480 PRO");
  });
});

describe("a bay given by hand", () => {
  const seen = (bay?: string) =>
    reading("redfish", {
      drives: [
        { serial: "Z", seenAs: "sda", sizeBytes: 5, bay },
        { serial: "Y", seenAs: "sdb", sizeBytes: 5 },
      ],
    });
  const start = mergeReadings(emptyMachine(), [seen("2")], AT).document;
  const bayOf = (d: MachineDocument, id: string) => d.facts.drives.find((x) => x.id === id)?.bay;

  it("stays with the serial through imports that call it something else", () => {
    const placed = placeDrive(start, "Z", "7", AT, "J. Pell");
    const after = mergeReadings(placed, [seen("2")], AT).document;
    expect(bayOf(after, "Z")).toBe("7");
    expect(after.disputes["drives.Z.bay"]).toMatchObject([{ value: "2" }]);
    expect(after.sources["drives.Z.bay"]).toMatchObject({ tool: "typed", from: "J. Pell" });
  });

  it("can be taken back, and holds one drive at a time", () => {
    const placed = mergeReadings(placeDrive(start, "Z", "7", AT, "x"), [seen("2")], AT).document;
    expect(bayOf(placeDrive(placed, "Z", null, AT, "x"), "Z")).toBe("2");
    const other = placeDrive(placed, "Y", "7", AT, "x");
    expect([bayOf(other, "Y"), bayOf(other, "Z")]).toEqual(["7", null]);
  });
});
