import type { Findings } from "./findings";
import type { Cell, Inspection } from "./inspection";
import type { BootCatalog, BootEntry } from "./iso";
import type { LoaderArch } from "./pe";

type Arch = "x64" | "ia32" | "aa64";
const boots = (reason: string): Cell => ({ answer: "boots", reason });
const some = (reason: string): Cell => ({ answer: "on some firmware", reason });
const not = (reason: string): Cell => ({ answer: "does not", reason });

/** Where an image boots, by structure alone: what stands where firmware looks. Whether the loader works is not seen. */
export function verdictOf(found: Findings): Inspection["verdict"] {
  const row = (legacy: Cell, uefi: (arch: Arch) => Cell) => ({
    legacy,
    x64: uefi("x64"),
    ia32: uefi("ia32"),
    aa64: uefi("aa64"),
  });
  if (found.foreign) {
    const none = not(`it is ${found.foreign.what}: ${found.foreign.first}`);
    return { optical: row(none, () => none), stick: row(none, () => none) };
  }
  return {
    optical: row(opticalLegacy(found), (arch) => opticalUefi(found, arch)),
    stick: row(stickLegacy(found), (arch) => stickUefi(found, arch)),
  };
}

/** The entry of a kind that is marked as bootable, or else the first that is not. */
const entryFor = (catalog: BootCatalog | null, platform: BootEntry["platform"]): BootEntry | undefined => {
  const all = catalog?.entries.filter((e) => e.platform === platform) ?? [];
  return all.find((e) => e.bootable) ?? all[0];
};

const noIso = ({ udf }: Findings): string =>
  udf
    ? "it is UDF without ISO 9660, so firmware finds no boot record"
    : "it is not an ISO 9660 image, which optical drives and virtual CDs need";

function opticalLegacy(found: Findings): Cell {
  const { iso, catalog } = found;
  if (!iso) return not(noIso(found));
  if (!iso.bootCatalogLba) return not("it has no El Torito boot record");
  if (!catalog) return not("its boot catalogue cannot be read");
  const entry = entryFor(catalog, "BIOS");
  if (!entry) return not("its boot catalogue has no entry for legacy BIOS");
  if (!entry.bootable) return not("its legacy BIOS entry is marked as not bootable");
  if (!entry.inside) return not("the boot image is beyond the end of the file");
  const how = entry.emulation === "none" ? "without emulation" : `as ${entry.emulation}`;
  return catalog.checksumFits
    ? boots(`El Torito entry for legacy BIOS, ${how}`)
    : some(`El Torito entry ${how}, but the checksum of the catalogue is wrong`);
}

const isLoaderFor =
  (arch: Arch) =>
  (p: { arch: LoaderArch | null; expected: LoaderArch | null; cutOff: string | null }): boolean =>
    p.expected === arch && p.arch === arch && p.cutOff === null;

/** Why a place that should hold a loader does not serve an architecture. */
function missing(found: Findings, where: Findings["volumes"][number]["where"], arch: Arch): string {
  const programs = found.volumes.filter((v) => v.where === where).flatMap((v) => v.volume.programs);
  const cut = programs.find((p) => p.expected === arch && p.cutOff !== null);
  if (cut) return `${cut.path} is truncated: ${cut.cutOff}`;
  const misnamed = programs.find((p) => p.expected === arch && p.arch !== arch);
  if (misnamed)
    return `${misnamed.path} is ${misnamed.arch ? `a program for ${misnamed.arch}` : "not an EFI program"}`;
  const others = [...new Set(programs.map((p) => p.arch).filter(Boolean))];
  return others.length > 0 ? `its loader is for ${others.join(" and ")} only` : "EFI/BOOT has no loader";
}

