import { describe, expect, it } from "vitest";
import { aDrive } from "../../../../tests/support/builds";
import { cameFrom, layOnShelf, recordWipe, registerKey, sightDrive, whereWords } from "./register";

const day = (n: number) => `2026-11-${String(n).padStart(2, "0")}T08:00:00.000Z`;
const a = { id: "m-a", name: "wrk-a" };
const b = { id: "m-b", name: "wrk-b" };
const drive = aDrive("ZA-1", {
  bay: "3",
  health: { hours: 900 },
  contents: [{ part: "a1", sizeBytes: 9, kind: "ext4", label: "data", mountedAt: [] }],
});

describe("a drive in the register", () => {
  const first = sightDrive(null, drive, a, day(1));

  it("sits where it was seen, with what was on it", () => {
    expect(whereWords(first)).toBe("wrk-a, bay 3");
    expect(first).toMatchObject({
      holds: 'ext4 "data"',
      stays: [{ machineId: "m-a", until: null }],
      held: [{ machine: "wrk-a" }],
    });
  });

  it("seen again in the same place adds nothing", () => {
    expect(sightDrive(first, drive, a, day(2))).toEqual(first);
  });

  it("that moves keeps where it came from, and its hours at the move", () => {
    const moved = sightDrive(first, { ...drive, contents: [], health: { hours: 950 } }, b, day(5));
    expect(moved.stays).toMatchObject([
      { machine: "wrk-a", until: day(5) },
      { machine: "wrk-b", from: day(5), until: null, hoursAtStart: 950 },
    ]);
    expect(cameFrom(moved)).toEqual({ machine: "wrk-a", hours: 950 });
    expect(moved.held.map((h) => h.what)).toEqual(['ext4 "data"', "nothing found"]);
    // The old machine notices later that it is gone: that does not end the new stay.
    expect(sightDrive(moved, { ...drive, missingSince: day(6) }, a, day(6))).toEqual(moved);
  });

  it("that is gone is not seen; on the shelf it has a place", () => {
    const gone = sightDrive(first, { ...drive, missingSince: day(3) }, a, day(3));
    expect(whereWords(gone)).toBe("not found since it left wrk-a");
    const shelf = layOnShelf(first, "store room, shelf 2", true, day(4));
    expect([whereWords(shelf), shelf.spare, shelf.stays[0]?.until]).toEqual([
      "store room, shelf 2",
      true,
      day(4),
    ]);
  });

  it("keeps a ledger of how it was erased and what it held", () => {
    const wiped = recordWipe(first, {
      at: day(4),
      by: "J. Pell",
      method: "secure erase of the drive",
      remark: "",
    });
    expect(wiped).toMatchObject({ holds: "nothing", wipes: [{ was: 'ext4 "data"', by: "J. Pell" }] });
    expect(recordWipe(first, { at: day(4), by: "J", method: "signatures only", remark: "" }).holds).toContain(
      "the data is still readable",
    );
    expect(whereWords(recordWipe(first, { at: day(4), by: "J", method: "destroyed", remark: "" }))).toBe(
      "destroyed",
    );
  });
});

it("knows a drive by serial, else by WWN, else not at all", () => {
  expect(registerKey(aDrive("za-1 ", {}))).toBe("ZA-1");
  expect(registerKey(aDrive("x", { serial: null, wwn: "naa.5000C5" }))).toBe("5000c5");
  expect(registerKey(aDrive("?sda", { serial: null, wwn: null }))).toBeNull();
});
