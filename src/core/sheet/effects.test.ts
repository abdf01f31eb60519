import { readdirSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { naming } from "../../../tests/support/steps";
import { aBuild, aDrive, MAC, shippedProfile, type BuildChanges } from "../../../tests/support/builds";
import { WAYS } from "../estimate";
import type { Profile } from "../image";
import { stripAfter, type Effect, type Operation } from "../work";
import { deriveSteps, type Plan } from ".";

const profiles = readdirSync("profiles").map((f) => shippedProfile(f.replace(".yaml", "")));

/** Every road of every profile: fresh, and each allowed jump from what it may start from. */
const ROADS: [name: string, profile: Profile, road: string, from: string][] = profiles.flatMap((profile) => {
  const jumps = profile.upgrades.filter((u) => u.to === undefined);
  const name = `${profile.name} ${profile.version}`;
  return [
    [`${name} fresh`, profile, "fresh", ""],
    ...jumps.map(({ way, from }): [string, Profile, string, string] => {
      const old = `${from.profile} ${from.least ?? from.version}`;
      return [`${name} ${way} from ${old}`, profile, way, old];
    }),
  ];
});

const TARGETS: Record<string, BuildChanges> = {
  "one drive": { drives: [aDrive("NV-0001", {})] },
  "one of two, the other freed": {
    drives: [aDrive("NV-0001", {}), aDrive("SA-0002", {})],
    sheet: { "storage.free": ["SA-0002"] },
  },
  "a mirror": {
    drives: [aDrive("NV-0001", {}), aDrive("NV-0002", {})],
    sheet: { "storage.layout": "mirror", "storage.partners": [{ drive: "NV-0002", role: "member" }] },
  },
};

function planFor(profile: Profile, road: string, from: string, changes: BuildChanges): Plan {
  const [key, version = ""] = from.split(" ");
  const osId = profiles.find((p) => p.profile === key)?.identify.id;
  return aBuild({
    profile,
    profiles,
    facts: from ? { system: { osId, osName: `${key} ${version}`, osVersion: version } } : {},
    ...changes,
    sheet: { "image.road": road, "image.stick.name": "blue stick", ...changes.sheet },
  });
}

/** What stands in and on the machine, as somebody who only carries out effects would see it. */
class Bench {
  power = "off";
  medium: string | null = null;
  always = false;
  next: string | null = null;
  written = new Set<string>();
  system: string | null = null;

  carryOut(effect: Effect): void {
    switch (effect.do) {
      case "switch power":
        this.power = effect.to;
        break;
      case "insert medium":
        expect(this.medium, "a medium goes in where another is").toBeNull();
        this.medium = effect.medium;
        break;
      case "remove medium":
        expect(this.medium, "what is taken out is what is in").toBe(effect.medium);
        this.medium = null;
        break;
      case "start next from":
        expect(this.medium, "it starts from what is in").toBe(effect.medium);
        this.always = !effect.once;
        this.next = effect.name;
        break;
      case "put boot order back":
        this.always = false;
        break;
      case "write drives":
        effect.drives.forEach((d) => this.written.add(d));
        break;
      case "restart":
        expect(this.medium, "nothing is in at the restart").toBeNull();
        expect(this.always, "the order is right at the restart").toBe(false);
        break;
      case "install system":
        this.system = `${effect.profile} ${effect.version}`;
        break;
    }
  }
}

/** The drives that a guard had named, before a step. */
const guardedBefore = (steps: readonly Operation[], step: Operation): string[] =>
  steps.slice(0, steps.indexOf(step)).flatMap((s) => naming(s)?.drives.map((d) => d.id) ?? []);

const target = ({ sheet }: Plan) => [sheet.storage.target, ...sheet.storage.partners.map((p) => p.drive)];

describe.each(ROADS)("what the steps of %s do to the machine", (_, profile, road, from) => {
  describe.each(Object.entries(TARGETS))("with %s", (__, changes) => {
    it.each(WAYS)("by %s can be carried out in this order, and ends with the system on its drives", (way) => {
      for (const mode of ["uefi", "legacy"] as const) {
        const plan = planFor(profile, road, from, {
          ...changes,
          sheet: { ...changes.sheet, "image.way": way, "boot.mode": mode },
        });
        const steps = deriveSteps(plan);
        const bench = new Bench();
        for (const step of steps) {
          expect(step.after, step.id).toEqual(stripAfter(step.effects));
          step.effects.forEach((effect) => bench.carryOut(effect));
          for (const effect of step.effects) {
            if (effect.do !== "write drives" && effect.do !== "choose drives") continue;
            expect(guardedBefore(steps, step), `${step.id} is guarded`).toEqual(
              expect.arrayContaining(effect.drives),
            );
            if (effect.do === "choose drives" || effect.of === "target")
              expect(effect.drives, step.id).toEqual(target(plan));
            else expect(effect.drives).toEqual(plan.sheet.storage.free);
            if (effect.do === "write drives" && effect.of === "target" && plan.keepsSystem)
              expect(effect.erases, `${step.id} keeps what stands there`).toBe(false);
          }
        }
        expect(bench.medium).toBeNull();
        expect(bench.power).toBe("on");
        const leg = plan.legs.at(-1);
        expect(bench.system).toBe(`${leg?.profile.profile} ${leg?.version}`);
        if (road === "fresh") expect([...bench.written]).toEqual(expect.arrayContaining(target(plan)));
        expect(bench.next === null, "media only where the road starts from some").toBe(!plan.fromMedia);
      }
    });
  });
});

describe("what is typed is an effect as well", () => {
  const effects = (changes: BuildChanges) => deriveSteps(aBuild(changes)).flatMap((s) => s.effects);

  it("an address with its port, as the sheet decides it", () => {
    expect(effects({}).filter((e) => e.do === "set address")).toEqual([
      { do: "set address", mac: MAC, school: "fixed", address: "10.61.10.20" },
    ]);
    expect(effects({ sheet: { "network.school": "dynamic" } }).some((e) => e.do === "set address")).toBe(
      false,
    );
  });

  it("a name, alone or in full, as the screen asks for it", () => {
    const names = profiles.flatMap((profile) =>
      effects({ profile, profiles: [profile] }).flatMap((e) => (e.do === "set name" ? [e.name] : [])),
    );
    expect(new Set(names)).toEqual(new Set(["wrk-hv1", "wrk-hv1.marrowby.example"]));
  });

  it("the firmware once, with secure boot only where the mode knows it", () => {
    const set = (mode: string) =>
      effects({ sheet: { "boot.mode": mode } }).filter((e) => e.do === "set firmware");
    expect(set("uefi")).toMatchObject([{ mode: "uefi", secureBoot: "on" }]);
    expect(set("legacy")).toMatchObject([{ mode: "legacy", secureBoot: null }]);
  });

  it("media that stay first for good are put back before the restart", () => {
    const made = effects({ sheet: { "boot.start": "media first in the boot order" } }).map((e) => e.do);
    expect(made.indexOf("put boot order back")).toBeLessThan(made.indexOf("restart"));
    expect(made.indexOf("put boot order back")).toBeGreaterThan(made.indexOf("start next from"));
  });
});
