import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import {
  faultsOf,
  identifySystem,
  parseProfileYaml,
  planRoads,
  profileSchema,
  type Profile,
  type RouteGround,
} from ".";

const profiles: Profile[] = readdirSync("profiles").map((name) => {
  const read = parseProfileYaml(readFileSync(`profiles/${name}`, "utf8"));
  if (!read.ok) throw new Error(`${name}: ${JSON.stringify(read.problems)}`);
  return read.value;
});
const wanted = (key: string, version: string): Profile =>
  profiles.find((p) => p.profile === key && p.version === version)!;
const plain: RouteGround = { target: "drive", model: "Ostler R114", parts: [] };
const card: RouteGround = { ...plain, target: "flash card" };
const roads = (have: [string, string] | null, want: [string, string], ground = plain, known = profiles) => {
  const from = have && { profile: have[0], version: have[1] };
  const [fresh, upgrade, convert] = planRoads(known, from, wanted(...want), ground);
  return { fresh: fresh!, upgrade: upgrade!, convert: convert! };
};
const legs = (plan: { legs: { kind: string; profile: Profile; version: string }[] }): string[] =>
  plan.legs.map((l) => `${l.kind} ${l.profile.profile} ${l.version}`);

describe("the running system", () => {
  it.each([
    ["cairn", "6.7", { profile: "cairn-hypervisor", version: "6.7" }],
    ["cistern", "9.10", { profile: "cistern-nas", version: "9.10" }],
    ["cistern", "11.1", { profile: "cistern-nas", version: "11.1" }],
    ["unheard-of", "1", null],
    ["cairn", null, null],
  ])("%s %s is %j", (osId, osVersion, found) => {
    const known = identifySystem(profiles, { osId, osVersion });
    expect(found ? known : (known ?? null)).toEqual(found);
  });
  it("is nothing when nobody read it", () => expect(identifySystem(profiles, undefined)).toBeNull());
});

describe("roads", () => {
  it("are one leg onto an empty machine, and closed in place", () => {
    const { fresh, upgrade, convert } = roads(null, ["tussock-host", "5"]);
    expect(legs(fresh)).toEqual(["fresh tussock-host 5"]);
    expect([upgrade.legs, convert.legs]).toEqual([[], []]);
    expect(upgrade.why).toBe("No known system is installed on this machine.");
  });

  it("lead over the stepping stone that a known fault forces on this hardware, and only there", () => {
    const stony = roads(null, ["cairn-hypervisor", "9"], card).fresh;
    expect(legs(stony)).toEqual(["fresh cairn-hypervisor 6.7", "upgrade cairn-hypervisor 9"]);
    expect(stony.why).toContain("no space for the boot area");
    expect(legs(roads(null, ["cairn-hypervisor", "9"]).fresh)).toEqual(["fresh cairn-hypervisor 9"]);
    const elsewhere = { ...card, model: "Varley W7" };
    expect(legs(roads(null, ["cairn-hypervisor", "9"], elsewhere).fresh)).toHaveLength(1);
  });

  it("say so when the stone has no profile here, or leads nowhere", () => {
    const without = profiles.filter((p) => !(p.profile === "cairn-hypervisor" && p.version === "6"));
    const lost = roads(null, ["cairn-hypervisor", "9"], card, without).fresh;
    expect(lost.legs).toEqual([]);
    expect(lost.why).toContain("The profile of cairn-hypervisor 6.7 is missing here");
    const cut = profiles.map((p) => (p.version === "9" ? { ...p, upgrades: [] } : p));
    const [fresh] = planRoads(
      cut,
      null,
      cut.find((p) => p.name === "Cairn Hypervisor" && p.version === "9")!,
      card,
    );
    expect(fresh?.why).toContain("No supported upgrade leads from Cairn Hypervisor 6.7");
  });

  it("convert the legacy appliance from 9.10 on, and by way of 9.10 before", () => {
    expect(legs(roads(["cistern-nas", "9.10"], ["cistern-nas", "13"]).convert)).toEqual([
      "convert cistern-nas 13",
    ]);
    const early = roads(["cistern-nas", "9.3"], ["cistern-nas", "13"]).convert;
    expect(legs(early)).toEqual(["upgrade cistern-nas 9.10", "convert cistern-nas 13"]);
    expect(early.why).toBe("Via Cistern NAS 9.10.");
    expect(early.keeps).toEqual(expect.arrayContaining(["data pools", "dataset keys", "shares"]));
    expect(early.loses).toEqual(["guests", "host keys", "packages", "changes by hand"]);
    expect(early.needs.filter((n) => n.includes("secret seed"))).toHaveLength(2);
  });

  it("upgrade over two jumps where one is not allowed, in the time of both", () => {
    const one = roads(["cairn-hypervisor", "6.7"], ["cairn-hypervisor", "9"]).upgrade;
    const two = roads(["cairn-hypervisor", "6.0"], ["cairn-hypervisor", "9"]).upgrade;
    expect(legs(one)).toEqual(["upgrade cairn-hypervisor 9"]);
    expect(legs(two)).toEqual(["upgrade cairn-hypervisor 6.7", "upgrade cairn-hypervisor 9"]);
    expect(two.likelySeconds).toBeGreaterThan(one.likelySeconds);
    expect(two.lateSeconds).toBeGreaterThan(two.likelySeconds);
  });

  it("are refused where the matrix has no chain, and where it is installed already", () => {
    expect(roads(["cairn-hypervisor", "5.5"], ["cairn-hypervisor", "9"]).upgrade.why).toBe(
      "No supported upgrade path leads from Cairn Hypervisor 5.5 to Cairn Hypervisor 9.",
    );
    expect(roads(["lowland-server", "7.2"], ["lowland-server", "7"]).upgrade.why).toBe(
      "Lowland Server 7.2 is already installed.",
    );
  });

  it("convert one family into another where a profile allows it", () => {
    const { upgrade, convert } = roads(["millrace", "12.4"], ["tussock-host", "5"]);
    expect(upgrade.legs).toEqual([]);
    expect(legs(convert)).toEqual(["convert tussock-host 5"]);
    expect(convert.loses).toEqual(["network settings"]);
  });

  it("end on profiles that lead in a circle", () => {
    const shape = wanted("millrace", "12");
    const jump = (from: string, version: string): Profile["upgrades"] => [
      { ...shape.upgrades[0]!, from: { profile: from, version }, id: from },
    ];
    const a = { ...shape, profile: "a", version: "1", upgrades: jump("b", "1") };
    const b = { ...shape, profile: "b", version: "1", upgrades: jump("a", "1") };
    const c = { ...shape, profile: "c", version: "1", upgrades: [] };
    const [, upgrade] = planRoads([a, b, c], { profile: "a", version: "1" }, c, plain);
    expect(upgrade?.legs).toEqual([]);
  });
});

