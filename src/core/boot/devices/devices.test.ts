import { describe, expect, it } from "vitest";
import { aBuild, aDrive, type BuildChanges } from "../../../../tests/support/builds";
import { withCards } from "../../../../tests/support/boot-cards";
import { bootSchools, SCHOOLS, secondDevice, type School } from ".";

const of = (school: School, changes: BuildChanges = {}) =>
  bootSchools(aBuild(changes)).find((s) => s.school === school)!;
describe("the schools of boot devices on a machine", () => {
  it("are all judged, each with what it stands on or what is missing", () => {
    const all = bootSchools(aBuild());
    expect(all.map((s) => s.school).toSorted()).toEqual([...SCHOOLS].toSorted());
    expect(all.every((s) => s.here !== "")).toBe(true);
    expect(bootSchools(aBuild({ machine: null }))).toEqual([]);
  });

  it("tell a mirror of cards with its sync and its end, and one card as an exception", () => {
    const syncing = {
      state: "degraded: syncing",
      progress: { what: "sync", percent: 38, secondsLeft: 1560 },
    };
    const mirror = of("mirrored cards", withCards(2, syncing));
    expect(mirror).toMatchObject({
      isPossible: true,
      survives: 1,
      bays: 0,
      isChosen: true,
      keeps: "all data drives",
    });
    expect(mirror.here).toBe("degraded: syncing, 38 %, about 26 min left");
    expect(of("mirrored cards", withCards(1))).toMatchObject({
      isPossible: false,
      here: "the module has one card",
    });
    expect(of("one card", withCards(1))).toMatchObject({ isChosen: true, survives: 0 });
    expect(of("one card")).toMatchObject({
      isPossible: false,
      here: "this machine has no boot card module",
    });
  });

  it("count the bays that a pair takes, and see no pair where drives are of two sizes", () => {
    const drives = (second: number) => [
      aDrive("NV-0001", { bay: "0" }),
      aDrive("NV-0002", { bay: "1", sizeBytes: second }),
    ];
    const equal = of("mirrored drives", { drives: drives(480_103_981_056) });
    expect(equal).toMatchObject({ isPossible: true, bays: 2, survives: 1, here: "bay 0 and bay 1" });
    expect(of("mirrored drives", { drives: drives(960e9) }).isPossible).toBe(false);
    expect(of("one drive", { drives: drives(960e9) })).toMatchObject({ isChosen: true, bays: 1 });
  });

  it("take drives of a RAID controller for a hardware mirror only while they are in no set", () => {
    expect(of("hardware mirror", withCards(2))).toMatchObject({ isPossible: true, here: "bay 0 and bay 1" });
    expect(of("one drive", withCards(2)).isPossible).toBe(false);
    const used = withCards(2);
    used.drives = used.drives!.map((d) => ({
      ...d,
      memberOf: d.bay === "0" ? ["virtual drive R5"] : d.memberOf,
    }));
    expect(of("hardware mirror", used).isPossible).toBe(false);
  });

  it("say what the profile says, and of wear what the drives tell", () => {
    expect(of("external drive").profile?.verdict).toBe("not supported");
    expect(of("network each time").profile).toBeNull();
    const worn = aDrive("NV-0001", { health: { wearPercent: 12, hours: 11_840 } });
    expect(of("one drive", { drives: [worn] }).wear).toBe("12 % worn, 11,840 h");
    expect(of("one drive").wear).toBe("not reported");
  });

  it("know a SAN only where the firmware has a boot entry for one, and the network where a port has a link", () => {
    const entries = [
      {
        id: "0001",
        label: "SAN",
        active: true,
        kind: "other" as const,
        path: "MAC(02610a000014,1)/iSCSI(iqn.a:b,1,0)",
      },
    ];
    const listed = (more: typeof entries): BuildChanges["facts"] => ({
      firmware: { mode: "uefi", order: [], entries: more },
    });
    const local = [{ ...entries[0]!, path: "HD(1,GPT,aa-01)/File(\\a.efi)" }];
    const volume = aDrive("LUN-0001", { san: "iSCSI", sanPaths: 2 });
    expect(of("SAN volume").here).toBe("the boot entries of the firmware were not collected");
    expect(of("SAN volume", { facts: listed(local) }).here).toMatch(/^no hardware initiator/);
    expect(of("SAN volume", { facts: listed(entries) }).isPossible).toBe(true);
    expect(of("SAN volume", { drives: [volume], sheet: { "storage.target": volume.id } })).toMatchObject({
      ...{ here: "iSCSI volume, 2 paths", isChosen: true },
    });
    expect(of("one drive", { drives: [volume] }).isPossible).toBe(false);
    expect(of("network each time", { portLink: "down" }).here).toBe("no wired port has a link");
  });
});

describe("what a second device is worth", () => {
  it("is the loss that it saves: both must fail before the first is replaced", () => {
    const { single, pair, paidAfterYears } = secondDevice({
      ...{ failuresPerYear: 0.05, dayPrice: 2000, devicePrice: 90, replacedWithinDays: 7 },
    });
    expect(single).toBeCloseTo(100, 9);
    expect(pair).toBeCloseTo(2 * 0.05 * ((0.05 * 7) / 365) * 2000, 9);
    expect(paidAfterYears).toBeCloseTo(90 / (100 - pair), 9);
  });

  it("is never paid for where waiting half a year or more eats what it saves", () => {
    const slow = { failuresPerYear: 1, dayPrice: 10, devicePrice: 5, replacedWithinDays: 365 };
    expect(secondDevice(slow).paidAfterYears).toBeNull();
  });
});
