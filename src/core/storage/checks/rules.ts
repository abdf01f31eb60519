import { term } from "../../text";
import { evidence, hit, type FactsOf, type Hit } from "../../finding";
import { amountAsked, profileName, targetKind } from "../../image";
import {
  contentWords,
  driveLook,
  driveName,
  drivesOf,
  factsOf,
  holdsData,
  isSeenBySystem,
  isUnread,
  judgeDrive,
  serialTail,
  sourceWords,
  systemDrives,
  type Drive,
} from "../../machine";
import { byteCount, formatBytes, localDay } from "../../units";
import { consentFor, erasedDrives, targetOf, targetsOf, type StorageGround } from "../ground";
import { dispositionOf, drivesAlike, identityOf, installerSize, memberPartners, setOf } from "../guard";
import { isToBeMade } from "../sets";
import { grossBytes, leastMembers, targetSeats } from "../target";
import { consentFacts } from "./consent";
import type { STORAGE_MESSAGES } from "./messages.en";
import { rule, type At, type StorageRule } from "./rule";

const TARGET = "storage.target" as const;

type Codes = keyof typeof STORAGE_MESSAGES;
type Found<Code extends Codes> = Hit<At, FactsOf<(typeof STORAGE_MESSAGES)[Code]>>;

/** A rule about each drive of the target. The first one has no subject, so that a waiver for it keeps its name. */
const eachTarget = <Code extends Codes>(
  code: Code,
  run: (context: StorageGround, drive: Drive, role: "member" | "spare") => Found<Code> | null,
): StorageRule =>
  rule(code, (context) =>
    targetsOf(context).flatMap(({ drive, role }) => {
      const found = run(context, drive, role);
      if (!found) return [];
      return drive.id === context.sheet.storage.target ? found : { ...found, subject: drive.id };
    }),
  );