function opticalUefi(found: Findings, arch: Arch): Cell {
  const { iso, catalog, treeLoaders, volumes } = found;
  if (!iso) {
    // A disc is a block device like others to UEFI, which looks for FAT on it; only a table would count in sectors of another size.
    const whole = volumes.filter((v) => v.where === "whole file");
    if (whole.some((v) => v.volume.programs.some(isLoaderFor(arch))))
      return boots("a FAT file system without partitions, with a loader for this architecture");
    return not(whole.length > 0 ? missing(found, "whole file", arch) : noIso(found));
  }
  const entry = entryFor(catalog, "UEFI");
  if (!entry) {
    const without = catalog ? "the boot catalogue has no entry for UEFI" : "it has no El Torito boot record";
    if (volumes.some((v) => v.where === "partition" && v.volume.programs.some(isLoaderFor(arch))))
      return some(`${without}; some firmware looks for a FAT partition on optical media, most does not`);
    return treeLoaders.some((path) => path.toUpperCase().endsWith(`BOOT${arch.toUpperCase()}.EFI`))
      ? some(`${without}; some firmware boots EFI/BOOT from the file tree of the ISO, most does not`)
      : not(without);
  }
  if (!entry.inside) return not("the EFI boot image is beyond the end of the file");
  const images = volumes.filter((v) => v.where === "boot image");
  if (images.length === 0) return not("the EFI boot image has no FAT file system");
  if (!images.some((v) => v.volume.programs.some(isLoaderFor(arch))))
    return not(missing(found, "boot image", arch));
  if (!entry.bootable) return some("the UEFI entry is marked as not bootable");
  return boots("El Torito entry for UEFI with a loader for this architecture");
}

function stickLegacy({ mbr, gpt }: Findings): Cell {
  if (!mbr.signed) return not("its first sector is not a boot sector");
  if (!mbr.code) return not("its first sector has no boot code");
  const active = mbr.partitions.some((p) => p.active);
  return active || gpt
    ? boots("boot code in the first sector")
    : some(
        mbr.partitions.length > 0
          ? "boot code in the first sector, but no partition is marked active"
          : "boot code in the first sector, and no partition table",
      );
}

function stickUefi(found: Findings, arch: Arch): Cell {
  // A table for other sectors than a stick has stands where no firmware looks for it; the second copy belongs into the last
  // sector, which on a larger stick is another one.
  const isFirstSound = found.gpt?.primary?.sound ?? false;
  const isSeen = (v: Findings["volumes"][number]): boolean =>
    v.partition?.table !== "GPT" || (found.gpt?.sectorBytes === 512 && found.mbr.protective && isFirstSound);
  const onStick = found.volumes.filter((v) => v.where !== "boot image" && isSeen(v));
  if (onStick.length === 0 && found.gpt && found.gpt.sectorBytes !== 512)
    return not(`its GPT is for sectors of ${found.gpt.sectorBytes} bytes, and a stick has 512`);
  if (onStick.length === 0 && found.gpt && !found.mbr.protective)
    return not("its first sector has no entry of type EE, so firmware does not look for the GPT");
  if (onStick.length === 0 && found.gpt && !isFirstSound)
    return not(
      "the first copy of its GPT cannot be read, and on a larger stick the second copy is not in the last sector",
    );
  if (onStick.some((v) => v.volume.programs.some(isLoaderFor(arch))))
    return boots(
      onStick.some((v) => v.where === "partition")
        ? "a FAT partition with a loader for this architecture"
        : "a FAT file system with a loader for this architecture",
    );
  const inCatalog = found.volumes.some(
    (v) => v.where === "boot image" && v.volume.programs.some(isLoaderFor(arch)),
  );
  const { gpt, mbr } = found;
  const none = gpt || mbr.partitions.length > 0 ? "no FAT partition with a loader" : "no partition table";
  if (inCatalog)
    return some(
      `only through its El Torito entry, which some firmware reads on sticks and most does not: ${none}`,
    );
  if (onStick.length > 0) return not(missing(found, onStick[0]?.where ?? "partition", arch));
  if (found.treeLoaders.length > 0)
    return not(`EFI/BOOT is in the file tree of the ISO, where firmware does not look on a stick; ${none}`);
  return not(`${none}`);
}
