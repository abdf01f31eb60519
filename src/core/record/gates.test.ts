import { describe, expect, it } from "vitest";
import { heldBy, holdWords, type Gate } from "../finding";
import { HAND_OVER_GATE, type HandOverGround, type SettledLine } from "../run";
import { ISSUE_GATE, type IssueGround } from "../stage";
import { RESTORE_GATE, type RestoreGround } from "./restore-gate";

const line = (verdict: SettledLine["verdict"], settled: SettledLine["settled"] = null): SettledLine => ({
  ...{ id: "name", zone: "F", what: "Host name", planned: "wrk-tm1", found: "localhost", verdict, settled },
});
const accepted = {
  how: "taken as it is",
  words: "renamed later",
  found: "localhost",
  by: "Ada",
  at: "",
} as const;

/** Everything that a gate can be held by: a ground on which it is open, and one change for each rule. */
function tried<Ground>(
  gate: Gate<Ground>,
  ready: Ground,
  firing: readonly [code: string, changes: Partial<Ground>, says: string][],
): void {
  describe(`the gate "${gate.title}"`, () => {
    it("is open when all is so", () => expect(heldBy(gate, ready)).toEqual([]));
    it.each(firing)("%s keeps it shut alone, and says what to do", (code, changes, says) => {
      const held = heldBy(gate, { ...ready, ...changes });
      expect(held.map((f) => f.code)).toEqual([code]);
      expect(holdWords(held[0]!)).toBe(`${says} ${held[0]!.remedy}`);
      expect(held[0]!.remedy).toMatch(/^[A-Z].*\.$/);
    });
    it("has a case for each of its rules", () =>
      expect(new Set(firing.map(([code]) => code))).toEqual(new Set(gate.checks.map((c) => c.code))));
  });
}

tried<IssueGround>(ISSUE_GATE, { revision: "A", isIssued: false }, [
  ["issue.unchanged", { isIssued: true }, "Nothing has changed since revision A."],
]);

const finished: HandOverGround = {
  ...{ stoppedBy: null, step: null, isVerified: true },
  lines: [line("as planned"), line("differs", accepted)],
};
tried<HandOverGround>(HAND_OVER_GATE, finished, [
  ["handover.stopped", { stoppedBy: "Wrong drive." }, "The run is stopped: Wrong drive."],
  ["handover.steps", { step: "Unmap the virtual CD" }, "Steps remain: Unmap the virtual CD."],
  [
    "handover.unverified",
    { isVerified: false, lines: [line("not seen")] },
    "The installed system is not verified yet.",
  ],
  [
    "handover.deviations",
    { lines: [line("differs")] },
    "Unresolved deviations: Host name (does not match: localhost).",
  ],
]);

tried<RestoreGround>(RESTORE_GATE, { hasData: false, profiles: [], contradictions: [] }, [
  ["restore.data", { hasData: true }, "This installation already has data."],
  [
    "restore.profile",
    { profiles: [{ place: "profiles 0", name: "hopper 2" }] },
    "profiles 0: the profile hopper 2 is not valid.",
  ],
  ["restore.contradiction", { contradictions: ["runs 0: its log has a gap"] }, "runs 0: its log has a gap."],
]);
