import { factsOf, modelOf, type Drive, type OnMachine } from "../machine";
import { inLine } from "../text";
import type { Image } from "./image";
import {
  faultsOf,
  identifySystem,
  planRoads,
  type Installed,
  type KnownFault,
  type Leg,
  type Profile,
  type Road,
  type RoadPlan,
  type RouteGround,
  type TargetKind,
} from "./profile";

/** An image with its id. */
export interface ShelfImage {
  id: string;
  image: Image;
}

/** What the roads from the installed system to the wanted one are planned from. */
export interface RoadSources extends OnMachine {
  sheet: { image: { id: string | null; road: Road } };
  image: Image | null;
  profile: Profile | null;
  /** Every OS profile, through which the roads lead. */
  profiles: readonly Profile[];
  /** The drive that the system is to stand on. */
  target: Drive | null;
}

/** The roads of a build, worked out once. */
export interface Roads {
  /** What is installed on the machine, as the profiles know it. */
  installed: Installed | null;
  /** The roads to the image of the sheet, side by side; none without a profile. */
  roads: readonly RoadPlan[];
  /** The road that the sheet has chosen. */
  road: RoadPlan | null;
  /** What the steps follow: the chosen road, or the plain installation while the road is closed. */
  legs: readonly Leg[];
  /** The chosen road leaves the system on the target in place. */
  keepsSystem: boolean;
  /** Anything starts from media: a road inside the running system needs no way to the machine. */
  fromMedia: boolean;
  /** Known faults that this build meets, of every leg. */
  faults: readonly { fault: KnownFault; leg: Leg }[];
}

/** What a target is to a system that starts from it. */
export function targetKind(drive: Pick<Drive, "media" | "presentedBy">): TargetKind {
  // A module that shows two cards as one is still made of cards.
  if (drive.media === "card") return "flash card";
  if (drive.presentedBy !== null || drive.media === "virtual") return "hardware array";
  return drive.media === "usb" ? "stick" : "drive";
}

/** What the known faults of a profile may be about on this machine. */
function groundOf(sources: RoadSources): RouteGround {
  const { target } = sources;
  return {
    target: target ? targetKind(target) : null,
    model: modelOf(sources),
    parts: (factsOf(sources)?.pci ?? []).flatMap((d) => [
      d.ids.toLowerCase(),
      ...(d.driver ? [d.driver] : []),
    ]),
  };
}

const plainInstallation = (profile: Profile): Leg => ({
  kind: "fresh",
  profile,
  from: null,
  version: profile.version,
  upgrade: null,
  through: "installer",
  screens: profile.screens,
  fate: profile.fresh,
});

/** The roads from what is on the machine to the image of the sheet, the chosen one, and what follows from it. */
export function deriveRoads(sources: RoadSources): Roads {
  const { profile, profiles, sheet } = sources;
  const ground = groundOf(sources);
  const installed = identifySystem(profiles, factsOf(sources)?.system);
  const roads = profile ? planRoads(profiles, installed, profile, ground) : [];
  const road = roads.find((r) => r.road === sheet.image.road) ?? null;
  const open = (road?.legs.length ?? 0) > 0;
  const legs = open ? (road?.legs ?? []) : profile ? [plainInstallation(profile)] : [];
  return {
    ...{ installed, roads, road, legs },
    keepsSystem: sheet.image.road !== "fresh" && open,
    fromMedia: legs.length === 0 || legs.some((l) => l.through === "installer"),
    faults: legs.flatMap((leg) => faultsOf(leg.profile, leg.kind, ground).map((fault) => ({ fault, leg }))),
  };
}

/** What tells which image belongs to a leg. */
export interface LegImages {
  sheet: { image: { id: string | null } };
  image: Image | null;
  shelf: readonly ShelfImage[];
}

/** The image of a leg: the sheet's own for the last one, one of the shelf for a stepping stone; null when none is there. */
export function imageOfLeg({ sheet, image, shelf }: LegImages, leg: Leg, last: boolean): ShelfImage | null {
  if (last) return image ? { id: sheet.image.id ?? "", image } : null;
  return (
    shelf.find(
      (one) =>
        one.image.purpose === "installer" &&
        one.image.profile === leg.profile.profile &&
        inLine(one.image.version, leg.version) &&
        one.image.architecture === (image?.architecture ?? one.image.architecture),
    ) ?? null
  );
}
