import { z } from "zod";
import { parseDevicePath } from "@/core/boot";
import type {
  BootCode,
  BootDevice,
  BootEntry,
  BootMachine,
  LegacyMachine,
  Loader,
  NetworkAnswer,
  Rank,
  UefiMachine,
  Volume,
} from "@/core/boot";

// The emulated machines of boot-order.json, as the resolver sees machines. What stands here is how that rig was built
// (where its buses are, how its notes are worded), and nothing of what it did.

const loaderSchema = z.looseObject({
  path: z.string(),
  arch: z.enum(["x64", "ia32", "aa64"]).nullish(),
  marker: z.string().nullish(),
  note: z.string().nullish(),
  behaviour: z.string().nullish(),
});
const contentsSchema = z.looseObject({
  table: z.string().nullish(),
  sectorSize: z.number().default(512),
  sizeBytes: z.number().default(0),
  filesystem: z.string().nullish(),
  loaders: z.array(loaderSchema).default([]),
  partitions: z
    .array(
      z.looseObject({
        num: z.number(),
        startLba: z.number(),
        sectors: z.number(),
        filesystem: z.string().nullish(),
        guid: z.string().nullish(),
        active: z.boolean().nullish(),
        bootSector: z.string().nullish(),
        loaders: z.array(loaderSchema).nullish(),
      }),
    )
    .default([]),
  gptDamage: z.string().nullish(),
  signature55AA: z.boolean().nullish(),
  elTorito: z
    .array(
      z.looseObject({
        platform: z.string(),
        content: z.string(),
        loaders: z.array(loaderSchema).default([]),
      }),
    )
    .nullish(),
  mbrCode: z.string().nullish(),
  bootCodeMarker: z.string().nullish(),
  bootPartitionWiped: z.boolean().nullish(),
  hybrid: z.string().nullish(),
  network: z.string().nullish(),
});
export const deviceSchema = z.looseObject({
  id: z.string(),
  kind: z.string(),
  bus: z.string().nullish(),
  port: z.number().nullish(),
  removable: z.boolean(),
  present: z.boolean(),
  qemuBootindex: z.number().nullish(),
  contents: contentsSchema.nullish(),
});
export const entrySchema = z.object({
  num: z.string(),
  active: z.boolean(),
  attributes: z.number(),
  description: z.string(),
  devicePath: z.string(),
  autoCreated: z.boolean(),
  targetDevice: z.union([z.string(), z.array(z.string())]).nullable(),
});
export const beforeSchema = z.looseObject({
  bootNext: z.string().nullish(),
  bootOrder: z.union([z.array(z.string()), z.string()]).nullish(),
  entries: z.array(entrySchema).default([]),
  secureBoot: z.boolean().nullish(),
  osIndications: z.string().nullish(),
  once: z.string().nullish(),
  strict: z.boolean().nullish(),
  bootindexOrder: z.array(z.string()).nullish(),
});
type Device = z.infer<typeof deviceSchema>;
type Before = z.infer<typeof beforeSchema>;
type RigLoader = z.infer<typeof loaderSchema>;
type RigContents = z.infer<typeof contentsSchema>;

const MAC = "525400123456";
/** The signature that the rig writes into every MBR. */
const MBR_SIGNATURE = "deadbeef";
export const SHELL = "7c04a583-9e3e-4f1c-ad65-e05268d0b4d1";
export const SETUP = "462caa21-7614-4503-836e-8ab6f4662331";

/** Where the rig's buses are; `meta.machines` of the file says so. */
function placeOf({ bus, port, kind }: Device): string {
  const at = port ?? 0;
  if (kind === "network card") return `PciRoot(0x0)/Pci(0x3,0x0)/MAC(${MAC},1)`;
  if (bus === "usb") return `PciRoot(0x0)/Pci(0x4,0x0)/USB(${Math.max(at - 1, 0)},0)`;
  if (bus === "nvme") return `PciRoot(0x0)/Pci(0x5,0x0)/NVMe(0x1,00-00-00-00-00-00-00-00)`;
  if (bus === "virtio") return "PciRoot(0x0)/Pci(0x6,0x0)";
  if (bus?.includes("scsi")) return `PciRoot(0x0)/Pci(0x7,0x0)/Scsi(${at},0)`;
  return `PciRoot(0x0)/Pci(0x1f,0x2)/Sata(${at},65535,0)`;
}

