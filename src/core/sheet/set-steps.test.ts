import { describe, expect, it } from "vitest";
import { naming } from "../../../tests/support/steps";
import { aBuild, type BuildChanges } from "../../../tests/support/builds";
import { bulks, withSet } from "../../../tests/support/firing-sets";
import { setScripts } from "../storage";
import { deriveSteps } from "./steps";

const PROFILE: BuildChanges = { profile: { sets: { ZFS: "script", md: "script" } } };
const stepsOf = (set: object, more: BuildChanges = PROFILE) =>
  deriveSteps(aBuild(withSet(set, bulks(6), more)));
const of = (steps: ReturnType<typeof stepsOf>) => steps.filter((s) => /(^|-)set-/.test(s.id));

describe("the steps that make a set", () => {
  it("run its script once the system stands, behind one guard that spares the target", () => {
    const steps = stepsOf({
      type: "raidz2",
      name: "tank",
      members: bulks(5).map((d) => d.id),
      spares: ["CB-06"],
    });
    const [guard, make, ...rest] = of(steps);
    expect([guard?.zone, make?.zone, rest]).toEqual(["I", "I", []]);
    expect(naming(guard)?.drives.map((d) => d.id)).toEqual(bulks(6).map((d) => d.id));
    expect(naming(guard)?.leaveAlone.map((d) => d.tail)).toEqual(["V-0001"]);
    expect(make?.lines).toEqual([{ label: "Command", value: "sh make-tank.sh" }]);
    expect(make?.do[0]).toBe(
      "pool tank: raidz2 of 5, 1 spare. Members: bay 1, bay 2, bay 3, bay 4, bay 5. Hot spares: bay 6.",
    );
    expect(make?.effects).toEqual([
      { do: "write drives", drives: bulks(6).map((d) => d.id), erases: true, of: "free" },
    ]);
    expect(make?.after).toEqual({});
    const last = steps.findLastIndex((s) => s.zone === "H");
    expect(steps.indexOf(guard!)).toBeGreaterThan(last);
  });

  it("call the script as its page calls it, whatever the name of the set", () => {
    const plan = aBuild(withSet({ type: "raidz2", name: "tank.1:a" }, bulks(6), PROFILE));
    const make = deriveSteps(plan).find((s) => s.id === "set-1");
    const [script] = setScripts(plan, "B-1");
    expect([make?.lines[0]?.value, script?.file]).toEqual(["sh make-tank_1_a.sh", "make-tank_1_a.sh"]);
  });

  it("say of an array that its first sync takes hours, and of a pool nothing", () => {
    const said = (set: object): string =>
      of(stepsOf(set))
        .flatMap((s) => s.do)
        .join(" ");
    expect(said({ keeper: "md", type: "6" })).toMatch(/first synchronisation takes about \d+ h/);
    expect(said({ type: "raidz2" })).not.toMatch(/first sync/);
    expect(said({ keeper: "md", type: "0" })).not.toMatch(/first sync/);
  });

  it("of a controller come before the installer, with a guard for each drive", () => {
    const steps = stepsOf({ keeper: "RAID controller", type: "6", name: "VD0", stripeKib: 64 });
    const own = of(steps);
    expect(own.map((s) => s.zone)).toEqual(Array(7).fill("C"));
    expect(own.filter(naming)).toHaveLength(6);
    expect(own.at(-1)?.do).toEqual(
      expect.arrayContaining([expect.stringMatching(/write-back only with a battery/)]),
    );
    expect(own.at(-1)?.records).toContain("WWN");
    expect(steps.indexOf(own.at(-1)!)).toBeLessThan(steps.findIndex((s) => s.zone === "H"));
  });

  it("are made by hand where the system has other tools", () => {
    const [, make] = of(stepsOf({}, { profile: { sets: { ZFS: "by hand" } } }));
    expect([make?.lines, make?.normal]).toEqual([[], []]);
    expect(make?.do.join(" ")).toMatch(/Create it manually with the tools of the system/);
  });

  it("are those of the system's own page, where it has one, with a guard for each drive", () => {
    const [screen] = aBuild().profile!.firstBoot;
    const page = {
      ...screen!,
      id: "store",
      title: "Make the store",
      when: "always" as const,
      drive: "others" as const,
    };
    const steps = stepsOf({ type: "raidz2" }, { profile: { sets: { ZFS: "script" }, firstBoot: [page] } });
    expect(of(steps)).toEqual([]);
    expect(steps.filter((s) => naming(s)?.group.endsWith("store"))).toHaveLength(6);
    const made = steps.find((s) => s.id.endsWith("first-store"));
    expect(made?.do.join(" ")).toMatch(/pool tank: raidz2 of 6\. Members: bay 1/);
    expect(made?.effects).toContainEqual(
      expect.objectContaining({ do: "write drives", drives: bulks(6).map((d) => d.id), of: "free" }),
    );
  });
});
