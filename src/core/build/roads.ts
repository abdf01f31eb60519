import {
  faultsOf,
  identifySystem,
  planRoads,
  type Installed,
  type KnownFault,
  type Leg,
  type RoadPlan,
  type RouteGround,
  type TargetKind,
} from "../image";
import type { Drive } from "../machine";
import { inLine } from "../text";
import { factsOf, targetOf, type BuildContext, type ShelfImage } from "./context";

/** What a target is to a system that starts from it. */
export function targetKind(drive: Pick<Drive, "media" | "presentedBy">): TargetKind {
  // A module that shows two cards as one is still made of cards.
  if (drive.media === "card") return "flash card";
  if (drive.presentedBy !== null || drive.media === "virtual") return "hardware array";
  return drive.media === "usb" ? "stick" : "drive";
}

/** What the known faults of a profile may be about on this machine. */
export function groundOf(context: BuildContext): RouteGround {
  const facts = factsOf(context);
  const target = targetOf(context);
  return {
    target: target ? targetKind(target) : null,
    model: [facts?.chassis?.maker, facts?.chassis?.model].filter(Boolean).join(" "),
    parts: (facts?.pci ?? []).flatMap((d) => [d.ids.toLowerCase(), ...(d.driver ? [d.driver] : [])]),
  };
}

/** What is installed on the machine, as the profiles know it. */
export const installedOn = (context: BuildContext): Installed | null =>
  identifySystem(context.profiles, factsOf(context)?.system);

const planned = new WeakMap<BuildContext, RoadPlan[]>();

/** The roads from what is on the machine to the image of the sheet, side by side; none without a profile. */
export function roadsOf(context: BuildContext): RoadPlan[] {
  const known = planned.get(context);
  if (known) return known;
  const { profile } = context;
  const roads = profile ? planRoads(context.profiles, installedOn(context), profile, groundOf(context)) : [];
  planned.set(context, roads);
  return roads;
}

/** The road that the sheet has chosen. */
export const roadOf = (context: BuildContext): RoadPlan | null =>
  roadsOf(context).find((r) => r.road === context.sheet.image.road) ?? null;

/** Whether the chosen road leaves the system on the target in place. */
export const keepsSystem = (context: BuildContext): boolean =>
  context.sheet.image.road !== "fresh" && (roadOf(context)?.legs.length ?? 0) > 0;

/** The legs that the steps follow: the chosen road, or the plain installation while the road is closed. */
export function legsOf(context: BuildContext): Leg[] {
  const { profile } = context;
  if (!profile) return [];
  const legs = roadOf(context)?.legs ?? [];
  if (legs.length > 0) return legs;
  return [
    {
      kind: "fresh",
      profile,
      from: null,
      version: profile.version,
      upgrade: null,
      through: "installer",
      screens: profile.screens,
      fate: profile.fresh,
    },
  ];
}

/** Whether anything starts from media: a road inside the running system needs no way to the machine. */
export const startsFromMedia = (context: BuildContext): boolean => {
  const legs = legsOf(context);
  return legs.length === 0 || legs.some((l) => l.through === "installer");
};

/** The image of a leg: the sheet's own for the last one, one of the shelf for a stepping stone; null when none is there. */
export function imageOfLeg(context: BuildContext, leg: Leg, last: boolean): ShelfImage | null {
  if (last) return context.image ? { id: context.sheet.image.id ?? "", image: context.image } : null;
  return (
    context.shelf.find(
      ({ image }) =>
        image.purpose === "installer" &&
        image.profile === leg.profile.profile &&
        inLine(image.version, leg.version) &&
        image.architecture === (context.image?.architecture ?? image.architecture),
    ) ?? null
  );
}

/** Known faults that this build meets, of every leg. */
export const faultsHere = (context: BuildContext): { fault: KnownFault; leg: Leg }[] =>
  legsOf(context).flatMap((leg) =>
    faultsOf(leg.profile, leg.kind, groundOf(context)).map((fault) => ({ fault, leg })),
  );
