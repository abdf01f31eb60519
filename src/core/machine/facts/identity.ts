import type { Drive, DriveContent } from "./drive";

/** A part of a drive as one tool saw it; what a listing has no column for is absent. */
export type ObservedContent = Partial<DriveContent> & Pick<DriveContent, "part" | "sizeBytes">;

/** A drive as one tool saw it; at least one of serial, WWN and name is there. */
export type ObservedDrive = Omit<Partial<Drive>, "contents"> & {
  contents?: ObservedContent[] | null;
  /** What a tool that knows neither sizes nor all parts found on it. */
  signatures?: DriveContent[];
};

/** Digits of a WWN without the prefix by which each tool marks them ("0x…", "naa.…", "eui.…", "wwn-0x…"). */
export const plainWwn = (wwn: string): string =>
  wwn
    .toLowerCase()
    .replace(/^(wwn-)?(0x|naa\.|eui\.|uuid\.|t10\.)*/, "")
    .replace(/[^0-9a-z.-]/g, "");

const sameWwn = (a: string | null | undefined, b: string | null | undefined): boolean =>
  Boolean(a && b && plainWwn(a) === plainWwn(b));

/** Some tools print a SAS drive's WWN where its serial should stand: no serial then. */
export const trueSerial = (drive: ObservedDrive): string | null =>
  drive.serial && !sameWwn(drive.serial, drive.wwn) ? drive.serial.trim() : null;

/**
 * The drive among `known` that an observation is about, or undefined. Serial decides; where one side has none, the WWN;
 * where the observation has neither, the name that it had in the same reading of the machine (`namedNow`), since names
 * move from start to start. Two drives with one serial are told apart by that name. A WWN alone never joins two
 * different serials: makers have shipped whole batches with one WWN.
 */
export function findDrive<D extends ObservedDrive>(
  known: readonly D[],
  observed: ObservedDrive,
  namedNow: (drive: D) => boolean,
): D | undefined {
  const serial = trueSerial(observed);
  const byName = (candidates: readonly D[]): D | undefined =>
    candidates.length > 1
      ? (candidates.find((d) => d.seenAs === observed.seenAs) ?? candidates[0])
      : candidates[0];
  if (observed.id !== undefined) {
    const same = known.find((d) => d.id === observed.id);
    if (same) return same;
    // The second of two drives with one serial: told apart by its tool, and not to be joined again.
    if (observed.id.includes("@")) return undefined;
  }
  if (serial !== null) {
    const same = byName(known.filter((d) => trueSerial(d) === serial));
    if (same) return same;
  }
  const alike = known.filter(
    (d) => sameWwn(d.wwn, observed.wwn) && (serial === null || trueSerial(d) === null),
  );
  if (alike.length > 0) return byName(alike);
  if (serial !== null || observed.wwn) return undefined;
  return known.find((d) => d.seenAs === observed.seenAs && namedNow(d));
}

/** Identity of a drive that is new to the machine: serial, else WWN, else "?" and its name. */
export const driveIdentity = (drive: ObservedDrive): string =>
  drive.id ?? trueSerial(drive) ?? drive.wwn ?? drive.serial ?? `?${drive.seenAs ?? "drive"}`;

/** The device that a partition or a by-id link belongs to: "nvme0n1p2" is on "nvme0n1", "sda1" on "sda". */
export function deviceOf(name: string): string {
  const base = name.replace(/^\/dev\//, "").replace(/^(disk\/by-[a-z]+\/)/, "");
  const nvme = /^((?:nvme\d+n\d+|mmcblk\d+))(?:p\d+)?$/.exec(base);
  if (nvme) return nvme[1] ?? base;
  const numbered = /^((?:ada|da|nda|nvd|vtbd|mmcsd)\d+)(?:p\d+|s\d+[a-h]?)?$/.exec(base);
  if (numbered) return numbered[1] ?? base;
  const letter = /^((?:sd|hd|vd|xvd)[a-z]+)\d*$/.exec(base);
  return letter ? (letter[1] ?? base) : base.replace(/-part\d+$/, "");
}

/** The drive that a set's member name means: by its device name, or by serial or WWN inside a by-id name. */
export function driveNamed(drives: readonly Drive[], name: string): Drive | undefined {
  const device = deviceOf(name);
  const named = drives.find((d) => !d.missingSince && d.seenAs === device);
  if (named) return named;
  return drives.find(
    (d) =>
      (d.serial && d.serial.length >= 6 && device.includes(d.serial)) ||
      (d.wwn && /^(wwn-|nvme-eui)/.test(device) && device.includes(plainWwn(d.wwn))),
  );
}
