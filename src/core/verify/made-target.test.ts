import { describe, expect, it } from "vitest";
import { naming, sees } from "../../../tests/support/steps";
import { aBuild, type BuildChanges } from "../../../tests/support/builds";
import { bulks } from "../../../tests/support/firing-sets";
import { factsSchema } from "../machine";
import { proofOf, proves, targetOf, withoutSet } from "../storage";
import { compareWithPlan, planExpectations } from ".";
import { evaluateSheet } from "../sheet";

const drives = bulks(4, () => ({ controller: "5e:00.0", seenAs: "?" }));
const SET = {
  ...{ id: "1", name: "SYSTEM0", keeper: "RAID controller", type: "6", members: drives.map((d) => d.id) },
};
const controller = {
  id: "5e:00.0",
  name: "Halden 9",
  mode: "RAID" as const,
  firmware: null,
  driver: null,
  health: null,
};
/** The system goes onto a virtual drive that its controller is to make of four drives first. */
const onMade = (changes: BuildChanges = {}) =>
  aBuild({
    drives,
    facts: { storageControllers: [controller] },
    ...changes,
    sheet: { "storage.target": "made 1", "storage.sets": [SET], ...changes.sheet },
  });

describe("a system on a virtual drive that is to be made", () => {
  const plan = onMade();
  const { findings, steps } = evaluateSheet(plan);

  it("has it as a drive of the size that can be used, and nothing is wrong with that", () => {
    expect(targetOf(plan)).toMatchObject({ presentedBy: "SYSTEM0", serial: null, contents: [] });
    expect(targetOf(plan)!.sizeBytes / 1e12).toBeCloseTo(24, 0);
    expect(findings.filter((f) => f.severity !== "note").map((f) => [f.code, f.severity])).toEqual([]);
  });

  it("makes it before the installer starts, and asks for its name before it is chosen, without telling it", () => {
    const made = steps.findIndex((s) => s.id === "set-1");
    const guards = steps.filter((s) => naming(s)?.drives.some((d) => d.id === "made 1"));
    expect(made).toBeGreaterThan(0);
    expect(guards.length).toBeGreaterThan(0);
    expect(steps[made]?.do).toContain(
      "Make it the boot drive of the controller: the system is installed on it.",
    );
    expect(steps.indexOf(guards[0]!)).toBeGreaterThan(made);
    for (const step of guards) {
      const guard = naming(step);
      expect(guard?.asks).toBe("the name of the virtual drive, as on the console");
      expect(
        JSON.stringify([step.title, sees(step), step.do, guard?.asks, guard?.drives.map((d) => d.name)]),
      ).not.toContain("SYSTEM0");
      const proof = proofOf(targetOf(plan)!, []);
      expect([proves("system0", proof), proves("SYSTEM1", proof)]).toEqual([true, false]);
      // Its members must not be named in its place.
      expect(guard?.leaveAlone.map((d) => d.tail)).toEqual(drives.map((d) => d.serial!.slice(-6)));
    }
  });

  it("is started from once it is installed", () => {
    const later = plan.boot?.moments.find((m) => m.moment === "power loss");
    expect([later?.endsAt, later?.ends]).toEqual(["made 1", "boots Cairn Hypervisor 9 from SYSTEM0"]);
  });

  it("is found again by its name when the machine is read back", () => {
    const expected = planExpectations(plan).filter((e) => e.id === "target" || e.id === "set-1");
    const found = { ...targetOf(plan)!, id: "VD-77", serial: "VD-77" };
    const system = [{ part: "p2", sizeBytes: 9, kind: "ext4", label: null, mountedAt: ["/"] }];
    const facts = (name: string) =>
      factsSchema.parse({
        drives: [{ ...found, presentedBy: name, contents: system }, ...drives],
        sets: [
          {
            ...{
              id: `virtual drive ${name}`,
              kind: "virtual drive",
              name,
              level: "RAID 6",
              state: "OK",
              health: "good",
            },
            members: drives.map((d) => ({ name: d.id, drive: d.id, state: "OK" })),
            sizeBytes: found.sizeBytes,
          },
        ],
      });
    const reading = {
      takenAt: "2026-11-20T09:00:00Z",
      now: "2026-11-20T09:05:00Z",
      startedAt: null,
    } as never;
    const verdicts = (name: string) => compareWithPlan(expected, facts(name), reading).map((l) => l.verdict);
    expect(verdicts("SYSTEM0")).toEqual(["as planned", "as planned"]);
    expect(verdicts("OTHER")[0]).toBe("differs");
  });

  it("is no target any more once it is not made", () => {
    expect(withoutSet(plan.sheet.storage, "1")).toMatchObject({ target: null, sets: [], free: [] });
    expect(
      targetOf(onMade({ sheet: { "storage.sets": [{ ...SET, keeper: "ZFS", type: "raidz2" }] } })),
    ).toBeNull();
  });
});
