import type { StickOnHand } from "../boot";
import type { Rival } from "../claims";
import type { RateSample, StepTime } from "../estimate";
import type { Image, Profile } from "../image";
import type { CompatNote } from "../compat";
import type { CircuitState, Drive, DrivePast, Facts, MachineDocument, Port } from "../machine";
import { holdsData, isUnread, standingWords, visibleDrives } from "../machine";
import type { Segment } from "../network";
import { dayAt, type Site } from "../site";
import { proofOf, proves, targetSeats, type TargetSeat } from "../storage";
import type { Consent, Sheet } from "./sheet";

/** Everything that the rules of a build may look at. Absent parts are null: rules about them stay silent. */
export interface BuildContext {
  now: string;
  sheet: Sheet;
  machine: { name: string; document: MachineDocument } | null;
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
  /** The editions of the image's profile: the one this sheet is made from, and the newest. */
  edition: { kept: number; newest: number } | null;
}

export interface ShelfImage {
  id: string;
  image: Image;
}

export const factsOf = (context: BuildContext): Facts | null => context.machine?.document.facts ?? null;

export function targetOf({ sheet, machine }: BuildContext): Drive | null {
  return machine?.document.facts.drives.find((d) => d.id === sheet.storage.target) ?? null;
}

/** The drives of the target that are among the machine's facts, the first one first, each with its role. */
export const targetsOf = ({ sheet, machine }: BuildContext): { drive: Drive; role: TargetSeat["role"] }[] =>
  targetSeats(sheet.storage).flatMap(({ drive: id, role }) => {
    const drive = machine?.document.facts.drives.find((d) => d.id === id);
    return drive ? [{ drive, role }] : [];
  });

/**
 * The consent to erase a drive, and whether it still holds: it was given by naming this drive, for what stands on it
 * now. Null when nobody has agreed.
 */
export function consentFor(context: BuildContext, drive: Drive): { consent: Consent; holds: boolean } | null {
  const consent = context.sheet.storage.erase.find((c) => c.drive === drive.id);
  if (!consent) return null;
  const named = proves(consent.typed, proofOf(drive, drivesOf(context)));
  return { consent, holds: named && consent.holds === standingWords(drive) };
}

/** Something stands on a drive of the target, or nobody has looked, and no consent to erase it holds. */
export const wantsConsent = (context: BuildContext, drive: Drive): boolean =>
  (holdsData(drive) || isUnread(drive)) && !consentFor(context, drive)?.holds;

/** The stick that the sheet names: as the register knows it, else as it is described on the sheet. */
export function stickOf({ sheet, sticks }: BuildContext) {
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

export function portOf({ sheet, machine }: BuildContext): Port | null {
  return machine?.document.facts.ports.find((p) => p.mac === sheet.network.port) ?? null;
}

export function segmentOf({ sheet, site }: BuildContext): Segment | null {
  return site?.segments.find((s) => s.id === sheet.network.segment) ?? null;
}

export const drivesOf = (context: BuildContext): Drive[] => {
  const facts = factsOf(context);
  return facts ? visibleDrives(facts) : [];
};

/** The day that it is where the machine stands. */
export const todayOf = ({ site, now }: BuildContext): string => dayAt(site, now);

/** Where a fact was read: "dmidecode, 20 Nov", for evidence. */
export function sourceWords(context: BuildContext, path: string): string {
  const source = context.machine?.document.sources[path];
  return source ? `${source.tool}, ${source.at.slice(0, 10)}` : "imported";
}
