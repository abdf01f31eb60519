import { inLine } from "../text";
import { formatDay } from "../units";
import { verificationOf, type Image } from "./image";
import type { Inspection } from "./inspect";
import type { OwnFamily, Profile } from "./profile";

/** What stands for a family or a version that neither the name nor the inside of a file tells. */
export const UNKNOWN = "not known yet";

const ARM = /(aarch64|arm64)/i;
const VERSION = /\d+(?:\.\d+)*/g;
/** Numbers in file names that are no versions: processors, bits, years of a date. */
const NO_VERSION = /x86[_-]?64|amd64|aarch64|arm64|i[36]86|\b(?:19|20)\d{6}\b/gi;

/** Endings say what kind of file it is; a number in one is no version. */
const ENDINGS = /\.(?:[a-z][a-z0-9]{1,3}|qcow2?|html)(?:\.(?:gz|xz|zst|bz2|lz4|zip|7z|part))?$/i;

/** What a file says of itself by its name and its inside: a draft that the person looks over. */
export type ImageDraft = Pick<
  Image,
  "name" | "profile" | "version" | "variant" | "architecture" | "fileName" | "sizeBytes" | "bootModes"
>;

/** The profile whose words all occur in the names, and of its versions the one that a number there belongs to. */
function recognise(
  names: string,
  profiles: readonly Profile[],
): { profile: Profile; version: string } | null {
  const lower = names.toLowerCase();
  const family = profiles
    .filter((p) => p.recognise.length > 0 && p.recognise.every((w) => lower.includes(w.toLowerCase())))
    .toSorted((a, b) => b.recognise.join("").length - a.recognise.join("").length);
  const numbers = names.replace(NO_VERSION, " ").match(VERSION) ?? [];
  for (const profile of family) {
    const version = numbers.find((n) => inLine(n, profile.version));
    if (version) return { profile, version };
  }
  const [first] = family;
  return first ? { profile: first, version: numbers[0] ?? first.version } : null;
}

const boots = (found: Inspection, key: "legacy" | "x64" | "aa64"): boolean =>
  found.verdict.optical[key].answer !== "does not" || found.verdict.stick[key].answer !== "does not";

/** Drafts an image from a file: profile and version by its names, processor and boot modes by what is inside. */
export function draftImage(fileName: string, found: Inspection, profiles: readonly Profile[]): ImageDraft {
  const known = recognise(`${fileName} ${found.volumeId ?? ""}`, profiles);
  const arm = boots(found, "aa64") && !boots(found, "x64");
  const modes = [
    ...(boots(found, arm ? "aa64" : "x64") ? (["uefi"] as const) : []),
    ...(!arm && boots(found, "legacy") ? (["legacy"] as const) : []),
  ];
  const plain = fileName.replace(ENDINGS, "");
  return {
    name: known ? `${known.profile.name} ${known.version}` : plain.slice(0, 120) || "image",
    profile: known?.profile.profile ?? UNKNOWN,
    version: known?.version ?? plain.replace(NO_VERSION, " ").match(VERSION)?.[0] ?? UNKNOWN,
    variant: /netinst|net-?boot|network/i.test(plain)
      ? "network installer"
      : /boot-?only|mini/i.test(plain)
        ? "boot only"
        : "full",
    architecture: arm || ARM.test(plain) ? "aarch64" : "x86_64",
    fileName,
    sizeBytes: found.sizeBytes,
    bootModes: modes,
  };
}

/** Words of a file name that say what kind of image it is, and nothing of its family. */
const COMMON =
  /^(iso|img|x86|amd|arm|aarch|i386|i686|dvd|disc|netinst|install|installer|live|server|full|boot|only|release)$/;

/** What a family of one's own begins with for an image: its words, a name made of them, its version. */
export function draftFamily(image: Pick<Image, "fileName" | "version"> | null): OwnFamily {
  const words = (image?.fileName ?? "")
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter((w) => w.length > 2 && !COMMON.test(w));
  const name = words.map((w) => w[0]?.toUpperCase() + w.slice(1)).join(" ");
  const version = image && image.version !== UNKNOWN ? (image.version.split(".")[0] ?? "") : "";
  return { name, version, recognise: words };
}

export interface ShelfMark {
  kind: "same file" | "same release" | "ended" | "stale";
  words: string;
  /** The other image, for those that are two of one. */
  other: string | null;
}

const digests = (image: Image): string[] =>
  [image.published, image.computed?.checksum].flatMap((c) =>
    c ? [`${c.algorithm} ${c.value.trim().toLowerCase()}`] : [],
  );

/** What makes two entries one: the same file by its checksum or its volume, or the same release. */
function likenesses(image: Image): { kind: "same file" | "same release"; key: string }[] {
  const volume = image.inside?.found.volumeId;
  const release = [image.profile, image.version, image.variant, image.architecture, image.purpose].join(" ");
  return [
    ...digests(image).map((d) => ({ kind: "same file" as const, key: `digest ${d}` })),
    ...(volume ? [{ kind: "same file" as const, key: `volume ${image.sizeBytes} ${volume}` }] : []),
    { kind: "same release", key: `release ${release.toLowerCase()}` },
  ];
}

/** The day on which support ends, and who says so: the image's own date goes before that of its profile. */
export function supportEndOf(
  image: Image,
  profile: Profile | null,
): { day: string; from: "image" | "OS profile" } | null {
  if (image.supportEnds) return { day: image.supportEnds, from: "image" };
  return profile?.support.ends ? { day: profile.support.ends, from: "OS profile" } : null;
}

/**
 * What is the matter with each image of the shelf: two entries for one file or one release, and images that are stale.
 * By id; images without a mark are absent.
 */
export function shelfMarks(
  shelf: readonly { id: string; image: Image }[],
  profileOf: (image: Image) => Profile | null,
  today: string,
): Map<string, ShelfMark[]> {
  const alike = new Map<string, { id: string; image: Image }[]>();
  for (const entry of shelf)
    for (const { key } of likenesses(entry.image)) {
      const list = alike.get(key);
      if (list) list.push(entry);
      else alike.set(key, [entry]);
    }
  const marks = new Map<string, ShelfMark[]>();
  for (const { id, image } of shelf) {
    // What is one file is not told as one release as well: the first likeness of two entries is said.
    const twins = new Map<string, ShelfMark>();
    for (const { kind, key } of likenesses(image))
      for (const other of alike.get(key) ?? [])
        if (other.id !== id && !twins.has(other.id))
          twins.set(other.id, { kind, words: `${kind} as ${other.image.name}`, other: other.id });
    const own = [...twins.values()];
    const support = supportEndOf(image, profileOf(image));
    if (support && support.day < today)
      own.push({ kind: "ended", words: `support ended ${formatDay(support.day)}`, other: null });
    if (verificationOf(image) === "differs")
      own.push({ kind: "stale", words: "does not match the published checksum", other: null });
    if (own.length > 0) marks.set(id, own);
  }
  return marks;
}
