import { evidence, hit, type FactsOf, type Hit } from "../../finding";
import {
  contentWords,
  driveLook,
  driveName,
  factsOf,
  holdsData,
  isUnread,
  judgeDrive,
  sourceWords,
  type Drive,
  type DriveSet,
} from "../../machine";
import { formatBytes } from "../../units";
import { consequence, percent, remarksOn, SMALL_SHARE } from "../bench";
import { consentFor, erasedDrives, type StorageGround } from "../ground";
import { identityOf } from "../guard";
import { figuresOf, kindWords, nameFault, oddOf, seatsOf, setName, type PlannedSet } from "../sets";
import { targetSeats } from "../target";
import { consentFacts } from "./consent";
import type { SET_MESSAGES } from "./set-messages.en";
import { rule, type At, type StorageRule } from "./rule";

const SETS = "storage.sets" as const;

type Codes = keyof typeof SET_MESSAGES;
type Found<Code extends Codes> = Hit<At, FactsOf<(typeof SET_MESSAGES)[Code]>>;

/** A rule about each planned set. */
const eachSet = <Code extends Codes>(
  code: Code,
  run: (ground: StorageGround, set: PlannedSet) => Found<Code> | null,
): StorageRule =>
  rule(code, "D", (ground) =>
    ground.sheet.storage.sets.flatMap((set) => {
      const found = run(ground, set);
      return found ? [{ ...found, subject: set.id }] : [];
    }),
  );

/** A rule about each drive of each planned set. */
const eachDrive = <Code extends Codes>(
  code: Code,
  run: (ground: StorageGround, set: PlannedSet, drive: Drive) => Found<Code> | null,
): StorageRule =>
  rule(code, "D", (ground) =>
    ground.sheet.storage.sets.flatMap((set) =>
      seatsOf(ground, set).flatMap(({ drive }) => {
        const found = run(ground, set, drive);
        return found ? [{ ...found, subject: `${set.id} ${drive.id}` }] : [];
      }),
    ),
  );

/** What a drive of a set is besides; null where it is nothing else. */
function alsoOf({ sheet, machine }: StorageGround, set: PlannedSet, id: string) {
  const { storage } = sheet;
  if (targetSeats(storage).some((s) => s.drive === id)) return "target";
  if (storage.leaveAlone.includes(id)) return "kept";
  const claims = (s: PlannedSet): number => [...s.members, ...s.spares].filter((d) => d === id).length;
  if (storage.sets.reduce((n, s) => n + claims(s), 0) > 1) return "other";
  const drive = machine?.document.facts.drives.find((d) => d.id === id);
  return machine && (!drive || drive.missingSince !== null) ? "gone" : null;
}

/** The controller that a drive hangs on, as far as it was read. */
const controllerOf = (ground: StorageGround, drive: Drive) =>
  factsOf(ground)?.storageControllers.find((c) => c.id === drive.controller) ?? null;

/** What keeps a controller from making a set of this drive. */
function lacksController(ground: StorageGround, set: PlannedSet, drive: Drive) {
  const controller = controllerOf(ground, drive);
  if (!controller) return "none";
  if (["host adapter", "pass-through", "plain"].includes(controller.mode)) return "passes through";
  const [first] = seatsOf(ground, set);
  return first && first.drive.controller !== drive.controller ? "two" : null;
}

const sectorsOf = (drive: Drive): number | null => drive.logicalSectorBytes;

/** What a consent protects is not set aside. */
const erasing = (ground: StorageGround, set: PlannedSet, drive: Drive) => ({
  severity: consentFor(ground, drive)?.holds ? ("caution" as const) : ("stop" as const),
  told: { drive: driveLook(drive), set: setName(set), ...consentFacts(ground, drive) },
  protectsData: !consentFor(ground, drive)?.holds,
});

/** A pool above this looks long for free space. */
const FULL = 0.8;

