import { parseDevicePath } from "@/core/boot";
import type {
  BootDevice,
  BootEntry,
  Contents,
  LegacyMachine,
  Loader,
  NetworkAnswer,
  UefiMachine,
  Volume,
} from "@/core/boot";

/** A loader that starts what it is called by. */
export const loader = (path: string, changes: Partial<Loader> = {}): Loader => ({
  ...{ path, arch: "x64", signed: true, conduct: "starts the system", starts: `the system of ${path}` },
  ...changes,
});
export const FALLBACK_PATH = "\\EFI\\BOOT\\BOOTX64.EFI";

/** A FAT partition with loaders; its number tells its GUID. */
export const volume = (
  number: number,
  loaders: Volume["loaders"],
  changes: Partial<Volume> = {},
): Volume => ({
  partition: { number, scheme: "GPT", signature: `guid-${number}` },
  ...{ start: 2048, sectors: 81_920, fat: true, loaders },
  ...changes,
});

export const contents = (volumes: Volume[], changes: Partial<Contents> = {}): Contents => ({
  ...{ sectorBytes: 512, sizeBytes: 480e9, volumes, unreadable: false, images: null },
  code: { signature: true, conduct: "starts the system", starts: "the boot code" },
  ...changes,
});

/** A drive on a SATA port. */
export const device = (id: string, port: number, changes: Partial<BootDevice> = {}): BootDevice => ({
  ...{ id, name: id, label: `label ${id}`, kind: "drive", present: true, removable: false, hidden: null },
  ...{ contents: null, system: null, mac: null, answers: null },
  path: parseDevicePath(`PciRoot(0x0)/Pci(0x1f,0x2)/Sata(${port},65535,0)`),
  ...changes,
});

export const stick = (id: string, changes: Partial<BootDevice> = {}): BootDevice =>
  device(id, 0, {
    ...{ kind: "stick", removable: true },
    path: parseDevicePath("PciRoot(0x0)/Pci(0x4,0x0)/USB(0,0)"),
    ...changes,
  });

export const port = (
  id: string,
  answer: NetworkAnswer | null,
  changes: Partial<BootDevice> = {},
): BootDevice =>
  device(id, 0, {
    ...{ kind: "network port", mac: "02610a000014", path: null },
    answers: answer && { pxe: answer, http: answer },
    ...changes,
  });

export const entry = (id: string, path: string, changes: Partial<BootEntry> = {}): BootEntry => ({
  ...{ id, label: `entry ${id}`, active: true, application: false, own: false },
  path: parseDevicePath(path),
  ...changes,
});

/** The n-th partition of `volume`, with a file on it. */
export const onPartition = (n: number, file = "\\EFI\\os\\a.efi"): string =>
  `HD(${n},GPT,guid-${n},0x800,0x14000)/File(${file})`;

export const uefi = (changes: Partial<UefiMachine>): UefiMachine => ({
  ...{ mode: "uefi", arch: "x64", devices: [], secureBoot: false, entries: [], order: [], once: null },
  ...{ toSetup: false, compatibility: false, programs: { setup: null, shell: null } },
  ...{ remembered: new Map(), emulatorOrder: null },
  ...changes,
});

export const legacy = (changes: Partial<LegacyMachine>): LegacyMachine => ({
  ...{ mode: "legacy", arch: "x64", devices: [], once: null, strict: false },
  order: [{ type: "disk" }, { type: "disc" }, { type: "network" }],
  ...changes,
});
