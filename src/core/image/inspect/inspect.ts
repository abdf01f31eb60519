import { formatExactBytes } from "../../units";
import { parseBootSector, readFat } from "./fat";
import type { Findings } from "./findings";
import type { Inspection } from "./inspection";
import { readCatalog, readIso, readTreeLoaders, SECTOR } from "./iso";
import { BEGINNING, foreignOf, isFixedVhd } from "./kinds";
import { mayHoldFat, parseMbr, readGpt } from "./partitions";
import { read, type Reading } from "./reader";
import { regionsOf } from "./regions";
import { readUdf } from "./udf";
import { verdictOf } from "./verdict";

/** No real image has more places where a loader could be. */
const MOST_VOLUMES = 12;

/** Reads what an image is and where it boots, in range reads. It ends on any input and never throws. */
export function* inspectImage(size: number): Reading<Omit<Inspection, "bytesRead">> {
  const start = yield* read(0, BEGINNING);
  const head = start.sub(0, 512);
  const mbr = parseMbr(head, parseBootSector(head, 0) !== null);
  const gpt = size >= 1024 ? yield* readGpt(size) : null;
  const iso = size > 17 * SECTOR ? yield* readIso() : null;
  const udf = iso ? null : yield* readUdf();
  const foreign = foreignOf(start, iso !== null || gpt !== null || udf !== null);
  const vhd = size > 1024 && isFixedVhd(yield* read(size - 512, 512));
  const catalog = iso?.bootCatalogLba ? yield* readCatalog(iso.bootCatalogLba, size) : null;
  const volumes: Findings["volumes"] = [];
  for (const entry of catalog?.entries ?? []) {
    if (entry.platform !== "UEFI" || !entry.inside || volumes.length >= MOST_VOLUMES) continue;
    const volume = yield* readFat(entry.offset, size);
    if (volume) volumes.push({ where: "boot image", volume, partition: null });
  }
  for (const partition of [...(gpt?.partitions ?? []), ...mbr.partitions].filter(mayHoldFat)) {
    if (volumes.length >= MOST_VOLUMES || partition.offset >= size) continue;
    const volume = yield* readFat(partition.offset, size);
    if (volume) volumes.push({ where: "partition", volume, partition });
  }
  const whole = iso ? null : yield* readFat(0, size);
  if (whole) volumes.push({ where: "whole file", volume: whole, partition: null });
  const treeLoaders = iso ? yield* readTreeLoaders(iso) : [];
  const found: Findings = { size, head, mbr, gpt, iso, udf, foreign, vhd, catalog, treeLoaders, volumes };
  return {
    sizeBytes: size,
    kind: kindOf(found),
    volumeId: iso?.volumeId || udf?.label || (whole?.label ?? null) || null,
    made: iso?.preparer || iso?.application || "",
    udf: iso?.udf ?? udf !== null,
    joliet: iso?.joliet ?? null,
    faults: faultsOf(found),
    verdict: verdictOf(found),
    loaders: [
      ...volumes.flatMap(({ where, volume }) =>
        volume.programs.map((p) => ({
          path: p.path,
          arch: p.arch,
          where,
          signed: p.signature?.signed ?? null,
          signer: p.signature?.signer ?? null,
        })),
      ),
      ...treeLoaders.map((path) => ({
        path,
        arch: null,
        where: "the file tree of the ISO",
        signed: null,
        signer: null,
      })),
    ],
    regions: regionsOf(found),
  };
}

function kindOf(found: Findings): string {
  const { size, head, mbr, gpt, iso, udf, foreign, volumes } = found;
  if (size === 0) return "an empty file";
  if (foreign) return `${foreign.what}: ${foreign.first}`;
  if (found.vhd) return "a virtual disk (VHD of fixed size): a raw disk with a footer of 512 bytes";
  if (iso)
    return `ISO 9660 image${iso.udf ? " with UDF" : ""}${mbr.signed ? ", also for USB sticks (hybrid)" : ""}`;
  if (udf) return "UDF image, without ISO 9660";
  if (gpt) return "raw disk image with a GPT";
  if (volumes.some((v) => v.where === "whole file"))
    return `${volumes.at(-1)?.volume.kind} file system without partitions`;
  if (mbr.signed && mbr.partitions.length > 0) return "raw disk image with an MBR";
  const start = head.text(0, 200).trimStart();
  if (/^<(!doctype|html|\?xml)/i.test(start))
    return "a web page, not an image: the download returned an error page";
  if (mbr.signed) return "a boot sector without partitions";
  return head.raw.every((b) => b === 0)
    ? "zeros at its beginning: an unfinished download"
    : "unknown type of file";
}

function faultsOf({ size, iso, udf, gpt, catalog, mbr, volumes }: Findings): Inspection["faults"] {
  const faults: Inspection["faults"] = [];
  const grave = (message: string): number => faults.push({ message, grave: true });
  const slight = (message: string): number => faults.push({ message, grave: false });
  const declared = iso ? iso.sectors * SECTOR : (udf?.declaredBytes ?? 0);
  if (size < declared)
    grave(
      `truncated: the image declares ${formatExactBytes(declared)}, the file has ${formatExactBytes(size)} (${Math.floor((100 * size) / declared)} %). It may boot and fail later.`,
    );
  if (catalog && !catalog.checksumFits)
    slight("the checksum of the boot catalogue is wrong; some firmware ignores that");
  if (iso?.bootCatalogLba && !catalog)
    grave(`the boot catalogue at byte ${iso.bootCatalogLba * SECTOR} cannot be read`);
  for (const entry of catalog?.entries ?? [])
    if (!entry.inside) grave(`a boot image at byte ${entry.offset} is beyond the end of the file`);
  for (const { volume } of volumes)
    for (const p of volume.programs) if (p.cutOff) grave(`${p.path} is truncated: ${p.cutOff}`);
  if (gpt && gpt.sectorBytes !== 512)
    grave(
      `its GPT is for sectors of ${gpt.sectorBytes} bytes; on sticks and most drives, with 512 bytes, firmware does not find it`,
    );
  if (gpt && !mbr.protective && !iso)
    grave("its first sector has no entry of type EE, so firmware does not look for the GPT");
  if (gpt?.primary && !gpt.primary.sound && gpt.backup && !gpt.backup.sound)
    grave("both copies of the GPT are damaged: firmware cannot read it");
  if (gpt?.primary && !gpt.primary.sound)
    slight(`the first copy of the GPT is damaged: ${gpt.primary.fault}`);
  if (gpt && !gpt.primary)
    slight("the first copy of the GPT is missing; on a larger stick, some programs see no partitions");
  if (gpt && !gpt.backup) slight("the second copy of the GPT is missing; some firmware requires it");
  if (gpt?.backup && !gpt.backup.sound) slight(`the second copy of the GPT is damaged: ${gpt.backup.fault}`);
  for (const p of [...(gpt?.partitions ?? []), ...mbr.partitions])
    if (p.type !== "ee" && p.offset + p.length > size && !iso)
      slight(`partition ${p.number} ends beyond the file`);
  return faults;
}
