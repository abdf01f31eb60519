import type { Findings } from "./findings";
import type { Region } from "./inspection";
import { SECTOR } from "./iso";

/** The file from its first byte to its last as regions in order; what overlaps (an EFI image inside the files) comes after its host. */
export function regionsOf({ size, mbr, gpt, iso, udf, catalog, volumes }: Findings): Region[] {
  const regions: Region[] = [];
  const add = (name: string, kind: Region["kind"], offset: number, length: number): void => {
    // What should stand behind the end is a fault, and no part of the file.
    const inside = kind === "missing" ? length : Math.min(length, size - offset);
    if (inside > 0 && offset >= 0) regions.push({ name, kind, offset, length: inside });
  };
  if (mbr.signed) add(mbr.code ? "boot sector with code" : "boot sector without code", "boot", 0, 512);
  for (const [header, name] of [
    [gpt?.primary, "GPT, first copy"],
    [gpt?.backup, "GPT, second copy"],
  ] as const)
    if (header && gpt) add(header.sound ? name : `${name}, damaged`, "table", header.at, gpt.sectorBytes);
  if (iso) {
    const declared = iso.sectors * SECTOR;
    add("volume descriptors", "description", 16 * SECTOR, 4 * SECTOR);
    if (catalog) add("boot catalogue", "table", catalog.offset, SECTOR);
    for (const e of catalog?.entries ?? [])
      add(
        `boot image for ${e.platform === "UEFI" ? "UEFI" : "legacy BIOS"}`,
        "boot",
        e.offset,
        imageLength(e.loadSectors * 512, e.offset, volumes),
      );
    add("files", "files", 20 * SECTOR, Math.min(declared, size) - 20 * SECTOR);
    if (size > declared) add("after the volume", "beyond", declared, size - declared);
    if (size < declared) add("missing", "missing", size, declared - size);
  }
  if (udf) {
    add("UDF volume", "files", 0, Math.min(size, udf.declaredBytes));
    if (size < udf.declaredBytes) add("missing", "missing", size, udf.declaredBytes - size);
  }
  for (const p of [...(gpt?.partitions ?? []), ...mbr.partitions.filter((m) => m.type !== "ee" && !gpt)])
    add(
      `partition ${p.number} (${typeWords(p.type)})`,
      "partition",
      p.offset,
      Math.min(p.length, Math.max(0, size - p.offset)),
    );
  if (regions.length === 0) add("no known structure", "unknown", 0, size);
  return regions.sort((a, b) => a.offset - b.offset || b.length - a.length);
}

/** An EFI image's real length is that of its file system; catalogs say too little or nothing of it. */
const imageLength = (declared: number, offset: number, volumes: Findings["volumes"]): number =>
  Math.max(declared, volumes.find((v) => v.volume.offset === offset)?.volume.sizeBytes ?? 0, 512);

const TYPES: Record<string, string> = {
  "C12A7328-F81F-11D2-BA4B-00A0C93EC93B": "EFI system",
  "EBD0A0A2-B9E5-4433-87C0-68B6B72699C7": "data",
  "21686148-6449-6E6F-744E-656564454649": "BIOS boot",
  "0FC63DAF-8483-4772-8E79-3D69D8477DE4": "file system",
  ef: "EFI system",
  "17": "hidden, the whole image",
  "00": "the whole image",
  cd: "the whole image",
};
const typeWords = (type: string): string => TYPES[type] ?? `type ${type.slice(0, 8)}`;
