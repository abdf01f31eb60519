import { z } from "zod";
import { defineDocument } from "../document";
import { inspectionSchema, type Cell } from "./inspect";
import { term } from "../text";

/** Hexadecimal digits of each digest; the weak two are read because old lists still use them. */
const DIGITS = { md5: 32, sha1: 40, sha256: 64, sha512: 128 } as const;

export const PURPOSES = ["installer", "guest drivers", "recovery", "firmware"] as const;

export const checksumSchema = z.object({
  algorithm: z.enum(["md5", "sha1", "sha256", "sha512"]),
  value: z.string(),
});
export type Checksum = z.infer<typeof checksumSchema>;

/** One installation image file: what was published about it, and what was measured from the file itself. */
export const imageSchema = z.object({
  schemaVersion: z.literal(1),
  name: z.string().trim().min(1, "an image needs a name"),
  profile: z.string().min(1, "choose the OS profile that this image installs"),
  version: z.string().trim().min(1, "an image needs its version"),
  /** What the file is for: an installer, or something that goes with one. */
  purpose: z.enum(PURPOSES).default("installer"),
  /** Ids of the images that this one goes with; for guest drivers and recovery media. */
  goesWith: z.array(z.string()).default([]),
  variant: z.enum(["full", "network installer", "boot only", "maker's custom"]).default("full"),
  architecture: z.enum(["x86_64", "aarch64"]),
  fileName: z.string().default(""),
  sizeBytes: z.number().int().positive("the size is required for sticks and transfer times"),
  /** Empty for what starts in none: drivers, a file that is no image, one that is packed. */
  bootModes: z.array(z.enum(["uefi", "legacy"])),
  loaderSigned: z.enum(["signed", "unsigned", "unknown"]).default("unknown"),
  published: checksumSchema.nullable().default(null),
  publishedFrom: z.string().default(""),
  /** What a tool computed over the file that will be used, and when; the two are compared, never trusted. */
  computed: z
    .object({ checksum: checksumSchema, at: z.iso.datetime(), by: z.string() })
    .nullable()
    .default(null),
  /** What was found inside the file that will be used. */
  inside: z
    .object({ found: inspectionSchema, fileName: z.string(), at: z.iso.datetime(), by: z.string() })
    .nullable()
    .default(null),
  supportEnds: z.iso.date().nullable().default(null),
  notes: z.string().default(""),
});
export type Image = z.infer<typeof imageSchema>;
export const imageDocument = defineDocument({ kind: "image", version: 1, schema: imageSchema, upgrades: {} });

/** In which modes an image starts, in words. */
export const startsIn = ({ bootModes }: Pick<Image, "bootModes">): string =>
  bootModes.map((mode) => (mode === "uefi" ? "UEFI" : "legacy BIOS")).join(" and ") ||
  "neither UEFI nor legacy BIOS";

/** Why a text is no digest of this algorithm, or null. */
export function checksumProblem({ algorithm, value }: Checksum): string | null {
  const digits = value.trim();
  if (!/^[0-9a-f]*$/i.test(digits)) return "a checksum has hexadecimal digits only";
  const wanted = DIGITS[algorithm];
  return digits.length === wanted
    ? null
    : `${term(algorithm)} has ${wanted} digits; this has ${digits.length}`;
}

/** The same in a narrow column: "UEFI, BIOS". */
export const shortModes = ({ bootModes }: Pick<Image, "bootModes">): string =>
  bootModes.map((mode) => (mode === "uefi" ? "UEFI" : "BIOS")).join(", ");

/** What comparing the published with the computed checksum says. "other algorithm" means that nothing was compared. */
export function verificationOf(
  image: Image,
): "matches" | "differs" | "not computed" | "not published" | "other algorithm" {
  if (!image.published) return "not published";
  if (!image.computed) return "not computed";
  const { checksum } = image.computed;
  if (checksum.algorithm !== image.published.algorithm) return "other algorithm";
  return checksum.value.trim().toLowerCase() === image.published.value.trim().toLowerCase()
    ? "matches"
    : "differs";
}

/**
 * What the inside of the file says about starting it: by one way to the machine, in one boot mode, on one processor.
 * Null when nobody has looked inside.
 */
export function insideVerdict(
  image: Image,
  way: "virtual media" | "stick" | "network" | "disc",
  mode: "uefi" | "legacy",
): Cell | null {
  // Over the network the loader comes from the boot service, not out of the file.
  if (!image.inside || way === "network") return null;
  const row = image.inside.found.verdict[way === "stick" ? "stick" : "optical"];
  return mode === "legacy" ? row.legacy : row[image.architecture === "aarch64" ? "aa64" : "x64"];
}

/**
 * Whether the loader that firmware would start is signed, and in whose name: as it was read out of the file for this way
 * to the machine, else as somebody said. "unknown" where neither tells it.
 */
export function loaderSignature(
  image: Image,
  way: "virtual media" | "stick" | "network" | "disc",
): { state: Image["loaderSigned"]; words: string; source: string } {
  const said = { state: image.loaderSigned, words: image.loaderSigned, source: `${image.name}, typed` };
  if (!image.inside || way === "network") return said;
  const name = image.architecture === "aarch64" ? "BOOTAA64.EFI" : "BOOTX64.EFI";
  const loaders = image.inside.found.loaders.filter((l) => l.path.toUpperCase().endsWith(`/${name}`));
  const own = loaders.filter((l) => (l.where === "boot image") === (way !== "stick"));
  const loader = (own.length > 0 ? own : loaders).find((l) => l.signed !== null);
  if (!loader) return said;
  return {
    state: loader.signed ? "signed" : "unsigned",
    words: loader.signed
      ? `signed as ${loader.signer ?? "(signer name unreadable)"} (not verified)`
      : "unsigned",
    source: `${loader.path}, inside the file`,
  };
}