const KINDS: Readonly<Record<string, BootDevice["kind"]>> = {
  disk: "drive",
  "usb stick": "stick",
  "usb disk": "usb drive",
  cd: "disc",
  floppy: "floppy",
  "network card": "network port",
};

function conductOf({ behaviour, note }: RigLoader): Loader["conduct"] {
  const said = `${behaviour ?? ""} ${note ?? ""}`;
  if (/EFI_SUCCESS/.test(said)) return "returns success";
  if (/returns/.test(said)) return "returns an error";
  return /hang|loop|never/.test(said) ? "hangs" : "starts the system";
}

/** A signed shim loads the loader beside it, and stops where that is not signed by its own key. */
function loaderOf(loader: RigLoader, beside: readonly RigLoader[], secureBoot: boolean): Loader {
  const { path, note } = loader;
  const isSigned = note?.includes("signed") ?? false;
  const isShim = isSigned && /shim/i.test(path);
  const folder = path.slice(0, path.lastIndexOf("\\"));
  const second = beside.find((l) => l.path.toLowerCase() === `${folder}\\grubx64.efi`.toLowerCase());
  const refuses = isShim && secureBoot && !(second?.note?.includes("signed") ?? false);
  return {
    path,
    arch: loader.arch ?? (isSigned ? "x64" : null),
    signed: isShim,
    conduct: refuses ? "refuses its second stage" : conductOf(loader),
    starts: loader.marker ?? (isSigned ? "MARKER-GRUB-CFG" : ""),
  };
}

function volumesOf({ table, partitions, filesystem, loaders }: RigContents, secureBoot: boolean): Volume[] {
  const read = (all: readonly RigLoader[]) => all.map((l) => loaderOf(l, all, secureBoot));
  if (table === "iso9660") return [];
  if (partitions.length === 0)
    return filesystem
      ? [
          {
            partition: null,
            start: null,
            sectors: null,
            fat: /^FAT/.test(filesystem),
            loaders: read(loaders),
          },
        ]
      : [];
  return partitions.map((p) => ({
    partition: {
      number: p.num,
      ...(table === "mbr"
        ? { scheme: "MBR" as const, signature: MBR_SIGNATURE }
        : { scheme: "GPT" as const, signature: p.guid ?? "" }),
    },
    start: p.startLba,
    sectors: p.sectors,
    fat: /^FAT/.test(p.filesystem ?? ""),
    loaders: read(p.loaders ?? []),
  }));
}

/** The GPT attribute "legacy BIOS bootable", by whatever name the rig notes it. */
const hasLegacyAttribute = (partition: object): boolean =>
  Object.entries(partition).some(([key, value]) => /legacy|attribute/i.test(key) && Boolean(value));

/** What the code in the first sector does, as the rig names it. */
function codeOf(contents: RigContents, hasSignature: boolean): BootCode {
  const { mbrCode, partitions, bootCodeMarker, bootPartitionWiped } = contents;
  const code = mbrCode ?? "none";
  const starts = bootCodeMarker ?? "";
  const loads = Number(/core image at sector (\d+)/.exec(String(contents.note ?? ""))?.[1] ?? NaN);
  const does = (conduct: BootCode["conduct"], what = starts) => ({
    signature: hasSignature,
    conduct,
    starts: what,
    loads: Number.isNaN(loads) ? null : loads,
  });
  if (code === "none" || bootPartitionWiped) return does("hangs");
  if (/int 18h/.test(code)) return does("gives up");
  if (/gptmbr/.test(code))
    return does(partitions.some(hasLegacyAttribute) ? "starts the system" : "gives up");
  if (/mbr\.bin/.test(code)) {
    const active = partitions.filter((p) => p.active);
    return does(
      active.length === 1 && /prints/.test(active[0]!.bootSector ?? "") ? "starts the system" : "gives up",
    );
  }
  return does("starts the system");
}

function contentsOf(device: Device, secureBoot: boolean): BootDevice["contents"] {
  const { contents, kind } = device;
  if (!contents || kind === "network card") return null;
  if (kind === "cd" && contents.table !== "iso9660") return "no medium";
  const isHybrid = Boolean(contents.hybrid) || (contents.mbrCode ?? "none") !== "none";
  const read = (all: readonly RigLoader[]) => all.map((l) => loaderOf(l, all, secureBoot));
  return {
    sectorBytes: contents.sectorSize,
    sizeBytes: contents.sizeBytes,
    volumes: volumesOf(contents, secureBoot),
    unreadable:
      contents.table === "gpt" &&
      (contents.signature55AA === false || /both|protective|pmbr/i.test(contents.gptDamage ?? "")),
    images: !contents.elTorito?.length
      ? null
      : contents.elTorito.map((image) => ({
          platform: image.platform.startsWith("EFI") ? ("uefi" as const) : ("legacy" as const),
          starts: /MARKER-\S+/.exec(image.content)?.[0] ?? "",
          volume: {
            ...{ partition: null, start: null, sectors: null },
            fat: /^FAT/.test(image.content),
            loaders: read(image.loaders),
          },
        })),
    code: codeOf(contents, contents.signature55AA ?? isHybrid),
  };
}

