import { fileKey } from "../path";
import { failed, type Tried } from "./attempt";
import type { Arch, BootDevice, Loader, UefiMachine, Volume } from "./machine";
import type { Oracle } from "./questions";
import type { ReasonCode } from "./reasons";

/** Where firmware looks by itself, by processor: UEFI specification, section 3.5. */
export const FALLBACK: Readonly<Record<Arch, string>> = {
  x64: "\\efi\\boot\\bootx64.efi",
  ia32: "\\efi\\boot\\bootia32.efi",
  aa64: "\\efi\\boot\\bootaa64.efi",
};
const OTHER_FALLBACK = /^\\efi\\boot\\boot(x64|ia32|aa64|arm|riscv64)\.efi$/;

interface At {
  machine: UefiMachine;
  oracle: Oracle;
}

const CONDUCT: Readonly<Record<Exclude<Loader["conduct"], "starts the system">, ReasonCode>> = {
  "returns an error": "loader error",
  "returns success": "loader returned",
  hangs: "loader hangs",
  "refuses its second stage": "second stage refused",
};

/** Secure boot lets it through, or is off. */
function mayRun({ machine, oracle }: At, device: BootDevice, { path, signed }: Loader): boolean {
  if (signed === true) return true;
  if (!(machine.secureBoot ?? oracle.ask("secure boot", true))) return true;
  return signed ?? oracle.ask("signed", true, `${device.id} ${path}`, { file: path });
}

/** A program of the firmware's own kind is loaded and started. */
function run(at: At, device: BootDevice, loader: Loader): Tried {
  const { machine } = at;
  if (loader.arch === null) return failed("not a program", device, loader.path);
  if (loader.arch !== machine.arch) return failed("wrong code", device, loader.path);
  if (!mayRun(at, device, loader)) return failed("not signed", device, loader.path);
  if (loader.conduct !== "starts the system")
    return { ...failed(CONDUCT[loader.conduct], device, loader.path), starts: loader.starts };
  return { device, file: loader.path, outcome: "starts", reason: null, starts: loader.starts };
}

/**
 * What stands on a volume that nobody has looked into: the system that is known to start from the device, else what the
 * question is likely to be answered with.
 */
function unread(
  { oracle }: At,
  device: BootDevice,
  file: string | null,
  likely = device.system !== null,
): Tried {
  const is =
    device.system?.isSure ||
    (file
      ? oracle.ask("has the file", true, `${device.id} ${file}`, { device: device.name, file })
      : oracle.ask("starts something", likely, device.id, { device: device.name }));
  if (!is) return failed(file ? "file missing" : "no fallback loader", device, file);
  return { device, file, outcome: "starts", reason: null, starts: device.system?.name ?? "" };
}

/** A file of one volume is started. */
export function startFile(at: At, device: BootDevice, volume: Volume, file: string): Tried {
  if (volume.fat === false) return failed("no file system", device, file);
  if (volume.loaders === null) return unread(at, device, file);
  // Backslashes part the names; a path with slashes is not found.
  const found = volume.loaders.find((l) => fileKey(l.path) === fileKey(file));
  return found ? run(at, device, found) : failed("file missing", device, file);
}

/**
 * The fallback loader of the first volume that has one which can be loaded. Whatever comes of running it, the next volume
 * is not tried any more. `likely` tells whether something is thought to stand where nobody has looked.
 */
export function startFallback(
  at: At,
  device: BootDevice,
  volumes: readonly Volume[],
  likely?: boolean,
): Tried {
  const path = FALLBACK[at.machine.arch];
  let why: Tried = failed(
    volumes.some((v) => v.fat !== false) ? "no fallback loader" : "no file system",
    device,
  );
  for (const volume of volumes.filter((v) => v.fat !== false)) {
    if (volume.loaders === null) {
      const tried = unread(at, device, null, likely);
      if (tried.outcome === "starts") return tried;
      continue;
    }
    const loader = volume.loaders.find((l) => fileKey(l.path) === path);
    if (loader && loader.arch !== null) return run(at, device, loader);
    if (loader) why = failed("not a program", device, loader.path);
    else if (volume.loaders.some((l) => OTHER_FALLBACK.test(fileKey(l.path))))
      why = failed("other architecture", device);
  }
  return why;
}

/** A device is started as a whole: what a new list, or an entry without a file, comes to. */
export function startDevice(at: At, device: BootDevice): Tried {
  const { contents } = device;
  if (contents === null) return unread(at, device, null);
  if (contents === "no medium") return failed("no medium", device);
  if (contents.unreadable) return failed("table unreadable", device);
  // The system that runs was started from here, though its loader was not read.
  const isUnread = contents.volumes.every((v) => v.fat !== true || v.loaders === null);
  if (device.system && isUnread && !contents.images) return unread(at, device, null);
  const isDisc = device.kind === "disc" || device.kind === "virtual disc";
  // Firmware reads an El Torito catalogue on any drive, and the partitions of a disc on none.
  const images = (contents.images ?? []).filter((i) => i.platform === "uefi").map((i) => i.volume);
  if (isDisc && images.length === 0) return failed("no UEFI image", device);
  return startFallback(at, device, isDisc ? images : [...images, ...contents.volumes]);
}
