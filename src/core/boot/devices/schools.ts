import { keysOf } from "../../text";
import type { Profile, TargetKind } from "../../image";
import { factsOf, presentDrives, visibleDrives, type Drive, type Facts } from "../../machine";
import { formatDuration, formatNumber } from "../../units";
import type { BootPlan } from "../ground";
import { reachesSan, shortName } from "../seen";
import type { School, SchoolView } from "./view";

type Set = Facts["sets"][number];

/** What of the machine the schools are judged by. */
interface Parts {
  /** The drive that a module of cards shows, and its set. */
  card: { drive: Drive; set: Set | null } | null;
  /** Drives that an installer sees one by one, sticks and cards apart. */
  single: Drive[];
  /** Drives of a RAID controller that are in no set. */
  unused: Drive[];
  ports: string[];
  /** Volumes of a storage network that were seen, and whether the firmware reaches one. */
  san: { volumes: Drive[]; hidden: ReturnType<typeof reachesSan> };
  plan: BootPlan;
}

const isInSet = (d: Drive): boolean => d.memberOf.some((m) => m.startsWith("virtual drive "));

function partsOf(plan: BootPlan, facts: Facts): Parts {
  const modes = new Map(facts.storageControllers.map((c) => [c.id, c.mode]));
  const modeOf = (d: Drive) => modes.get(d.controller ?? "");
  const seen = visibleDrives(facts);
  const card = seen.find((d) => d.media === "card" || modeOf(d) === "boot module");
  const plain = seen.filter(
    (d) => d !== card && d.san === null && d.presentedBy === null && !["usb", "card"].includes(d.media),
  );
  return {
    card: card ? { drive: card, set: facts.sets.find((s) => s.name === card.presentedBy) ?? null } : null,
    single: plain.filter((d) => modeOf(d) !== "RAID"),
    unused: presentDrives(facts).filter((d) => modeOf(d) === "RAID" && d.presentedBy === null && !isInSet(d)),
    ports: facts.ports.filter((p) => p.kind === "ethernet" && p.link === "up").map((p) => p.seenAs),
    san: { volumes: seen.filter((d) => d.san), hidden: reachesSan(facts) },
    plan,
  };
}

/** Wear and hours of drives as they tell them; nothing is guessed where they do not. */
function wearOf(drives: readonly Drive[]): string {
  const told = drives.flatMap(({ health }) => {
    const parts = [
      health?.wearPercent == null ? "" : `${health.wearPercent} % worn`,
      health?.hours == null ? "" : `${formatNumber(health.hours)} h`,
    ].filter(Boolean);
    return parts.length > 0 ? [parts.join(", ")] : [];
  });
  return told.length > 0 ? [...new Set(told)].join("; ") : "not reported";
}

/** How a mirror of cards stands: its state, and when a sync will be over. */
function mirrorWords({ set }: NonNullable<Parts["card"]>): string {
  if (!set) return "the state of its cards was not collected";
  const { progress } = set;
  if (!progress) return set.state;
  const left = progress.secondsLeft == null ? "" : `, about ${formatDuration(progress.secondsLeft)} left`;
  return `${set.state}, ${progress.percent} %${left}`;
}

/** How a volume is reached: one path is a single point of failure of its own. */
const pathWords = ({ sanPaths }: Drive): string =>
  sanPaths === null || sanPaths === 1 ? "one path" : `${sanPaths} paths`;

/** Pairs of equal size among drives, the largest first. */
function pairOf(drives: readonly Drive[]): Drive[] | null {
  const first = drives.find((d) => drives.some((o) => o !== d && o.sizeBytes === d.sizeBytes));
  return first ? drives.filter((d) => d.sizeBytes === first.sizeBytes).slice(0, 2) : null;
}

const names = (drives: readonly Drive[]): string => drives.map(shortName).join(" and ");
const inBays = (drives: readonly Drive[]): number => drives.filter((d) => /^\d/.test(d.bay ?? "")).length;

type Judged = Omit<SchoolView, "school" | "profile" | "isChosen">;
const missing = (here: string, more: Partial<Judged> = {}): Judged => ({
  ...{ isPossible: false, here, bays: 0, survives: 0, wear: "", keeps: "", note: "" },
  ...more,
});
const possible = (here: string, more: Partial<Judged>): Judged => ({
  ...missing(here),
  isPossible: true,
  ...more,
});

const KEEPS_DATA = "all data drives";
const NOTHING_KEPT = "the other drives; the contents of these are erased";