it("finds known faults by target, model, part and road, all of them together", () => {
  const lowland = wanted("lowland-server", "7");
  expect(faultsOf(lowland, "fresh", plain)).toEqual([]);
  expect(faultsOf(lowland, "fresh", { ...plain, parts: ["1d0e:2208"] }).map((f) => f.id)).toEqual([
    "array-driver",
  ]);
  const nas = wanted("cistern-nas", "13");
  expect(faultsOf(nas, "convert", plain).map((f) => f.id)).toEqual(["legacy-plugins"]);
  expect(faultsOf(nas, "convert", { ...plain, target: "stick" }).map((f) => f.id)).toEqual([
    "mirrored-sticks",
    "legacy-plugins",
  ]);
  expect(faultsOf(nas, "fresh", { ...plain, target: "stick" })).toEqual([]);
});

describe("shipped profiles", () => {
  it("are those of all nine families", () => {
    expect(new Set(profiles.map((p) => p.profile)).size).toBe(9);
  });

  it.each(profiles.map((p) => [`${p.profile} ${p.version}`, p] as const))(
    "%s is complete: a guard, both kinds of address, a management address, boot targets, its end of support",
    (_, p) => {
      const all = [...p.screens, ...p.firstBoot];
      expect(all.filter((s) => s.destroys)).toHaveLength(1);
      const kinds = all.map((s) => s.when).filter((w) => w !== "always");
      expect(kinds.includes("fixed address")).toBe(
        kinds.includes("dynamic address") || p.profile === "pallant-server",
      );
      expect(p.bootTargets.length).toBeGreaterThan(2);
      expect(p.consoleKeys.length).toBeGreaterThan(0);
      expect(p.support.ends).not.toBeNull();
      expect([...p.fresh.keeps, ...p.fresh.loses].length).toBeGreaterThan(3);
      expect(p.upgrades.length).toBeGreaterThan(0);
      expect(p.recognise.length).toBeGreaterThan(0);
    },
  );

  it("refuses an upgrade that keeps and loses the same, a fault without a condition and an unchanged log-in", () => {
    const shape = wanted("hopper-backup", "3");
    const issues = (changes: object): string[] => {
      const read = profileSchema.safeParse({ ...shape, ...changes });
      return read.success ? [] : read.error.issues.map((i) => i.message);
    };
    const [jump] = shape.upgrades;
    expect(issues({})).toEqual([]);
    expect(issues({ fresh: { keeps: ["guests"], loses: ["guests"] } })).toEqual([
      "the same item is both kept and lost",
    ]);
    expect(issues({ upgrades: [jump, jump] })).toEqual(['two upgrades have the id "from-2"']);
    expect(issues({ upgrades: [{ ...jump, screens: [] }] })[0]).toBe(
      "an upgrade without screens has no steps",
    );
    const harmless = jump!.screens.map((s) => ({ ...s, drive: "none" }));
    expect(issues({ upgrades: [{ ...jump, screens: harmless }] })[0]).toContain(
      "so no guard would precede the change of the system",
    );
    const shows = shape.screens.map((s) =>
      s.id === "system-disk" ? { ...s, drive: "none", destroys: false } : s,
    );
    expect(issues({ screens: shows })[0]).toContain("chooses or writes a drive");
    expect(issues({ knownFaults: [{ id: "x", when: {}, looks: "a", remedy: "b" }] })[0]).toContain(
      "set a condition",
    );
    expect(issues({ defaultLogins: [{ name: "a", opens: "b", changedOn: "nowhere" }] })[0]).toContain(
      "so this login would not be changed",
    );
  });
});