/** Rules about the drives that the system is installed on. */
export const TARGET_CHECKS: readonly StorageRule[] = [
  rule("storage.no-target", (context) =>
    context.machine && context.sheet.storage.target === null
      ? hit("stop", TARGET, {}, evidence("drives", String(drivesOf(context).length), context.machine.name))
      : null,
  ),

  rule("storage.target-gone", (context) => {
    const { machine, sheet } = context;
    const facts = factsOf(context);
    if (!machine || !facts) return null;
    return targetSeats(sheet.storage).flatMap(({ drive: id }) => {
      const drive = facts.drives.find((d) => d.id === id);
      if (drive && drive.missingSince === null) return [];
      const since = drive?.missingSince;
      const seen = since ? `not found since ${localDay(since, context)}` : "never found";
      return {
        ...hit(
          "stop",
          TARGET,
          { drive: id },
          evidence("target", id, "this sheet"),
          evidence("last import", seen, machine.name),
        ),
        ...(id !== sheet.storage.target && { subject: id }),
        protectsData: true,
      };
    });
  }),

  eachTarget("storage.letter-only", (context, target) => {
    if (identityOf(target) !== "letter" || isToBeMade(target)) return null;
    const alone = drivesOf(context).length === 1;
    return {
      ...hit(
        alone ? "caution" : "stop",
        TARGET,
        {
          letter: target.seenAs,
          size: formatBytes(target.sizeBytes),
          verdict: alone ? "alone" : "among others",
        },
        evidence(
          "serial number and WWN",
          "none reported",
          sourceWords(context, `drives.${target.id}.seenAs`),
        ),
        evidence("drives in the machine", String(drivesOf(context).length), "last import"),
      ),
      protectsData: !alone,
    };
  }),

  eachTarget("storage.holds-data", (context, target) => {
    // A road that keeps the system erases nothing; storage.upgrade-target looks after it.
    if (!holdsData(target) || context.keepsSystem) return null;
    return {
      ...hit(
        consentFor(context, target)?.holds ? "caution" : "stop",
        TARGET,
        { drive: driveLook(target), holds: contentWords(target), ...consentFacts(context, target) },
        evidence(
          "drive contents",
          contentWords(target),
          sourceWords(context, `drives.${target.id}.contents`),
        ),
        evidence("target", driveLook(target), "this sheet"),
      ),
      protectsData: !consentFor(context, target)?.holds,
    };
  }),

  eachTarget("storage.not-read", (context, target) => {
    if (!isUnread(target) || context.keepsSystem) return null;
    return {
      ...hit(
        consentFor(context, target)?.holds ? "caution" : "stop",
        TARGET,
        { drive: driveLook(target), ...consentFacts(context, target) },
        evidence("drive contents", "not collected", "no output of lsblk or blkid was imported"),
        evidence("target", driveLook(target), "this sheet"),
      ),
      protectsData: !consentFor(context, target)?.holds,
    };
  }),

  rule("storage.layout", (context) => {
    const { layout } = context.sheet.storage;
    const targets = targetsOf(context);
    const members = targets.filter((t) => t.role === "member").map((t) => t.drive);
    if (members.length === 0) return null;
    const said = [
      evidence("layout", layout, "this sheet"),
      evidence("members", String(members.length), "this sheet"),
    ];
    const problems: Found<"storage.layout">[] = [];
    const say = (
      severity: Hit["severity"],
      subject: string,
      told: Omit<FactsOf<(typeof STORAGE_MESSAGES)["storage.layout"]>, "layout">,
    ): void => {
      problems.push({ ...hit(severity, "storage.layout", { layout, ...told }, ...said), subject });
    };
    const count = String(members.length);
    if (layout === "single drive" && members.length > 1) say("stop", "count", { words: "one", count });
    if (members.length < leastMembers(layout))
      say("stop", "count", { words: "more", count, least: String(leastMembers(layout)) });
    const offered = context.profile?.layouts;
    if (offered && !offered.includes(layout))
      say("stop", "offered", {
        words: "not offered",
        profile: profileName(context),
        offered: offered.join(", "),
      });
    const smallest = Math.min(...members.map((d) => d.sizeBytes));
    const idle = members.reduce((sum, d) => sum + d.sizeBytes - smallest, 0);
    if (members.length > 1 && layout !== "stripe" && idle > 0)
      say("note", "sizes", { words: "unequal", used: formatBytes(smallest), idle: formatBytes(idle) });
    const small = targets.filter((t) => t.role === "spare" && t.drive.sizeBytes < smallest);
    for (const { drive } of small) say("stop", drive.id, { words: "small spare", drive: driveName(drive) });
    return problems;
  }),

  rule("storage.breaks-set", (context) => {
    const facts = factsOf(context);
    if (!facts) return null;
    const breaks = erasedDrives(context).flatMap((drive) =>
      memberPartners(facts, drive).map((set) => ({
        ...set,
        drive,
        kept: set.partners.filter(
          (p) => !["free", "target", "set"].includes(dispositionOf(p, context.sheet.storage)),
        ),
      })),
    );
    // Two drives of the target that come from one set break it once.
    return breaks
      .filter((set, i) => set.kept.length > 0 && breaks.findIndex((s) => s.name === set.name) === i)
      .map((set) => ({
        ...hit(
          "stop",
          setOf(set.drive, context.sheet.storage) ? "storage.sets" : TARGET,
          { set: set.name, others: set.kept.map(driveName).join("; ") },
          evidence(
            "erased, and a member of",
            set.name,
            sourceWords(context, `drives.${set.drive.id}.memberOf`),
          ),
          evidence("other members", set.kept.map((d) => `…${serialTail(d)}`).join(", "), "this sheet"),
        ),
        subject: set.name,
        protectsData: true,
      }));
  }),

  eachTarget("storage.target-failing", (context, target) => {
    const judged = judgeDrive(target);
    if (judged.verdict !== "failing") return null;
    return hit(
      "stop",
      TARGET,
      { drive: driveName(target), reasons: judged.reasons.join("; ") },
      ...judged.reasons.map((r) => evidence("health", r, sourceWords(context, `drives.${target.id}.health`))),
    );
  }),

  eachTarget("storage.hidden", (context, target) => {
    const facts = factsOf(context);
    if (!facts || target.presentedBy !== null || isSeenBySystem(facts, target) !== false) return null;
    const controller = facts.storageControllers.find((c) => c.id === target.controller);
    return hit(
      "stop",
      TARGET,
      { drive: driveName(target), mode: controller?.mode === "RAID" ? "raid" : "other" },
      evidence(
        "reported by",
        "a management controller only",
        sourceWords(context, `drives.${target.id}.model`),
      ),
      ...(controller ? [evidence("controller", `${controller.name}, ${controller.mode}`, "imported")] : []),
    );
  }),

  eachTarget("storage.target-unread", (context, target) => {
    if (!holdsData(target) || judgeDrive(target).verdict !== "not known") return null;
    // Cards, sticks and virtual drives keep no such counters; others do, and were not asked.
    if (["card", "usb", "virtual"].includes(target.media) || target.presentedBy !== null) return null;
    return hit(
      "caution",
      TARGET,
      { drive: driveName(target) },
      evidence("contents", contentWords(target), sourceWords(context, `drives.${target.id}.contents`)),
      evidence("health", "not collected", "no output of smartctl was imported"),
    );
  }),

  eachTarget("storage.alike", (context, target) => {
    const facts = factsOf(context);
    const twins = (facts ? drivesAlike(facts, target) : []).filter(
      (d) => dispositionOf(d, context.sheet.storage) !== "target",
    );
    if (twins.length === 0) return null;
    return hit(
      "caution",
      TARGET,
      {
        count: String(twins.length),
        size: installerSize(target),
        ...(target.model ? { line: "model", model: target.model } : { line: "no model" }),
        others: twins.map((d) => serialTail(d) || "none").join(", "),
      },
      evidence("target", driveLook(target), sourceWords(context, `drives.${target.id}.serial`)),
      evidence("looks the same", twins.map((d) => `…${serialTail(d)}`).join(", "), "last import"),
    );
  }),

  rule("storage.undecided", (context) =>
    drivesOf(context)
      .filter((d) => dispositionOf(d, context.sheet.storage) === "undecided" && !isToBeMade(d))
      .filter(() => context.sheet.storage.target !== null)
      .map((drive) => ({
        ...hit(
          "caution",
          "storage.leaveAlone",
          { drive: driveName(drive), holds: contentWords(drive) },
          evidence("in the machine", driveName(drive), "last import"),
          evidence("on the sheet", "neither target nor protected", "this sheet"),
        ),
        subject: drive.id,
      })),
  ),

  rule("storage.too-small", (context) => {
    const target = targetOf(context);
    const members = targetsOf(context).filter((t) => t.role === "member");
    return target
      ? amountAsked(
          context,
          TARGET,
          grossBytes(
            context.sheet.storage.layout,
            members.map((m) => byteCount(m.drive.sizeBytes)),
          ),
          sourceWords(context, `drives.${target.id}.sizeBytes`),
          "diskBytes",
        )
      : null;
  }),

  rule("storage.upgrade-target", (context) => {
    const facts = factsOf(context);
    const target = targetOf(context);
    if (!facts || !target || !context.keepsSystem) return null;
    const system = systemDrives(facts, context.profile?.identify.marks);
    const { road } = context.sheet.image;
    if (!system)
      return hit(
        "caution",
        TARGET,
        { road: term(road), state: "unread" },
        evidence("target", driveLook(target), "this sheet"),
        evidence("system drive", "not collected", "no mount, pool, boot entry or label shows it"),
      );
    if (system.drives.some((d) => d.id === target.id)) return null;
    const [first] = system.drives;
    return {
      ...hit(
        "stop",
        TARGET,
        {
          road,
          state: "other",
          system: system.drives.map(driveName).join("; "),
        },
        evidence("target", driveLook(target), "this sheet"),
        evidence(
          "installed on",
          system.drives.map(driveName).join("; "),
          sourceWords(context, `drives.${first?.id ?? ""}.contents`),
        ),
      ),
      protectsData: true,
    };
  }),

  eachTarget("storage.boot-target", (context, target, role) => {
    const said = context.profile?.bootTargets.find((b) => b.kind === targetKind(target));
    if (role === "spare" || !said || said.verdict === "supported") return null;
    return hit(
      said.verdict === "not supported" ? "stop" : "caution",
      TARGET,
      { profile: profileName(context), kind: said.kind, verdict: said.verdict, words: said.words },
      evidence("target", `${said.kind}: ${driveLook(target)}`, "this sheet"),
      evidence("as boot device", said.verdict, `OS profile ${profileName(context)}`),
    );
  }),

  eachTarget("storage.removable", (context, target) => {
    if (!target.removable && target.media !== "usb" && target.media !== "card") return null;
    const media = target.media === "card" ? "a flash card" : "removable";
    return hit(
      "caution",
      TARGET,
      { drive: driveLook(target), media },
      evidence("media", target.media, sourceWords(context, `drives.${target.id}.media`)),
    );
  }),

  rule("storage.single", (context) => {
    const target = targetOf(context);
    const drives = drivesOf(context).length;
    const { production, asksForMore } = useOf(context);
    // What a controller shows as one drive may well be made of several.
    if (
      !target ||
      target.presentedBy !== null ||
      drives < 2 ||
      targetsOf(context).filter((t) => t.role === "member").length > 1
    )
      return null;
    // One of many bays in a machine of work is a decision to be made, not a remark.
    const grave = production && (drives >= MANY_DRIVES || asksForMore);
    return hit(
      grave ? "caution" : "note",
      TARGET,
      { drive: driveLook(target), drives: String(drives) },
      evidence("target", "one drive", "this sheet"),
      evidence("drives in the machine", String(drives), "last import"),
    );
  }),
];

/** From so many drives on a chassis is one that was bought for more than one. */
const MANY_DRIVES = 4;

const useOf = (context: StorageGround) => ({
  production: (context.machine?.document.typed.use ?? "production") === "production",
  /** Others depend on a machine of this role. */
  asksForMore: ["hypervisor", "storage", "backup", "database"].includes(
    context.machine?.document.typed.role ?? "",
  ),
});
