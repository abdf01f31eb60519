import type { Drive, Facts } from "../machine";
import { fail, ok, type Result } from "../result";
import type { Effect, EffectOf } from "../work";
import { own, start, type World, type WorldGround } from "./world";

/** What is left of a world when one effect is carried out in it; a problem where it cannot be. */
export function carryOut(world: World, effect: Effect, ground: WorldGround): Result<World> {
  switch (effect.do) {
    case "switch power":
      return ok(effect.to === "on" ? start(world) : { ...world, power: "off", running: { of: "nothing" } });
    case "set firmware":
      return ok(withFirmware(world, effect));
    case "insert medium":
      return world.media.some((m) => m.medium === effect.medium)
        ? fail({ message: `Another ${effect.medium} is in place already.` })
        : ok({ ...world, media: [...world.media, effect] });
    case "remove medium":
      return ok({ ...world, media: world.media.filter((m) => m.medium !== effect.medium) });
    case "start next from":
      return ok(startFrom(world, effect));
    case "put boot order back":
      return ok({ ...world, first: null });
    case "put settings back":
      // Which of them they were is told in words only, so nobody knows here what Secure Boot is then.
      return ok({
        ...withFacts(world, { firmware: { ...world.facts.firmware, secureBoot: null } }),
        settings: effect.to,
      });
    case "choose drives":
      return ok({ ...world, target: effect.drives });
    case "write drives":
      return ok(written(world, effect));
    case "install system":
      return ok(installed(world, effect, ground));
    case "set name":
      return ok(withSystem(world, { hostName: effect.name }));
    case "set address":
      return ok(addressed(world, effect, ground));
    case "change log-in":
      return ok({ ...world, logIns: [...world.logIns, effect.name] });
    case "restart":
      return ok(start(world));
  }
}

const withFacts = (world: World, facts: Partial<Facts>): World => ({
  ...world,
  facts: { ...world.facts, ...facts },
});

const withSystem = (world: World, system: NonNullable<Facts["system"]>): World =>
  withFacts(world, { system: { ...world.facts.system, ...system } });

function withFirmware(world: World, { mode, secureBoot, forInstall }: EffectOf<"set firmware">): World {
  const firmware = {
    ...world.facts.firmware,
    mode,
    secureBoot: secureBoot === null ? null : secureBoot === "on",
  };
  return { ...withFacts(world, { firmware }), settings: forInstall };
}

function startFrom(world: World, { medium, mode, once }: EffectOf<"start next from">): World {
  const firmware = { ...world.facts.firmware, mode };
  return start({ ...withFacts(world, { firmware }), ...(once ? { once: medium } : { first: medium }) });
}

/** Whether something would be missed: what nobody has read counts as something. */
const holdsAny = (drive: Drive): boolean => drive.contents === null || drive.contents.length > 0;

function written(world: World, { drives, erases, of }: EffectOf<"write drives">): World {
  const target = of === "target" ? drives : world.target;
  if (!erases) return { ...world, target };
  const gone = world.facts.drives.filter((d) => drives.includes(d.id) && holdsAny(d)).map((d) => d.id);
  return {
    ...withDrives(world, drives, { contents: [], memberOf: [] }),
    target,
    lost: [...world.lost, ...gone],
  };
}

const withDrives = (world: World, ids: readonly string[], changes: Partial<Drive>): World =>
  withFacts(world, {
    drives: world.facts.drives.map((d) => (ids.includes(d.id) ? { ...d, ...changes } : d)),
  });

/** The system as it stands on its drives. What ran before and is kept keeps its contents. */
function installed(
  world: World,
  { profile, version }: EffectOf<"install system">,
  ground: WorldGround,
): World {
  const named = ground.systems.find((s) => s.profile === profile);
  const isFresh = world.facts.drives.some((d) => world.target.includes(d.id) && d.contents?.length === 0);
  const root = { part: "1", sizeBytes: 1, kind: "system", label: null, mountedAt: ["/"] };
  const standing = isFresh ? withDrives(world, world.target, { contents: [root] }) : world;
  const now = withSystem(standing, {
    osId: named?.id ?? profile,
    osName: `${named?.name ?? profile} ${version}`,
    osVersion: version,
    clockFollows: true,
  });
  // A later step that tells of the same system again does not make the firmware find it.
  const isSame = world.installed?.profile === profile && world.installed.version === version;
  const next = { ...now, installed: { profile, version }, starts: isSame ? world.starts : true };
  return world.running.of === "medium" ? next : { ...next, running: own(next) };
}

function addressed(world: World, { mac, address }: EffectOf<"set address">, ground: WorldGround): World {
  if (!address) return world;
  const own = {
    family: address.includes(":") ? ("ipv6" as const) : ("ipv4" as const),
    address,
    prefixLength: ground.prefixLength ?? 0,
    scope: "global",
    dynamic: false,
  };
  return withFacts(world, {
    ports: world.facts.ports.map((p) => (p.mac === mac ? { ...p, link: "up", addresses: [own] } : p)),
  });
}
