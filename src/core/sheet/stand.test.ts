import { expect, it } from "vitest";
import { standOf, wayTo } from ".";

const open = { id: "r1", endedAt: null };
const ended = { id: "r1", endedAt: "2026-11-24T08:00:00.000Z" };

it.each([
  ["in preparation", null, null, "/builds/b1"],
  ["issued", "A", null, "/builds/b1"],
  ["running", "A", open, "/runs/r1"],
  ["handed over", "A", ended, "/builds/b1"],
  ["running", null, open, "/runs/r1"],
] as const)("a build that is %s (revision %s)", (stand, revision, run, way) => {
  expect(standOf({ revision }, run)).toBe(stand);
  expect(wayTo("b1", run)).toBe(way);
});
