import {
  DEFAULT_LINK,
  learnRate,
  readEstimate,
  sumDurations,
  takes,
  transferEstimate,
  type Duration,
  type LearnedRate,
  type RateSample,
  type Way,
} from "../../estimate";
import { insideVerdict, type Image } from "../../image";
import type { Facts, RegisterEntry } from "../../machine";
import type { Site } from "../../site";
import { formatBytes } from "../../units";
import { modeWords, type Mode } from "../../work";
import type { WayPlan } from "./way";

/** A stick or card of the register. */
export interface StickOnHand {
  key: string;
  entry: RegisterEntry;
}

/** What the ways are judged on. `readShare` is the part of the image that an installation reads (0 to 1). */
export interface WaysGround {
  image: Image;
  readShare: number;
  mode: Mode;
  facts: Facts | null;
  site: Site | null;
  sticks: readonly StickOnHand[];
  /** The stick that is chosen; its own class and measurements count. */
  stickKey: string;
  samples: readonly RateSample[];
}

/** Sustained rates in bytes per second by class of port; makers' figures are for short bursts. */
const STICK_WRITE = { "USB 2": 8e6, "USB 3": 30e6, unknown: 10e6 } as const;
const STICK_READ = { "USB 2": 30e6, "USB 3": 100e6, unknown: 30e6 } as const;
/** A disc is written at 8 times and read at 12 times 1.385 MB/s, on average over its radius. */
const DISC_WRITE = 8 * 1.385e6;
const DISC_READ = 12 * 1.385e6;
/** Capacities of discs in bytes: CD, DVD of one and of two layers, blue-laser disc. */
const DISCS = [
  { name: "a CD", bytes: 737_280_000 },
  { name: "a single-layer DVD", bytes: 4_700_372_992 },
  { name: "a double-layer DVD", bytes: 8_543_666_176 },
  { name: "a 25 GB disc", bytes: 25_025_314_816 },
] as const;
/** Going to a machine and back within the building; a site far away is not in this figure. */
const WALK = takes(300, 900);
/** Setting up a boot service and trying it once. */
const BOOT_SERVICE = takes(1800, 5400);

/** What bounds virtual media: such a controller in such a firmware, over the link of this site. */
export const mediaThrough = (facts: Facts | null, siteName: string): string =>
  [facts?.controller?.kind ?? "controller", facts?.controller?.firmware, "at", siteName]
    .filter(Boolean)
    .join(" ");

const together = (...parts: Duration[]): Duration => {
  const sum = sumDurations(parts);
  const { likelySeconds, lateSeconds, handsSeconds } = sum;
  return { likelySeconds, lateSeconds, handsShare: likelySeconds === 0 ? 0 : handsSeconds / likelySeconds };
};

const usual = (likely: number, words: string) => ({ likely, slow: likely / 2, count: 0 as const, words });

type MediaGround = Pick<WaysGround, "samples" | "facts" | "site">;

/** The rate of virtual media as measured: through such a controller here, noted on this machine, or else at this site. */
export function learnedMedia({ facts, samples, site }: MediaGround): LearnedRate | null {
  const name = site?.name ?? "";
  const same = learnRate(samples, "virtual media", mediaThrough(facts, name));
  const own = facts?.controller?.mediaBytesPerSecond;
  if (same || !own)
    return same ?? learnRate(samples, "virtual media", "", (s) => s.through.endsWith(` at ${name}`));
  return { likely: own, slow: own / 1.5, count: 1, words: "recorded for this machine" };
}

/** Time to read bytes through virtual media: by measurement where there is one, by the narrowest limit otherwise. */
export function mediaEstimate(bytes: number, ground: MediaGround) {
  const learned = learnedMedia(ground);
  if (learned) return readEstimate(bytes, learned);
  const { link } = ground.site ?? { link: null };
  return transferEstimate(
    bytes,
    link
      ? {
          ...DEFAULT_LINK,
          linkBitsPerSecond: link.bitsPerSecond,
          linkTyped: true,
          ...(link.roundTripSeconds !== null && {
            roundTripSeconds: link.roundTripSeconds,
            roundTripTyped: true,
          }),
        }
      : DEFAULT_LINK,
  );
}

/** The share of writing a stick that needs hands: choosing it, agreeing, taking it out. */
export const WRITE_HANDS = 0.15;

