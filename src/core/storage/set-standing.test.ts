import { expect, it } from "vitest";
import { factsSchema } from "../machine";
import { setStanding } from ".";

const set = (level: string | null, states: string[], more: object = {}) =>
  factsSchema.parse({
    sets: [
      {
        ...{ id: "pool tank", kind: "pool", name: "tank", level, state: "", health: "good" },
        members: states.map((state, i) => ({ name: `d${i}`, state })),
        ...more,
      },
    ],
  }).sets[0]!;
const GOOD = ["ONLINE", "ONLINE", "ONLINE", "ONLINE"];
const LOST = ["ONLINE", "FAULTED", "ONLINE", "ONLINE"];

it.each<[string, string, number]>([
  ["pool", "raidz2", 2],
  ["pool", "mirror", 3],
  ["array", "raid5", 1],
  ["array", "raid4", 1],
  ["virtual drive", "RAID 6", 2],
  ["virtual drive", "RAID1", 3],
  ["virtual drive", "mirror of two cards", 3],
  ["pool", "single", 0],
])("a %s, %s of four sound members, bears %d more failures", (kind, level, left) => {
  expect(setStanding(set(level, GOOD, { kind }))?.left).toBe(left);
});

it("with a lost member bears one less, and names those that must stay", () => {
  const degraded = { health: "degraded" };
  expect(setStanding(set("raidz2", LOST, degraded))).toEqual({ left: 1, mustStay: [] });
  expect(setStanding(set("raidz1", LOST, degraded))).toEqual({ left: 0, mustStay: ["d0", "d2", "d3"] });
});

it("counts each group by itself, where the tool tells which member is in which", () => {
  const members = (lost: number[]) =>
    [0, 1, 2, 3].map((i) => ({
      ...{ name: `d${i}`, group: i >> 1, state: lost.includes(i) ? "FAULTED" : "ONLINE" },
    }));
  const mirrors = (lost: number[]) =>
    set("2 × mirror", [], { health: lost.length > 0 ? "degraded" : "good", members: members(lost) });
  expect(setStanding(mirrors([]))).toEqual({ left: 1, mustStay: [] });
  // Of the pair that lost one its other must stay; of the whole one either may go.
  expect(setStanding(mirrors([1]))).toEqual({ left: 0, mustStay: ["d0"] });
  expect(setStanding(mirrors([0, 1]))).toBeNull();
});

it("does not count a log, a cache or a spare", () => {
  const beside = ["log", "cache", "spare", "special"].map((role) => ({ name: role, role, state: "FAULTED" }));
  const members = [...GOOD.map((state, i) => ({ name: `d${i}`, group: 0, state })), ...beside];
  expect(setStanding(set("raidz1", [], { members }))).toEqual({ left: 1, mustStay: [] });
});

it.each<[string, ReturnType<typeof set>]>([
  ["several groups that are not told apart", set("2 × mirror", GOOD)],
  [
    "groups of two widths",
    set("2 × mirror", [], {
      members: [0, 0, 0, 1, 1].map((group, i) => ({ name: `d${i}`, group, state: "ONLINE" })),
    }),
  ],
  ["two kinds of groups", set("raidz2, mirror", GOOD)],
  ["RAID10, of which nobody tells the copies", set("raid10", GOOD, { kind: "array" })],
  ["a layout that was not told", set(null, GOOD)],
  ["no members told", set("raidz2", [])],
  ["a fault without a member to it", set("raid5", GOOD, { kind: "array", health: "degraded" })],
  ["a failed set", set("raidz1", LOST, { health: "failed" })],
  ["work under way", set("raidz2", GOOD, { progress: { what: "resilver", percent: 3, secondsLeft: null } })],
  ["more lost than it bears", set("mirror", ["FAULTED", "FAULTED"], { health: "degraded" })],
])("nothing is told of %s", (_, of) => expect(setStanding(of)).toBeNull());
