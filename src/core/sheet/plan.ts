import type { SecretMark } from "../answers";
import { bootPicture, type BootPicture } from "../boot";
import type { Rival } from "../claims";
import type { CompatNote } from "../compat";
import type { RateSample, StepTime } from "../estimate";
import { deriveRoads, type Image, type Profile, type Roads, type ShelfImage } from "../image";
import type { CircuitState, DrivePast, OnMachine } from "../machine";
import { planWays, type StickOnHand, type WayPlan } from "../media";
import { dayAt, type Site } from "../site";
import { targetOf, withMadeDrives } from "../storage";
import type { Sheet } from "./sheet";

/** All that a sheet is judged by, as it is stored. Absent parts are null: rules about them stay silent. */
export interface Sources extends OnMachine {
  now: string;
  sheet: Sheet;
  site: Site | null;
  image: Image | null;
  profile: Profile | null;
  /** Who else holds what this sheet and its machine claim. */
  rivals: readonly Rival[];
  /** What the drive register knows of the machine's drives. */
  pasts: readonly DrivePast[];
  circuit: CircuitState | null;
  compat: readonly CompatNote[];
  /** Every OS profile, through which the roads to the wanted system lead. */
  profiles: readonly Profile[];
  /** Every image, for stepping stones and to see whether a newer one is there. */
  shelf: readonly ShelfImage[];
  /** Sticks and cards of the register. */
  sticks: readonly StickOnHand[];
  /** Measured transfers. */
  samples: readonly RateSample[];
  /** How long waits of own runs took. */
  times: readonly StepTime[];
  /** Which passwords of this build open something else too, by their marks. */
  secrets: readonly SecretMark[];
  /** The editions of the image's profile: the one this sheet is made from, and the newest. */
  edition: { kept: number; newest: number } | null;
}

/** A sheet with what it is judged by, and all that several stages work with, worked out once. */
export interface Plan extends Sources, Roads {
  /** The day that it is where the machine stands. */
  today: string;
  /** Its time zone. */
  timeZone: string;
  /** The ways to the machine side by side; null without an image, and where nothing starts from media. */
  ways: readonly WayPlan[] | null;
  /** What the machine starts at the moments of the build; null without a machine. */
  boot: BootPicture | null;
}

/** The share of the image that one installation reads; a profile that says nothing of it is taken to read all. */
export function readShare(profile: Profile | null): number {
  const shares = (profile?.screens ?? []).reduce((sum, s) => sum + s.readsShare, 0);
  return shares === 0 ? 1 : Math.min(1, shares);
}

/** Works out what the stages share: the day, the roads with their legs, the ways. Same sources, same plan. */
export function derive(stored: Sources): Plan {
  // The machine that the installer meets: with the virtual drives that its controller has made by then.
  const met = stored.machine && withMadeDrives(stored.machine, stored.sheet.storage.sets);
  const sources = { ...stored, machine: met };
  const { sheet, image, profile, site, machine, sticks, samples, now } = sources;
  const roads = deriveRoads({ ...sources, target: targetOf(sources) });
  const ways =
    image && roads.fromMedia
      ? planWays({
          ...{ image, site, sticks, samples },
          readShare: readShare(profile),
          mode: sheet.boot.mode,
          facts: machine?.document.facts ?? null,
          stickKey: sheet.image.stick.key,
        })
      : null;
  const plan = { ...sources, ...roads, ways, today: dayAt(site, now), timeZone: site?.timeZone ?? "UTC" };
  return { ...plan, boot: bootPicture(plan) };
}
