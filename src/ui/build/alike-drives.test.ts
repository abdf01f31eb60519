import { expect, it } from "vitest";
import { aDrive } from "../../../tests/support/builds";
import { foldAlike } from "./alike-drives";

const member = (bay: string | null, changes: Parameters<typeof aDrive>[1] = {}) =>
  aDrive(`D-${bay}`, { bay, memberOf: ["pool reservoir"], ...changes });
const left = () => true;

it("says of the members of one pool that they stay, and where they sit", () => {
  const drives = ["0", "1", "2", "4", "rear 1"].map((bay) => member(bay));
  const { shown, alike } = foldAlike([aDrive("SYS", { bay: "8" }), ...drives], left);
  expect(shown.map((d) => d.id)).toEqual(["SYS"]);
  expect(alike.map((a) => a.words)).toEqual([
    "5 drives of pool reservoir are protected: bay 0 to 2, bay 4, rear 1",
  ]);
});

it("leaves in the list what is to be changed, what is gone, what belongs to another set, and what is few", () => {
  const changed = member("0");
  const gone = member("1", { missingSince: "2026-11-01T00:00:00.000Z" });
  const other = [member("2", { memberOf: ["pool other"] }), member("3", { memberOf: ["pool other"] })];
  const unread = member("4", { memberOf: [], contents: null });
  const rest = ["5", "6", null].map((bay) => member(bay));
  const all = [changed, gone, ...other, unread, ...rest];
  const { shown, alike } = foldAlike(all, (d) => d !== changed);
  expect(shown).toEqual([changed, gone, ...other, unread]);
  expect(alike.map((a) => a.words)).toEqual(["3 drives of pool reservoir are protected: bay 5 to 6, no bay"]);
});