/** Each school with what it stands on here. */
const JUDGE: Readonly<Record<School, (parts: Parts) => Judged>> = {
  "mirrored cards": ({ card }) => {
    const members = card?.set?.members.length ?? 0;
    if (!card) return missing("this machine has no boot card module");
    if (members < 2) return missing("the module has one card", { keeps: KEEPS_DATA });
    const note = "a degraded state is expected until the mirror is complete, and a fault afterwards";
    return possible(mirrorWords(card), { survives: 1, wear: wearOf([card.drive]), keeps: KEEPS_DATA, note });
  },
  "one card": ({ card }) =>
    card
      ? possible("one card of the module", {
          ...{ wear: wearOf([card.drive]), keeps: KEEPS_DATA },
          note: "a lab exception with an end date; document a procedure to rebuild the system",
        })
      : missing("this machine has no boot card module"),
  "one drive": ({ single }) =>
    single[0]
      ? possible(shortName(single[0]), {
          ...{ bays: inBays(single.slice(0, 1)), wear: wearOf(single.slice(0, 1)), keeps: NOTHING_KEPT },
          note: "one failure stops the machine",
        })
      : missing("all drives are behind a RAID controller"),
  "mirrored drives": ({ single }) => {
    const pair = pairOf(single);
    if (!pair) return missing("there are no two equal drives outside a RAID controller");
    const note = "each drive needs its own boot partition; the firmware does not mirror it";
    return possible(names(pair), {
      bays: inBays(pair),
      survives: 1,
      wear: wearOf(pair),
      keeps: NOTHING_KEPT,
      note,
    });
  },
  "hardware mirror": ({ unused }) => {
    const pair = pairOf(unused);
    if (!pair) return missing("the controller has no two equal unused drives");
    const note = "the installer sees one drive, without the errors of its members";
    return possible(names(pair), {
      bays: inBays(pair),
      survives: 1,
      wear: wearOf(pair),
      keeps: NOTHING_KEPT,
      note,
    });
  },
  "external drive": () =>
    possible("a port of the machine itself", {
      ...{ wear: "its own", keeps: "all internal drives" },
      note: "the device can be unplugged: label the port, keep a spare, and save the configuration",
    }),
  "network each time": ({ ports }) =>
    ports.length > 0
      ? possible(ports.join(", "), {
          ...{ wear: "none", keeps: "all drives; the machine stores nothing of the system" },
          note: "cannot boot without its boot service; suited to many equal machines",
        })
      : missing("no wired port has a link"),
  "SAN volume": ({ san: { volumes, hidden } }) => {
    if (hidden === "no hardware initiator")
      return missing("no hardware initiator known: the firmware has no boot entry for one");
    const seen = volumes[0] ? `${shortName(volumes[0])}, ${pathWords(volumes[0])}` : "";
    if (hidden === "unknown" && !seen) return missing("the boot entries of the firmware were not collected");
    return possible(seen || "the firmware has a boot entry for one", {
      ...{ wear: "that of the storage system", keeps: "all internal drives" },
      note: "one copy per server, a hardware initiator, and a volume that no other server can access",
    });
  },
};

const KIND_OF: Readonly<Partial<Record<School, TargetKind>>> = {
  "mirrored cards": "flash card",
  "one card": "flash card",
  "one drive": "drive",
  "mirrored drives": "drive",
  "hardware mirror": "hardware array",
  "external drive": "stick",
};

/** What the profile says of a kind of target. */
function saidBy(profile: Profile | null, school: School): SchoolView["profile"] {
  const kind = KIND_OF[school];
  const said = profile?.bootTargets.find((b) => b.kind === kind);
  return said ? { verdict: said.verdict, words: said.words } : null;
}

/** The school of the target that the sheet has; null without one. */
function chosen({ card, plan }: Parts, facts: Facts): School | null {
  const { target, partners } = plan.sheet.storage;
  const drive = facts.drives.find((d) => d.id === target);
  if (!drive) return null;
  if (drive === card?.drive) return (card.set?.members.length ?? 0) > 1 ? "mirrored cards" : "one card";
  if (drive.san) return "SAN volume";
  if (drive.presentedBy) return "hardware mirror";
  if (drive.media === "usb") return "external drive";
  return partners.some((p) => p.role === "member") ? "mirrored drives" : "one drive";
}

/** The schools side by side for this very machine; none without one. */
export function bootSchools(plan: BootPlan): SchoolView[] {
  const facts = factsOf(plan);
  if (!facts) return [];
  const parts = partsOf(plan, facts);
  const own = chosen(parts, facts);
  return keysOf(JUDGE).map((school) => ({
    school,
    ...JUDGE[school](parts),
    profile: saidBy(plan.profile, school),
    isChosen: school === own,
  }));
}