/** What the rig's network did, by its own words. */
function answerOf(words: string, http: boolean): NetworkAnswer {
  if (/unplugged|link down/i.test(words)) return { kind: "link down" };
  if (/nobody|^$/i.test(words)) return { kind: "nobody" };
  if (/without boot ?file|no boot ?file/i.test(words)) return { kind: "no boot file" };
  if (/garbage|no EFI|not an EFI/i.test(words)) return { kind: "no program" };
  if (/missing|absent|not there|404|does not exist/i.test(words)) return { kind: "file missing" };
  if (/http/i.test(words) !== http) return { kind: "nobody" };
  if (/boot ?file \S+|http/i.test(words)) return { kind: "program", starts: "MARKER-NET" };
  throw new Error(`the rig's network "${words}" is not known`);
}

function deviceOf(device: Device, secureBoot: boolean): BootDevice {
  const { id, present, removable, contents } = device;
  const kind = KINDS[device.kind];
  if (!kind) throw new Error(`the rig's device "${device.kind}" is not known`);
  const words = contents?.network;
  return {
    ...{ id, name: id, label: `device ${id}`, kind, present, removable, hidden: null, system: null },
    path: parseDevicePath(placeOf(device)),
    contents: contentsOf(device, secureBoot),
    mac: kind === "network port" ? MAC : null,
    answers: words == null ? null : { pxe: answerOf(words, false), http: answerOf(words, true) },
  };
}

const entryOf = (entry: z.infer<typeof entrySchema>): BootEntry => ({
  id: entry.num,
  label: entry.description,
  active: (entry.attributes & 1) === 1,
  // Bits 8 to 12 are the category: UEFI specification, section 3.1.3.
  application: (entry.attributes & 0x1f00) === 0x100,
  path: parseDevicePath(entry.devicePath),
  own: entry.autoCreated,
});

const LETTERS = { a: "floppy", c: "disk", d: "disc", n: "network" } as const;
const ranksOf = (letters: string): Rank[] =>
  [...letters].flatMap((l) => (l in LETTERS ? [{ type: LETTERS[l as keyof typeof LETTERS] }] : []));

function legacyOf(before: Before, devices: BootDevice[]): LegacyMachine {
  const ranked: Rank[] = (before.bootindexOrder ?? []).map((device) => ({ device }));
  const letters = typeof before.bootOrder === "string" ? before.bootOrder.split(" ")[0]! : "cad";
  return {
    ...{ mode: "legacy", arch: "x64", devices, strict: before.strict ?? false },
    order: before.strict ? ranked : [...ranked, ...ranksOf(letters)],
    once: before.once ? [...ranked, ...ranksOf(before.once)] : null,
  };
}

/** A case of the file as a machine; `remembered` is what the power-on before it left in the firmware. */
export function machineOf(
  firmware: "uefi" | "bios",
  devices: readonly Device[],
  before: Before,
  remembered: UefiMachine["remembered"],
): BootMachine {
  const all = devices.map((d) => deviceOf(d, before.secureBoot ?? false));
  if (firmware === "bios") return legacyOf(before, all);
  const indexed = devices
    .filter((d) => d.qemuBootindex != null)
    .toSorted((a, b) => a.qemuBootindex! - b.qemuBootindex!);
  return {
    ...{ mode: "uefi", arch: "x64", devices: all, remembered, compatibility: false },
    secureBoot: before.secureBoot ?? false,
    entries: before.entries.map(entryOf),
    order: Array.isArray(before.bootOrder) ? before.bootOrder : null,
    once: before.bootNext ?? null,
    toSetup: before.osIndications?.startsWith("0x1") ?? false,
    programs: { setup: { label: "UiApp", guid: SETUP }, shell: { label: "EFI Internal Shell", guid: SHELL } },
    emulatorOrder: indexed.length > 0 ? indexed.map((d) => d.id) : null,
  };
}
