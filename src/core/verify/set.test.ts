import { describe, expect, it } from "vitest";
import { aBuild, aDrive } from "../../../tests/support/builds";
import { bulks, withSet } from "../../../tests/support/firing-sets";
import { factsSchema } from "../machine";
import { compareWithPlan, planExpectations } from ".";

const POOL = { id: "pool tank", kind: "pool", name: "tank", state: "ONLINE", health: "good" };
const member = (id: string, more: object = {}) => ({
  name: `ata-${id}`,
  drive: id,
  state: "ONLINE",
  ...more,
});
const six = bulks(6).map((d) => d.id);
const READING = { takenAt: "2026-11-20T09:00:00Z", now: "2026-11-20T09:05:00Z", startedAt: null };

/** The line of the planned set, compared with these sets as the machine tells them. */
function lineOf(set: object, sets: object[]) {
  const plan = planExpectations(aBuild(withSet(set, bulks(7))));
  const facts = factsSchema.parse({ drives: [aDrive("NV-0001", {}), ...bulks(7)], sets });
  const line = compareWithPlan(plan, facts, READING as never).find((l) => l.id === "set-1");
  return line ? [line.verdict, line.found, line.planned] : null;
}
const raidz2 = { type: "raidz2", members: six, spares: ["CB-07"] };
const asPlanned = {
  ...{ ...POOL, level: "raidz2", sizeBytes: 71_984_000_000_000 },
  members: [...six.map((id) => member(id)), member("CB-07", { role: "spare", state: "AVAIL" })],
};

describe("a set that was planned", () => {
  it("is as planned with its layout, drives, spare and size", () =>
    expect(lineOf(raidz2, [asPlanned])).toEqual([
      "as planned",
      "raidz2, 72.0 TB (65.5 TiB)",
      "raidz2 of 6, 1 spare, 72.0 TB (65.5 TiB)",
    ]));

  it.each<[string, object[], RegExp]>([
    ["another layout", [{ ...asPlanned, level: "raidz1" }], /it is raidz1/],
    ["another size", [{ ...asPlanned, sizeBytes: 60e12 }], /it has 60\.0 TB/],
    ["another name", [{ ...asPlanned, name: "store" }], /no pool with this name/],
    ["no spare", [{ ...asPlanned, members: asPlanned.members.slice(0, 6) }], /without bay 7.* as spare/],
    [
      "a spare that stands by as a log",
      [{ ...asPlanned, members: [...asPlanned.members.slice(0, 6), member("CB-07", { role: "log" })] }],
      /without bay 7.* as spare, with bay 7.* as log/,
    ],
    [
      "a drive that was not planned",
      [{ ...asPlanned, members: [...asPlanned.members, member("NV-0001")] }],
      /with Alder 480/,
    ],
    [
      "a failed member",
      [
        {
          ...{ ...asPlanned, health: "degraded" },
          members: asPlanned.members.map((m, i) => (i === 0 ? { ...m, state: "FAULTED" } : m)),
        },
      ],
      /it is degraded: ata-CB-01/,
    ],
  ])("differs with %s", (_, sets, says) => {
    const line = lineOf(raidz2, sets);
    expect(line?.[0]).toBe("differs");
    expect(line?.[1]).toMatch(says);
  });

  it.each<[string, object[], RegExp]>([
    ["no output was imported", [], /no pool was collected/],
    ["only its size was", [{ ...asPlanned, level: null, members: [] }], /its layout/],
    [
      "its drives are not known",
      [{ ...asPlanned, members: [{ name: "gptid/aa", state: "ONLINE" }] }],
      /its member drives/,
    ],
    ["its size was not", [{ ...asPlanned, sizeBytes: null }], /its size/],
  ])("is not seen where %s", (_, sets, says) => {
    const line = lineOf(raidz2, sets);
    expect(line?.[0]).toBe("not seen");
    expect(line?.[1]).toMatch(says);
  });

  it("of several groups is told with how many, and spares inside a dRAID are no drives", () => {
    const mirrors = { type: "mirror", groups: 3, members: six };
    const made = {
      ...asPlanned,
      level: "3 × mirror",
      sizeBytes: 35_992_000_000_000,
      members: six.map((id) => member(id)),
    };
    expect(lineOf(mirrors, [made])?.[0]).toBe("as planned");
    const draid = { type: "draid1", data: 4, distributed: 1, members: bulks(7).map((d) => d.id) };
    const inside = { name: "draid1-0-0", role: "spare", state: "AVAIL" };
    const told = { ...POOL, level: "draid1:4d:7c:1s", sizeBytes: null };
    const line = lineOf(draid, [{ ...told, members: [...bulks(7).map((d) => member(d.id)), inside] }]);
    expect(line?.[1]).toMatch(/its size$/);
  });

  it("knows an array by its drives, since it goes by its device, and says what is under way on it", () => {
    const array = {
      ...{ id: "array md127", kind: "array", name: "md127", level: "raid6", state: "clean", health: "good" },
      ...{ members: six.map((id) => member(id, { state: "active sync" })), sizeBytes: 47_999_000_000_000 },
      progress: { what: "resync", percent: 12, secondsLeft: null },
    };
    expect(lineOf({ keeper: "md", type: "6", members: six }, [array])?.slice(0, 2)).toEqual([
      "as planned",
      "raid6, 48.0 TB (43.7 TiB); resync at 12 %",
    ]);
  });

  it("of a controller may be a little smaller, as it rounds", () => {
    const drive = { ...POOL, id: "virtual drive VD0", kind: "virtual drive", name: "VD0", level: "RAID-6" };
    const made = (sizeBytes: number) => ({
      ...drive,
      sizeBytes,
      members: six.map((id) => member(id, { state: "OK" })),
    });
    const plan = { keeper: "RAID controller", type: "6", name: "VD0", members: six };
    expect(lineOf(plan, [made(47.9e12)])?.[0]).toBe("as planned");
    expect(lineOf(plan, [made(36e12)])?.[0]).toBe("differs");
  });

  it("that cannot be made is asked for by nothing", () =>
    expect(lineOf({ groups: 4 }, [asPlanned])).toBeNull());
});
