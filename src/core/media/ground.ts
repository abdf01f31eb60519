import type { RateSample } from "../estimate";
import type { ImageGround } from "../image";
import type { Site } from "../site";
import type { Mode } from "../work";
import type { ImageSlice } from "./slice";
import { mediumWords, type StickOnHand, type Way, type WayPlan } from "./ways";

/** What the rules about the way to the machine and its stick look at. */
export interface MediaGround extends ImageGround {
  sheet: { image: ImageSlice; boot: { mode: Mode } };
  site: Site | null;
  /** Sticks and cards of the register. */
  sticks: readonly StickOnHand[];
  /** Measured transfers. */
  samples: readonly RateSample[];
  /** The ways to the machine side by side; null without an image, and where nothing starts from media. */
  ways: readonly WayPlan[] | null;
}

type OnSheet = Pick<MediaGround, "sheet" | "sticks">;

/** The stick that the sheet names: as the register knows it, else as it is described on the sheet. */
export function stickOf({ sheet, sticks }: OnSheet) {
  const { stick } = sheet.image;
  const known = sticks.find((s) => s.key === stick.key) ?? null;
  const { entry } = known ?? {};
  return {
    known,
    name: entry?.label || entry?.model || stick.name,
    serial: entry?.serial ?? null,
    sizeBytes: entry?.sizeBytes ?? stick.sizeBytes,
    /** How it stands when the machine starts from it: as this build writes it, or as it was written before. */
    written: stick.ready && entry ? (entry.written ?? "unknown") : stick.written,
    holds: (entry ? entry.holds : stick.holds).trim(),
  };
}

export const wayOf = ({ sheet }: Pick<MediaGround, "sheet">): Way => sheet.image.way;
export const isAtMachine = (ground: Pick<MediaGround, "sheet">): boolean =>
  ["stick", "disc"].includes(wayOf(ground));
export const onStick = (ground: MediaGround): boolean => wayOf(ground) === "stick" && ground.fromMedia;

/** What the machine starts from, for sentences. */
export const mediaWords = (ground: OnSheet): string => {
  const way = wayOf(ground);
  return way === "stick" ? stickOf(ground).name || "USB stick" : mediumWords[way];
};

/**
 * Whether the machine installs itself from Derrick's own boot service: it starts over the network at a site where that is on, and
 * its profile tells what is started. A road with a stepping stone, or one that keeps something, is walked by hand.
 */
export const isServed = (ground: MediaGround): boolean =>
  wayOf(ground) === "network" &&
  ground.site?.networkBoot === "on" &&
  Boolean(ground.profile?.netboot) &&
  ground.profile?.answerFile !== "none" &&
  ground.legs.length === 1 &&
  ground.legs.every((leg) => leg.kind === "fresh" && leg.through === "installer");
