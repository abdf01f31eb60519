import { createHash } from "node:crypto";
import { existsSync, readFileSync } from "node:fs";
import { basename, join } from "node:path";
import { z } from "zod";
import { inspectFile, type Truth } from "../support/corpus";
import { eachCase, listsOf, type Compared, type TruthReader } from "./reader";

const ARCHES = ["x64", "ia32", "aa64"] as const;

/** What is needed of an image to compare it at all; the rest is compared where it was measured. */
const imageSchema = z.looseObject({
  truth: z.looseObject({}),
  structure: z.looseObject({ iso9660: z.boolean() }),
});

const boots = (cell: { answer: string }): boolean => cell.answer === "boots";

/** What booted, and what the structure of the image allows, against the verdict. */
function* verdicts(
  { truth }: Truth,
  { verdict }: ReturnType<typeof inspectFile>["value"],
): Generator<Compared> {
  const { optical, stick } = verdict;
  yield { what: "legacy from an optical drive", measured: truth.bios_cd, derrick: boots(optical.legacy) };
  yield { what: "legacy from a stick", measured: truth.bios_usb, derrick: boots(stick.legacy) };
  yield {
    what: "UEFI from an optical drive, by structure",
    measured: truth.uefi_cd_by_structure,
    derrick: ARCHES.some((a) => boots(optical[a])),
  };
  yield {
    what: "UEFI from a stick, by partition or FAT",
    measured: truth.uefi_usb_by_partition_or_fat,
    derrick: ARCHES.some((a) => boots(stick[a])),
  };
  yield {
    what: "UEFI from a stick on some firmware only",
    measured: truth.uefi_usb_only_thanks_to_eltorito_on_usb,
    derrick: ARCHES.some((a) => stick[a].answer === "on some firmware"),
  };
  for (const arch of ARCHES) {
    const [cd, usb] = [truth[`uefi_cd_${arch}`], truth[`uefi_usb_${arch}`]];
    if (typeof cd === "boolean")
      yield { what: `UEFI ${arch} from an optical drive`, measured: cd, derrick: boots(optical[arch]) };
    if (typeof usb === "boolean")
      yield { what: `UEFI ${arch} from a stick`, measured: usb, derrick: stick[arch].answer !== "does not" };
  }
}

/** What the standard tools say of the file, against the inspection. */
function* structures(
  { structure: s, volume_id, size }: Truth,
  value: ReturnType<typeof inspectFile>["value"],
): Generator<Compared> {
  yield { what: "size", measured: size, derrick: value.sizeBytes };
  if (s.iso9660) yield { what: "volume name", measured: volume_id ?? "", derrick: value.volumeId ?? "" };
  yield { what: "ISO 9660", measured: s.iso9660, derrick: value.kind.startsWith("ISO 9660") };
  yield { what: "UDF", measured: s.udf_descriptors, derrick: value.udf };
  yield { what: "Joliet", measured: s.joliet_volume_id ?? null, derrick: value.joliet };
  yield {
    what: "truncated",
    measured: s.file_shorter_than_pvd ?? false,
    derrick: value.faults.some((f) => f.message.startsWith("truncated")),
  };
  yield {
    what: "EFI programs in boot images",
    measured: (s.eltorito ?? []).flatMap((e) => e.efi_programs ?? []).map((p) => p.path),
    derrick: value.loaders.filter((l) => l.where === "boot image").map((l) => l.path),
  };
  for (const { lba_2048: lba } of s.eltorito ?? [])
    yield {
      what: `boot image at block ${lba}`,
      measured: true,
      derrick: value.regions.some((r) => r.name.startsWith("boot image") && r.offset === lba * 2048),
    };
  yield {
    what: "starts of partitions",
    measured: (s.sfdisk?.partitions ?? [])
      .map((p) => p.start * 512)
      .filter((offset) => offset < value.sizeBytes)
      .sort((a, b) => a - b),
    derrick: value.regions.filter((r) => r.kind === "partition").map((r) => r.offset),
  };
}

/** One image of the corpus; one that is not there is a difference. */
export function* compareImage(name: string, measured: Truth, corpus: string): Generator<Compared> {
  const path = join(corpus, name);
  if (!existsSync(path)) return yield { what: `${name} is in ${corpus}`, measured: true, derrick: false };
  const { value, bytesRead } = inspectFile(path);
  const digest = createHash("sha256").update(readFileSync(path)).digest("hex");
  if (measured.sha256_reproducible)
    yield { what: `${name}, sha256`, measured: measured.sha256, derrick: digest };
  for (const compared of [...verdicts(measured, value), ...structures(measured, value)])
    yield { ...compared, what: `${name}, ${compared.what}` };
  yield { what: `${name}, read by a few spans only`, measured: true, derrick: bytesRead < 400_000 };
}

export const bootReader: TruthReader = {
  name: "boot images",
  reads: (path) => /^boot-truth.*\.json$/.test(basename(path)),
  *compare(path, { corpus }) {
    const images = Object.entries(z.record(z.string(), z.unknown()).parse(listsOf(path).images));
    yield* eachCase(images, "images", z.tuple([z.string(), imageSchema]), ([name, measured]) =>
      compareImage(name, measured as unknown as Truth, corpus),
    );
  },
};
