import type { DevicePath } from "../path";

export type Arch = "x64" | "ia32" | "aa64";

/** Whether firmware with secure boot lets a loader start; null: nobody has looked. */
export type Signed = boolean | null;

/** What a loader does when it has the processor. */
export type Conduct =
  | "starts the system"
  | "returns an error"
  | "returns success"
  | "hangs"
  /** A signed first stage whose second stage is not signed by a key that it trusts. */
  | "refuses its second stage";

/** An EFI program that can be started, at its path on one file system. */
export interface Loader {
  path: string;
  /** What its code is for; null where the file is no EFI program. */
  arch: Arch | "other" | null;
  signed: Signed;
  conduct: Conduct;
  /** What comes of it, in words for people: "Cairn 9", "the installer". */
  starts: string;
}

/** A part of a drive that has a file system of its own. */
export interface Volume {
  /** Its partition; null for a drive without a table. */
  partition: { number: number; scheme: "GPT" | "MBR" | "other"; signature: string } | null;
  start: number | null;
  sectors: number | null;
  /** Only FAT is read by firmware; null: nobody has looked. */
  fat: boolean | null;
  /** Null: nobody has looked what stands in it. */
  loaders: readonly Loader[] | null;
}

/** What the first sector of a drive does when a legacy firmware jumps into it. */
export interface BootCode {
  /** 55 AA at the end of the sector: the only thing that legacy firmware looks at. */
  signature: boolean;
  /** Null: code stands there, and nobody knows what it does. */
  conduct: "starts the system" | "hangs" | "gives up" | null;
  starts: string;
  /** First sector of what it loads next; absent where nobody has looked. */
  loads?: number | null;
}

/** A boot image of a disc (El Torito), or the whole of one that is started like a drive. */
export interface DiscImage {
  platform: "legacy" | "uefi";
  volume: Volume;
  starts: string;
}

/** What can be started from a drive, a stick or a disc. */
export interface Contents {
  sectorBytes: number;
  sizeBytes: number;
  /** File systems in the order of their partitions. */
  volumes: readonly Volume[];
  /** Both copies of the partition table are damaged, or the protective MBR is gone. */
  unreadable: boolean;
  /** Boot images of an El Torito catalogue; null where there is no catalogue. */
  images: readonly DiscImage[] | null;
  /** Null: nobody has read the first sector. */
  code: BootCode | null;
}

/** What the network answers to a port that asks for something to start. */
export type NetworkAnswer =
  | { kind: "nobody" | "no boot file" | "file missing" | "no program" | "link down" }
  | { kind: "program"; starts: string };

export type DeviceKind =
  | "drive"
  | "virtual drive"
  | "boot card"
  | "stick"
  | "usb drive"
  | "disc"
  | "virtual disc"
  | "floppy"
  | "network port"
  | "SAN volume";

/** Why a firmware cannot see a device that is there. */
export type Hidden =
  | "card not enabled"
  | "card still syncing"
  | "behind the controller"
  | "not licensed"
  | "not mapped"
  | "not activated"
  | "session lost"
  | "no hardware initiator"
  | "too new for the firmware";

/** Something that a machine may start from. */
export interface BootDevice {
  id: string;
  name: string;
  kind: DeviceKind;
  /** Where it is; null where no tool told. */
  path: DevicePath | null;
  /** The name that firmware gives it in its own list. */
  label: string;
  present: boolean | null;
  removable: boolean;
  /** Why it is not seen; null where it is; "unknown" where nobody has looked. */
  hidden: Hidden | "unknown" | null;
  /** Null: nobody has read what stands on it. */
  contents: Contents | "no medium" | null;
  /** What starts from it where nobody has looked for its loader, and whether that is known for sure; null: nothing is told. */
  system: { name: string; isSure: boolean } | null;
  /** MAC address in hex, for ports. */
  mac: string | null;
  /** What is answered to PXE and to HTTP boot; null: not known. */
  answers: { pxe: NetworkAnswer; http: NetworkAnswer } | null;
}

export interface BootEntry {
  id: string;
  label: string;
  active: boolean;
  /** Category "application": listed, but never started by the order. */
  application: boolean;
  path: DevicePath;
  /** Made by the firmware itself for a device, and taken away by it when the device is gone. */
  own: boolean;
}

/** What this firmware puts into its list by itself. */
export interface OwnPrograms {
  setup: { label: string; guid: string } | null;
  shell: { label: string; guid: string } | null;
}

interface Common {
  arch: Arch;
  devices: readonly BootDevice[];
}

export interface UefiMachine extends Common {
  mode: "uefi";
  secureBoot: boolean | null;
  entries: readonly BootEntry[];
  /** Null where there is no BootOrder variable. */
  order: readonly string[] | null;
  once: string | null;
  /** The system asked to be led into the set-up pages. */
  toSetup: boolean;
  compatibility: boolean | null;
  programs: OwnPrograms;
  /** Where a partition that two drives carry was found the last time, by partition. */
  remembered: ReadonlyMap<string, string>;
  /** An emulator's own order of devices, which rewrites the list; null on real boards. */
  emulatorOrder: readonly string[] | null;
}

export const TYPES = ["floppy", "disk", "disc", "network"] as const;
export type DeviceType = (typeof TYPES)[number];
export type Rank = { device: string } | { type: DeviceType };

export interface LegacyMachine extends Common {
  mode: "legacy";
  order: readonly Rank[];
  /** For one start in place of the order. */
  once: readonly Rank[] | null;
  /** What is not in the order is not tried at all. */
  strict: boolean;
}

export type BootMachine = UefiMachine | LegacyMachine;