/** Time to write an image to a stick and read it back. */
export function writingEstimate(bytes: number, stick: StickOnHand | null, samples: readonly RateSample[]) {
  const kind = stick?.entry.speedClass ?? "unknown";
  const learned = stick ? learnRate(samples, "stick", stick.key) : null;
  if (learned) return readEstimate(bytes, learned, "size, written and verified");
  const both = 1 / (1 / STICK_WRITE[kind] + 1 / STICK_READ[kind]);
  return readEstimate(
    bytes,
    usual(both, kind === "unknown" ? "class unknown" : `${kind}, writing and verifying`),
    "size, written and verified",
  );
}

const judged = (reasons: {
  bad: string[];
  open: string[];
  good: string[];
}): Pick<WayPlan, "verdict" | "reasons"> => ({
  verdict: reasons.bad.length > 0 ? "not possible" : reasons.open.length > 0 ? "not certain" : "possible",
  reasons: [...reasons.bad, ...reasons.open, ...reasons.good],
});

/** What the inside of the image says, sorted by weight. */
function insideReasons(ground: WaysGround, way: Way): { bad: string[]; open: string[]; good: string[] } {
  const cell = insideVerdict(ground.image, way, ground.mode);
  const words = (reason: string): string => `${modeWords(ground.mode)}: ${reason}`;
  if (!cell)
    return way === "network"
      ? { bad: [], open: [], good: [] }
      : { bad: [], open: ["The image was not inspected."], good: [] };
  if (cell.answer === "boots") return { bad: [], open: [], good: [words(cell.reason)] };
  return cell.answer === "does not"
    ? { bad: [words(cell.reason)], open: [], good: [] }
    : { bad: [], open: [words(cell.reason)], good: [] };
}

function virtualMedia(ground: WaysGround): WayPlan {
  const { facts, image, readShare } = ground;
  const { bad, open, good } = insideReasons(ground, "virtual media");
  const media = facts?.controller?.virtualMedia;
  if (facts?.controller?.present === false) bad.unshift("There is no management controller.");
  else if (media === "not licensed")
    bad.unshift("The licence of the management controller excludes virtual media.");
  else if (media === "licensed") good.unshift("The management controller has a virtual media licence.");
  else
    open.unshift(
      "It is not recorded whether the licence of the management controller includes virtual media.",
    );
  const { duration, figure } = mediaEstimate(image.sizeBytes * readShare, ground);
  return {
    way: "virtual media",
    ...judged({ bad, open, good }),
    preparation: ["Store the image on the computer that shows the console.", "Map it read-only."],
    risks: [
      "The session ends when the computer sleeps or its VPN drops, and the installer loses its medium.",
      "If it stays mapped, the next restart boots the installer again.",
    ],
    once: takes(0, 0),
    each: together(takes(60, 240), duration),
    figure,
    // Each session goes through the same link to the operator.
    parallel: false,
  };
}

function stick(ground: WaysGround): WayPlan {
  const { image, readShare, sticks, samples, stickKey } = ground;
  const { bad, open, good } = insideReasons(ground, "stick");
  const large = sticks.filter((s) => s.entry.sizeBytes >= image.sizeBytes && s.entry.state !== "destroyed");
  const chosen = sticks.find((s) => s.key === stickKey) ?? null;
  if (sticks.length > 0 && large.length === 0)
    bad.push(`No USB stick of the drive inventory holds ${formatBytes(image.sizeBytes)}.`);
  else if (large.length > 0)
    good.push(
      `Large enough: ${large
        .slice(0, 4)
        .map((s) => s.entry.label || s.key)
        .join(", ")}.`,
    );
  else open.push("The drive inventory has no USB stick.");
  const writing = writingEstimate(image.sizeBytes, chosen, samples);
  const read = STICK_READ[chosen?.entry.speedClass ?? "unknown"];
  return {
    way: "stick",
    ...judged({ bad, open, good }),
    preparation: [
      "Check the contents of the stick and its owner.",
      "Write it byte for byte and verify it.",
      "Label it with its contents.",
    ],
    risks: [
      "The writing program preselects another stick, or a drive.",
      "If it stays connected, it boots again.",
    ],
    once: together(takes(60, 180), { ...writing.duration, handsShare: WRITE_HANDS }),
    each: together(
      WALK,
      takes((image.sizeBytes * readShare) / read, (2 * image.sizeBytes * readShare) / read, 0),
    ),
    figure: writing.figure,
    parallel: false,
  };
}

/** Bytes per second of the port that a network boot would use: the fastest that has a link. */
export function portRate(facts: Facts | null): { bytesPerSecond: number; known: boolean } {
  const speeds = (facts?.ports ?? [])
    .filter((p) => p.kind === "ethernet" && p.link !== "down")
    .map((p) => p.speedMegabits ?? p.maxMegabits ?? 0);
  const best = Math.max(0, ...speeds);
  return { bytesPerSecond: ((best || 1000) * 1e6) / 8, known: best > 0 };
}

