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

it.each<[string, number]>([
  ["raidz2", 2],
  ["mirror", 3],
  ["raid5", 1],
  ["RAID 6", 2],
  ["RAID1", 3],
  ["single", 0],
])("%s of four sound members bears %d more failures", (level, left) => {
  expect(setStanding(set(level, GOOD))?.left).toBe(left);
});

it("with a lost member bears one less, and names those that must stay", () => {
  const degraded = { health: "degraded" };
  expect(setStanding(set("raidz2", LOST, degraded))).toEqual({ left: 1, mustStay: [] });
  expect(setStanding(set("raidz1", LOST, degraded))).toEqual({ left: 0, mustStay: ["d0", "d2", "d3"] });
});

it.each<[string, ReturnType<typeof set>]>([
  ["several groups", set("2 × mirror", GOOD)],
  ["a layout that was not told", set(null, GOOD)],
  ["no members told", set("raidz2", [])],
  ["a fault without a member to it", set("raid5", GOOD, { health: "degraded" })],
  ["a failed set", set("raidz1", LOST, { health: "failed" })],
  ["work under way", set("raidz2", GOOD, { progress: { what: "resilver", percent: 3, secondsLeft: null } })],
  ["more lost than it bears", set("mirror", ["FAULTED", "FAULTED"], { health: "degraded" })],
])("nothing is told of %s", (_, of) => expect(setStanding(of)).toBeNull());
