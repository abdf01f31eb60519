import { evidence, hit } from "../../finding";
import { driveName, factsOf, holdsData, judgeDrive, type Drive, type DriveSet } from "../../machine";
import { formatBytes } from "../../units";
import { consequence, percent, remarksOn, SMALL_SHARE } from "../bench";
import { erasedDrives, type StorageGround } from "../ground";
import {
  figuresOf,
  idsOf,
  isOfData,
  kindWords,
  nameFault,
  oddOf,
  seatsOf,
  setName,
  type PlannedSet,
} from "../sets";
import { targetSeats } from "../target";
import { eachSet, SETS } from "./set-rule";
import { rule, type StorageRule } from "./rule";

/** What a drive of a set is besides; null where it is nothing else. */
function alsoOf({ sheet, machine }: StorageGround, set: PlannedSet, id: string) {
  const { storage } = sheet;
  if (targetSeats(storage).some((s) => s.drive === id)) return "target";
  if (storage.leaveAlone.includes(id)) return "kept";
  const claims = (s: PlannedSet): number => idsOf(s).filter((d) => d === id).length;
  if (storage.sets.reduce((n, s) => n + claims(s), 0) > 1) return "other";
  const drive = machine?.document.facts.drives.find((d) => d.id === id);
  return machine && (!drive || drive.missingSince !== null) ? "gone" : null;
}

const sectorsOf = (drive: Drive): number | null => drive.logicalSectorBytes;

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
      evidence("same name", there?.id ?? "another array or pool", there ? "last import" : "this sheet"),
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
        kind: `${kindWords(set)}, ${keeper}`,
        profile: `${profile.name} ${profile.version}`,
      },
      evidence("planned", setName(set), "this sheet"),
      evidence("it supports", made, `OS profile ${profile.name} ${profile.version}`),
    );
  }),

  eachSet("storage.set-later", ({ today }, set) =>
    set.later === null
      ? null
      : hit(
          set.later < today ? "caution" : "note",
          SETS,
          { set: setName(set), day: set.later, late: set.later < today ? "late" : "ahead" },
          evidence("created on", set.later, "this sheet"),
        ),
  ),

  rule("storage.set-drive", (ground) =>
    ground.sheet.storage.sets.flatMap((set) =>
      [...new Set(idsOf(set))].flatMap((id) => {
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

  eachSet("storage.set-unchecked", (ground, set) => {
    const used = seatsOf(ground, set)
      .map((s) => s.drive)
      .filter((d) => holdsData(d) && judgeDrive(d).verdict === "not known");
    return used.length > 0
      ? hit(
          "caution",
          SETS,
          { set: setName(set), count: String(used.length), drives: used.map(driveName).join("; ") },
          evidence("health", "not collected", "no output of smartctl was imported"),
        )
      : null;
  }),

  eachSet("storage.set-share", (ground, set) => {
    const figures = figuresOf(ground, set);
    if (!figures.ok) return null;
    const { candidate } = figures.value;
    const share = candidate.usableBytes / candidate.rawBytes;
    return share < SMALL_SHARE
      ? hit(
          "stop",
          SETS,
          { set: setName(set), sentence: consequence(candidate) },
          evidence("drive capacity", formatBytes(candidate.rawBytes), "last import"),
          evidence("usable", formatBytes(candidate.usableBytes), "computed"),
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

  rule("storage.set-remark", (ground) =>
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

  eachSet("storage.set-sectors", (ground, set) => {
    const drives = seatsOf(ground, set)
      .filter(isOfData)
      .map((s) => s.drive);
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
      evidence("usable", formatBytes(usableBytes), "computed"),
    );
  }),
];
