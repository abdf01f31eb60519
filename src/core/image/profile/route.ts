import { sumDurations, takes } from "../../estimate";
import { compareVersions, inLine } from "../../text";
import type { Profile } from "./profile";
import type { Screen } from "./screen";
import { ASPECTS, type Aspect, type Fate, type KnownFault, type Upgrade } from "./upgrade";
import type { TargetKind } from "./kinds";

export const ROADS = ["fresh", "upgrade", "convert"] as const;
export type Road = (typeof ROADS)[number];

/** What is installed on a machine, as far as a profile knows it. */
export interface Installed {
  profile: string;
  version: string;
}

/** What the known faults are about. */
export interface RouteGround {
  target: TargetKind | null;
  model: string;
  /** Drivers and PCI ids (vendor:device) of the machine's devices. */
  parts: readonly string[];
}

/** One installation on the way: from what, to what, through which screens. */
export interface Leg {
  kind: Road;
  profile: Profile;
  from: string | null;
  /** The version that stands afterwards. */
  version: string;
  upgrade: Upgrade | null;
  through: Upgrade["through"];
  screens: readonly Screen[];
  fate: Fate;
}

/** A road to the wanted system: its legs in order, or why there is none. */
export interface RoadPlan {
  road: Road;
  legs: Leg[];
  keeps: Aspect[];
  loses: Aspect[];
  needs: string[];
  likelySeconds: number;
  lateSeconds: number;
  /** Why this road is closed, or why it has a stepping stone; empty when it is plain. */
  why: string;
}

const MOST_LEGS = 6;

/** Which shipped or added profile a running system belongs to, by what it says in /etc/os-release; null for unknown. */
export function identifySystem(
  profiles: readonly Profile[],
  system: { osId?: string | null; osVersion?: string | null } | undefined,
): Installed | null {
  const { osId, osVersion } = system ?? {};
  if (!osId || !osVersion) return null;
  const family = profiles.filter((p) => p.identify.id === osId);
  const found = family.find((p) => inLine(osVersion, p.identify.version)) ?? family[0];
  return found ? { profile: found.profile, version: osVersion } : null;
}

/** The known faults of a profile that this ground meets on this road. */
export function faultsOf(profile: Profile, road: Road, ground: RouteGround): KnownFault[] {
  return profile.knownFaults.filter(({ when }) => {
    if (when.road && when.road !== (road === "fresh" ? "fresh" : "in place")) return false;
    if (when.target && when.target !== ground.target) return false;
    if (when.model && !ground.model.toLowerCase().includes(when.model.toLowerCase())) return false;
    return !when.part || ground.parts.includes(when.part);
  });
}

const nameOf = (p: Profile): string => `${p.name} ${p.version}`;
const systemWords = (profiles: readonly Profile[], { profile, version }: Installed): string =>
  `${profiles.find((p) => p.profile === profile)?.name ?? profile} ${version}`;

const freshLeg = (profile: Profile, version = profile.version): Leg => ({
  kind: "fresh",
  profile,
  from: null,
  version,
  upgrade: null,
  through: "installer",
  screens: profile.screens,
  fate: profile.fresh,
});

/** Every jump that is allowed from what stands on the machine. */
function jumpsFrom(profiles: readonly Profile[], at: Installed): Leg[] {
  return profiles.flatMap((profile) =>
    profile.upgrades
      .filter(
        ({ from }) =>
          from.profile === at.profile &&
          inLine(at.version, from.version) &&
          (!from.least || compareVersions(at.version, from.least) >= 0),
      )
      // A step inside a line must lead forward, or the search would walk in a circle.
      .filter(
        (u) => profile.profile !== at.profile || compareVersions(u.to ?? profile.version, at.version) > 0,
      )
      .map((upgrade) => ({
        kind: upgrade.way,
        profile,
        from: systemWords(profiles, at),
        version: upgrade.to ?? profile.version,
        upgrade,
        through: upgrade.through,
        screens: upgrade.screens,
        fate: upgrade.fate,
      })),
  );
}

const legSeconds = (leg: Leg) =>
  sumDurations([
    ...leg.screens.filter((s) => s.when !== "dynamic address").map((s) => takes(s.likely, s.late)),
    takes(leg.profile.restart.likely, leg.profile.restart.late),
  ]);

/**
 * The way from `from` to the wanted version with the fewest jumps, and among those the quickest: a search by rounds, a
 * round for each jump, so the first round that arrives has the fewest. Null when no chain of allowed jumps leads there.
 */
