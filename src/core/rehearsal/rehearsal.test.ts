import { readdirSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { aBuild, aDrive, shippedProfile, type BuildChanges } from "../../../tests/support/builds";
import { WAYS } from "../estimate";
import type { Profile } from "../image";
import { freezeBuild } from "../run";
import type { Plan } from "../sheet";
import type { WorldGround } from "../world";
import { FAULTS, rehearse } from ".";

const profiles = readdirSync("profiles").map((f) => shippedProfile(f.replace(".yaml", "")));
const data = [{ part: "1", sizeBytes: 1, kind: "ext4", label: "archive", mountedAt: [] }];
const DRIVES = [aDrive("NV-0001", {}), aDrive("SA-0002", { contents: data })];

const planOf = (changes: BuildChanges): Plan =>
  aBuild({ drives: DRIVES, ...changes, sheet: { "storage.leaveAlone": ["SA-0002"], ...changes.sheet } });

const groundOf = (plan: Plan): WorldGround => ({
  facts: plan.machine!.document.facts,
  systems: profiles.map((p) => ({ profile: p.profile, id: p.identify.id, name: p.name })),
  prefixLength: 24,
});

const tried = (plan: Plan, code: string | null, seed = 1) =>
  rehearse(
    freezeBuild({ number: "B-0001", revision: "A" }, plan),
    groundOf(plan),
    FAULTS.find((f) => f.code === code) ?? null,
    seed,
  );

type Mode = "uefi" | "legacy";
type Road = readonly [road: string, key: string, version: string];

/** By hand from each medium, and armed at the boot service where the road can be. */
const MEANS = [...WAYS.map((way) => [way, "off"] as const), ["network", "on"] as const];

function buildOf(
  profile: Profile,
  [road, key, version]: Road,
  means: (typeof MEANS)[number],
  mode: Mode,
): Plan {
  const osId = profiles.find((p) => p.profile === key)?.identify.id;
  const system = { osId, osName: `${key} ${version}`, osVersion: version };
  return planOf({
    profile,
    profiles,
    image: { version: profile.version },
    site: { networkBoot: means[1] },
    facts: { firmware: { mode, secureBoot: null }, ...(key && { system }) },
    sheet: { "image.road": road, "image.way": means[0], "boot.mode": mode, "image.stick.name": "blue stick" },
  });
}

/** Every road of every profile, by each means and in each mode. */
const BUILDS: [name: string, plan: () => Plan][] = profiles.flatMap((profile) => {
  const jumps = profile.upgrades.filter((u) => u.to === undefined);
  const roads: Road[] = [
    ["fresh", "", ""],
    ...jumps.map(({ way, from }): Road => [way, from.profile, from.least ?? from.version ?? ""]),
  ];
  return roads.flatMap((road) =>
    MEANS.flatMap((means) =>
      (["uefi", "legacy"] as const).map((mode): [string, () => Plan] => [
        [profile.name, profile.version, ...road, "by", ...means, mode].join(" "),
        () => buildOf(profile, road, means, mode),
      ]),
    ),
  );
});

describe.each(BUILDS)("%s", (_, planFor) => {
  const plan = planFor();
  const procedure = freezeBuild({ number: "B-0001", revision: "A" }, plan);
  const ground = groundOf(plan);

  it("ends handed over where nothing goes wrong", () => {
    const report = rehearse(procedure, ground, null);
    expect([report.end, report.says, report.lost]).toEqual(["handed over", "", []]);
    expect(report.trace.map((t) => t.step)).toEqual(procedure.steps.map((s) => s.id));
  });

  it("catches each fault where it says, or by nothing where nothing is said", () => {
    for (const fault of FAULTS) {
      const { end, says, caughtBy, lost } = rehearse(procedure, ground, fault);
      const words = `${fault.code}: ${says}`;
      if (end === "not struck") expect(lost, words).toEqual([]);
      else expect(end, words).toBe(fault.caughtBy.length > 0 ? "stopped" : "handed over");
      if (end === "stopped") expect(fault.caughtBy, words).toContain(caughtBy);
    }
  });
});

describe("the registry of faults", () => {
  it("has each fault once, and no fewer than before", () => {
    expect(new Set(FAULTS.map((f) => f.code)).size).toBe(FAULTS.length);
    expect(FAULTS.length).toBeGreaterThanOrEqual(13);
  });

  it("each of them strikes many builds", () => {
    const plans = BUILDS.filter((_, i) => i % 5 === 0).map(([, plan]) => plan());
    for (const { code } of FAULTS)
      expect(plans.filter((p) => tried(p, code).end !== "not struck").length, code).toBeGreaterThan(3);
  });
});

describe("a rehearsal", () => {
  it("stops before the wrong drive is written, and loses nothing", () => {
    const report = tried(planOf({}), "other-drive");
    expect(report).toMatchObject({ end: "stopped", caughtBy: "name drive", lost: [] });
    expect(report.says).toContain("protected");
  });

  it("tells what was lost, where it is noticed too late", () =>
    expect(tried(planOf({}), "drive-beside-written")).toMatchObject({
      caughtBy: "acceptance",
      lost: ["SA-0002"],
    }));

  it("is the same again with the same seed, and takes another time with another", () => {
    const plan = planOf({});
    expect(tried(plan, null, 7)).toEqual(tried(plan, null, 7));
    expect(tried(plan, null, 8).trace).not.toEqual(tried(plan, null, 7).trace);
  });
});