export const networkThrough = (site: Site | null): string => `boot service at ${site?.name ?? "this site"}`;

/** Time to read bytes from a boot service: by measurement, else at 60 % of the speed of the port. */
export function networkEstimate(bytes: number, { facts, samples, site }: MediaGround) {
  const { bytesPerSecond, known } = portRate(facts);
  const rate =
    learnRate(samples, "network", networkThrough(site)) ??
    usual(bytesPerSecond * 0.6, known ? "60 % of the port speed" : "60 % of 1 Gbit/s");
  return readEstimate(bytes, rate);
}

/** Time to read bytes from a disc. */
export const discEstimate = (bytes: number) => readEstimate(bytes, usual(DISC_READ, "12 times"));

const [TELL_DHCP, TRY_ONE] = [
  "Enter its address in the DHCP server of the network; only one may respond.",
  "Test with one machine first.",
];
/** At a site where Derrick itself answers machines, and only those that were armed. */
const OWN_SERVICE = {
  preparation: [
    "Put the image into the image folder of Derrick: boot files are read from it.",
    ...[TELL_DHCP, TRY_ONE],
    "Arm each machine by its serial number, for a sufficient time.",
  ],
  risks: [
    "If serial number or MAC was read wrongly, another machine can be accepted: both are compared at the request.",
  ],
};
const OTHER_SERVICE = {
  preparation: ["Copy loader, kernel and files of the image to the boot service.", TELL_DHCP, TRY_ONE],
  risks: [
    "Another machine of the network boots from it by itself and is overwritten.",
    "A machine that keeps booting from the network installs again.",
  ],
};

function network(ground: WaysGround): WayPlan {
  const { facts, image, readShare } = ground;
  const { bad, open, good } = insideReasons(ground, "network");
  const wired = (facts?.ports ?? []).filter((p) => p.kind === "ethernet");
  if (facts && facts.ports.length > 0 && wired.length === 0)
    bad.push("It has no wired port, and firmware boots only from wired ports.");
  else if (wired.some((p) => p.link === "up")) good.push("A wired port has a link.");
  else open.push("No wired port had a link.");
  open.push("A boot service must respond in the network, in addition to its DHCP server.");
  const { duration, figure } = networkEstimate(image.sizeBytes * readShare, ground);
  return {
    way: "network",
    ...judged({ bad, open, good }),
    ...(ground.site?.networkBoot === "on" ? OWN_SERVICE : OTHER_SERVICE),
    once: BOOT_SERVICE,
    each: together(takes(60, 180), duration),
    figure,
    parallel: true,
  };
}

function disc(ground: WaysGround): WayPlan {
  const { facts, image, readShare } = ground;
  const { bad, open, good } = insideReasons(ground, "disc");
  const drive = facts?.firmware?.entries?.find((e) => e.kind === "optical" && !/virtual/i.test(e.label));
  const fits = DISCS.find((d) => d.bytes >= image.sizeBytes);
  if (!fits) bad.push(`${formatBytes(image.sizeBytes)} does not fit on an optical disc.`);
  else good.push(`It fits on ${fits.name}.`);
  if (drive) good.push(`The firmware lists an optical drive: ${drive.label}.`);
  else open.push("The collected data shows no optical drive.");
  const writing = readEstimate(
    image.sizeBytes,
    usual(1 / (1 / DISC_WRITE + 1 / DISC_READ), "8 times, verified"),
  );
  return {
    way: "disc",
    ...judged({ bad, open, good }),
    preparation: [
      "Burn it as an image, not as a file.",
      "Verify it.",
      "Label it with name, version and date.",
    ],
    risks: [
      "An old drive may not read a disc written by a new one.",
      "If it stays in the drive, it boots again.",
    ],
    once: together(takes(120, 300), { ...writing.duration, handsShare: 0.05 }),
    each: together(WALK, discEstimate(image.sizeBytes * readShare).duration),
    figure: writing.figure,
    parallel: false,
  };
}

/** Every way to the machine, judged and timed, those that are possible first and the quickest of them first. */
export function planWays(ground: WaysGround): WayPlan[] {
  const rank = { possible: 0, "not certain": 1, "not possible": 2 } as const;
  const seconds = (p: WayPlan): number => p.once.likelySeconds + p.each.likelySeconds;
  return [virtualMedia(ground), stick(ground), network(ground), disc(ground)].sort(
    (a, b) => rank[a.verdict] - rank[b.verdict] || seconds(a) - seconds(b),
  );
}