function shortest(
  profiles: readonly Profile[],
  from: Installed,
  want: Profile,
  allowed: (legs: readonly Leg[]) => boolean,
): Leg[] | null {
  const seconds = (legs: readonly Leg[]): number =>
    sumDurations(legs.map(legSeconds).map(asDuration)).likelySeconds;
  let round: { at: Installed; legs: Leg[] }[] = [{ at: from, legs: [] }];
  for (let jumps = 1; jumps <= MOST_LEGS && round.length > 0; jumps += 1) {
    round = round.flatMap(({ at, legs }) =>
      jumpsFrom(profiles, at).map((leg) => ({
        at: { profile: leg.profile.profile, version: leg.version },
        legs: [...legs, leg],
      })),
    );
    const arrived = round
      .filter(({ at }) => at.profile === want.profile && inLine(at.version, want.version))
      .filter(({ legs }) => allowed(legs))
      .toSorted((a, b) => seconds(a.legs) - seconds(b.legs));
    if (arrived[0]) return arrived[0].legs;
  }
  return null;
}

const asDuration = (s: { likelySeconds: number; lateSeconds: number }) =>
  takes(s.likelySeconds, s.lateSeconds);

const closed = (road: Road, why: string): RoadPlan => ({
  road,
  legs: [],
  keeps: [],
  loses: [],
  needs: [],
  likelySeconds: 0,
  lateSeconds: 0,
  why,
});

/** Kept is what every leg keeps or has nothing to say about and some leg keeps; lost is what any leg loses. */
function planOf(road: Road, legs: Leg[], why: string): RoadPlan {
  const lost = ASPECTS.filter((a) => legs.some((l) => l.fate.loses.includes(a)));
  const { likelySeconds, lateSeconds } = sumDurations(legs.map(legSeconds).map(asDuration));
  return {
    road,
    legs,
    keeps: ASPECTS.filter((a) => !lost.includes(a) && legs.some((l) => l.fate.keeps.includes(a))),
    loses: lost,
    needs: legs.flatMap((l) => l.upgrade?.needs ?? []),
    likelySeconds,
    lateSeconds,
    why,
  };
}

function freshRoad(profiles: readonly Profile[], want: Profile, ground: RouteGround): RoadPlan {
  const fault = faultsOf(want, "fresh", ground).find((f) => f.stone);
  if (!fault?.stone) return planOf("fresh", [freshLeg(want)], "");
  const { stone } = fault;
  const base = profiles.find((p) => p.profile === stone.profile && inLine(stone.version, p.version));
  if (!base)
    return closed(
      "fresh",
      `${fault.looks} ${fault.remedy} The profile of ${stone.profile} ${stone.version} is missing here.`,
    );
  const rest = shortest(profiles, { profile: base.profile, version: stone.version }, want, () => true);
  return rest
    ? planOf("fresh", [freshLeg(base, stone.version), ...rest], `${fault.looks} ${fault.remedy}`)
    : closed(
        "fresh",
        `${fault.looks} ${fault.remedy} No supported upgrade leads from ${base.name} ${stone.version} to the wanted version.`,
      );
}

/**
 * The roads to a wanted system side by side: fresh, upgrade, convert. Each is the shortest that the profiles allow from
 * what stands on the machine, with the stepping stones that known faults force on this hardware.
 */
export function planRoads(
  profiles: readonly Profile[],
  installed: Installed | null,
  want: Profile,
  ground: RouteGround,
): RoadPlan[] {
  const inPlace = (road: "upgrade" | "convert"): RoadPlan => {
    if (!installed) return closed(road, "No known system is installed on this machine.");
    const found = systemWords(profiles, installed);
    if (installed.profile === want.profile && inLine(installed.version, want.version))
      return closed(road, `${found} is already installed.`);
    const converts = (legs: readonly Leg[]): boolean => legs.some((l) => l.kind === "convert");
    const legs = shortest(profiles, installed, want, (l) => converts(l) === (road === "convert"));
    if (!legs) return closed(road, `No supported upgrade path leads from ${found} to ${nameOf(want)}.`);
    const stones = legs.slice(0, -1).map((l) => `${l.profile.name} ${l.version}`);
    return planOf(road, legs, stones.length > 0 ? `Via ${stones.join(", then ")}.` : "");
  };
  return [freshRoad(profiles, want, ground), inPlace("upgrade"), inPlace("convert")];
}