/** Rules about the pools, arrays and virtual drives that are made of drives beside the target. */
export const SET_CHECKS: readonly StorageRule[] = [
  eachSet("storage.set-shape", (ground, set) => {
    const figures = figuresOf(ground, set);
    const fault = nameFault(set) ?? (figures.ok ? null : figures.problems[0]!.message);
    return fault
      ? hit("stop", SETS, { set: setName(set), fault }, evidence("planned", setName(set), "this sheet"))
      : null;
  }),

  eachSet("storage.set-name", (ground, set) => {
    const isTaken = ground.sheet.storage.sets.some((s) => s.id !== set.id && s.name === set.name);
    // One whose drives are all erased by this build gives its name free.
    const erased = new Set(erasedDrives(ground).map((d) => d.id));
    const goes = ({ members }: DriveSet): boolean =>
      members.length > 0 && members.every((m) => m.drive !== null && erased.has(m.drive));
    const there = (factsOf(ground)?.sets ?? []).find(
      (s) => s.name === set.name && s.kind !== "virtual drive" && !goes(s),
    );
    if (set.name === "" || (!isTaken && !there)) return null;
    return hit(
      "stop",
      SETS,
      { set: setName(set), other: isTaken ? "planned" : "there" },
      evidence("planned", setName(set), "this sheet"),
      evidence("also called so", there?.id ?? "another set", there ? "last import" : "this sheet"),
    );
  }),

  eachSet("storage.set-keeper", ({ profile }, set) => {
    const { keeper } = set;
    if (keeper === "RAID controller" || !profile?.sets || profile.sets[keeper]) return null;
    const made = Object.keys(profile.sets).join(", ") || "none";
    return hit(
      "stop",
      SETS,
      {
        set: setName(set),
        kind: `${kindWords(set)} of ${keeper}`,
        profile: `${profile.name} ${profile.version}`,
      },
      evidence("planned", setName(set), "this sheet"),
      evidence("it makes", made, `OS profile ${profile.name} ${profile.version}`),
    );
  }),

  eachSet("storage.set-later", ({ today }, set) =>
    set.later === null
      ? null
      : hit(
          set.later < today ? "caution" : "note",
          SETS,
          { set: setName(set), day: set.later, late: set.later < today ? "late" : "ahead" },
          evidence("made on", set.later, "this sheet"),
        ),
  ),

  rule("storage.set-drive", "D", (ground) =>
    ground.sheet.storage.sets.flatMap((set) =>
      [...new Set([...set.members, ...set.spares])].flatMap((id) => {
        const also = alsoOf(ground, set, id);
        if (!also) return [];
        const drive = factsOf(ground)?.drives.find((d) => d.id === id);
        return {
          ...hit(
            "stop",
            SETS,
            { set: setName(set), drive: drive ? driveName(drive) : id, also },
            evidence("planned", setName(set), "this sheet"),
          ),
          subject: `${set.id} ${id}`,
          protectsData: true,
        };
      }),
    ),
  ),

  eachDrive("storage.set-erases", (ground, set, drive) => {
    if (!holdsData(drive) || set.later !== null) return null;
    const { severity, told, protectsData } = erasing(ground, set, drive);
    const holds = contentWords(drive);
    return {
      ...hit(
        severity,
        SETS,
        { ...told, holds },
        evidence("on the drive", holds, sourceWords(ground, `drives.${drive.id}.contents`)),
        evidence("planned", setName(set), "this sheet"),
      ),
      protectsData,
    };
  }),

  eachDrive("storage.set-unread", (ground, set, drive) => {
    if (!isUnread(drive) || set.later !== null) return null;
    const { severity, told, protectsData } = erasing(ground, set, drive);
    return {
      ...hit(
        severity,
        SETS,
        told,
        evidence("on the drive", "not read", "no lsblk or blkid answer was imported"),
        evidence("planned", setName(set), "this sheet"),
      ),
      protectsData,
    };
  }),

  eachDrive("storage.set-letter", (ground, set, drive) =>
    identityOf(drive) === "letter"
      ? {
          ...hit(
            "stop",
            SETS,
            { set: setName(set), drive: driveLook(drive), letter: drive.seenAs },
            evidence("serial and WWN", "none reported", sourceWords(ground, `drives.${drive.id}.seenAs`)),
          ),
          protectsData: true,
        }
      : null,
  ),

  eachDrive("storage.set-failing", (ground, set, drive) => {
    const { verdict, reasons } = judgeDrive(drive);
    return verdict === "failing"
      ? hit(
          "stop",
          SETS,
          { set: setName(set), drive: driveName(drive), reasons: reasons.join("; ") },
          ...reasons.map((r) => evidence("health", r, sourceWords(ground, `drives.${drive.id}.health`))),
        )
      : null;
  }),

  eachSet("storage.set-unchecked", (ground, set) => {
    const used = seatsOf(ground, set)
      .map((s) => s.drive)
      .filter((d) => holdsData(d) && judgeDrive(d).verdict === "not known");
    return used.length > 0
      ? hit(
          "caution",
          SETS,
          { set: setName(set), count: String(used.length), drives: used.map(driveName).join("; ") },
          evidence("health", "not read", "no smartctl answer was imported"),
        )
      : null;
  }),

  eachSet("storage.set-share", (ground, set) => {
    const figures = figuresOf(ground, set);
    if (!figures.ok) return null;
    const { candidate, sizes } = figures.value;
    const share = candidate.usableBytes / candidate.rawBytes;
    return share < SMALL_SHARE
      ? hit(
          "stop",
          SETS,
          { set: setName(set), sentence: consequence(candidate, sizes) },
          evidence("drives hold", formatBytes(candidate.rawBytes), "last import"),
          evidence("can be used", formatBytes(candidate.usableBytes), "computed"),
        )
      : null;
  }),

  eachSet("storage.set-bare", (ground, set) => {
    const figures = figuresOf(ground, set);
    return figures.ok && figures.value.candidate.survival.worst === 0
      ? hit(
          "caution",
          SETS,
          { set: setName(set), zfs: set.keeper === "ZFS" ? "zfs" : "none" },
          evidence("layout", `${set.type} of ${set.members.length}`, "this sheet"),
        )
      : null;
  }),

  rule("storage.set-remark", "D", (ground) =>
    ground.sheet.storage.sets.flatMap((set) => {
      const figures = figuresOf(ground, set);
      if (!figures.ok) return [];
      const { candidate, question, sizes } = figures.value;
      return remarksOn(candidate, [], question)
        .filter((r) => r.code !== "full")
        .map((r) => ({
          ...hit(
            r.severity,
            SETS,
            { set: setName(set), remark: r.text },
            evidence("layout", `${set.type} of ${sizes.length - set.spares.length}`, "this sheet"),
          ),
          subject: `${set.id} ${r.code}`,
        }));
    }),
  ),

  eachSet("storage.set-odd", (ground, set) => {
    const odd = oddOf(ground, set);
    if (!odd) return null;
    const { drives, idleBytes, inBytes, outBytes, aloneBytes } = odd;
    return hit(
      outBytes !== null && outBytes >= inBytes ? "caution" : "note",
      SETS,
      {
        ...{ set: setName(set), drives: drives.map(driveName).join("; "), in: formatBytes(inBytes) },
        ...{ idle: formatBytes(idleBytes), alone: formatBytes(aloneBytes) },
        ...(outBytes === null ? { out: "fewer" } : { out: "some", left: formatBytes(outBytes) }),
      },
      evidence(
        "its size",
        [...new Set(drives.map((d) => formatBytes(d.sizeBytes)))].join(", "),
        "last import",
      ),
    );
  }),

  eachDrive("storage.set-hidden", (ground, set, drive) => {
    if (set.keeper !== "ZFS") return null;
    const controller = controllerOf(ground, drive);
    const how = drive.presentedBy !== null ? "virtual" : controller?.mode === "RAID" ? "raid" : null;
    return how
      ? hit(
          "stop",
          SETS,
          { set: setName(set), drive: driveName(drive), how },
          evidence(
            "shown by",
            drive.presentedBy ?? `${controller?.name}, ${controller?.mode}`,
            sourceWords(ground, `drives.${drive.id}.model`),
          ),
        )
      : null;
  }),

  eachDrive("storage.set-plain", (ground, set, drive) => {
    if (set.keeper !== "RAID controller") return null;
    const how = lacksController(ground, set, drive);
    return how
      ? hit(
          how === "none" ? "caution" : "stop",
          SETS,
          { set: setName(set), drive: driveName(drive), how },
          evidence("hangs on", controllerOf(ground, drive)?.name ?? "not read", "last import"),
        )
      : null;
  }),

  eachDrive("storage.set-flash", (ground, set, drive) =>
    drive.removable || drive.media === "usb" || drive.media === "card"
      ? hit(
          "caution",
          SETS,
          { set: setName(set), drive: driveLook(drive), media: drive.media === "card" ? "card" : "stick" },
          evidence("media", drive.media, sourceWords(ground, `drives.${drive.id}.media`)),
        )
      : null,
  ),

  eachDrive("storage.set-san", (ground, set, drive) =>
    drive.san
      ? hit(
          "caution",
          SETS,
          { set: setName(set), drive: driveLook(drive), san: drive.san },
          evidence("reached over", drive.san, sourceWords(ground, `drives.${drive.id}.san`)),
        )
      : null,
  ),

  eachSet("storage.set-sectors", (ground, set) => {
    const drives = seatsOf(ground, set).map((s) => s.drive);
    const sizes = new Set(drives.map(sectorsOf).filter((b) => b !== null));
    return sizes.size > 1
      ? hit(
          "stop",
          SETS,
          {
            set: setName(set),
            drives: drives
              .filter((d) => sectorsOf(d) === 4096)
              .map(driveName)
              .join("; "),
          },
          evidence("logical sectors", [...sizes].join(" and "), "last import"),
        )
      : null;
  }),

  eachSet("storage.set-cache", (_, set) =>
    set.keeper === "RAID controller" && set.cache === "write back always"
      ? hit("caution", SETS, { set: setName(set) }, evidence("cache", set.cache, "this sheet"))
      : null,
  ),

  eachSet("storage.set-full", (ground, set) => {
    const figures = figuresOf(ground, set);
    if (!figures.ok || set.dataBytes === null) return null;
    const { usableBytes } = figures.value.candidate;
    const share = set.dataBytes / usableBytes;
    if (share <= FULL) return null;
    return hit(
      share > 1 ? "stop" : "caution",
      SETS,
      {
        set: setName(set),
        data: formatBytes(set.dataBytes),
        usable: formatBytes(usableBytes),
        share: percent(share),
      },
      evidence("data", formatBytes(set.dataBytes), "this sheet"),
      evidence("can be used", formatBytes(usableBytes), "computed"),
    );
  }),
];
