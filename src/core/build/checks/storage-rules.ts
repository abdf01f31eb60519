import { contentWords, driveName, holdsData, judgeDrive, serialTail, type Drive } from "../../machine";
import { dispositionOf, drivesAlike, identityOf, installerSize, memberPartners } from "../../storage";
import { formatBytes } from "../../units";
import { drivesOf, factsOf, sourceWords, targetOf, type BuildContext } from "../context";
import { roadOf, targetKind } from "../roads";
import { profileName, requiredAmount } from "./machine-rules";
import { evidence, hit, rule, type Rule } from "./rules";

const TARGET = "storage.target";

export const storageRules: readonly Rule[] = [
  rule("storage.no-target", "D", (context) =>
    context.machine && context.sheet.storage.target === null
      ? hit("stop", TARGET, {}, evidence("drives", String(drivesOf(context).length), context.machine.name))
      : null,
  ),

  rule("storage.target-gone", "D", (context) => {
    const id = context.sheet.storage.target;
    const target = targetOf(context);
    if (!context.machine || id === null || (target && target.missingSince === null)) return null;
    return {
      ...hit(
        "stop",
        TARGET,
        { drive: id },
        evidence("target", id, "this sheet"),
        evidence(
          "last import",
          target ? `not seen since ${target.missingSince?.slice(0, 10)}` : "never seen",
          context.machine.name,
        ),
      ),
      protectsData: true,
    };
  }),

  rule("storage.letter-only", "D", (context) => {
    const target = targetOf(context);
    if (!target || identityOf(target) !== "letter") return null;
    const alone = drivesOf(context).length === 1;
    return {
      ...hit(
        alone ? "caution" : "stop",
        TARGET,
        {
          letter: target.seenAs,
          size: formatBytes(target.sizeBytes),
          verdict: alone
            ? "it is the only drive of the machine, so size is enough"
            : "nothing tells it from the others after a restart",
        },
        evidence("serial and WWN", "none reported", sourceWords(context, `drives.${target.id}.seenAs`)),
        evidence("drives in the machine", String(drivesOf(context).length), "last import"),
      ),
      protectsData: !alone,
    };
  }),

  rule("storage.holds-data", "D", (context) => {
    const target = targetOf(context);
    // A road that keeps the system erases nothing; storage.upgrade-target looks after it.
    if (!target || !holdsData(target) || keepsTarget(context)) return null;
    const { erase } = context.sheet.storage;
    const agreed =
      erase?.drive === target.id && erase.tail === (serialTail(target) || String(target.sizeBytes));
    return {
      ...hit(
        agreed ? "caution" : "stop",
        TARGET,
        {
          drive: driveName(target),
          holds: contentWords(target),
          state: agreed
            ? `${erase?.by} agreed on ${erase?.at.slice(0, 10)}`
            : "nobody has agreed to erase it",
        },
        evidence("on the drive", contentWords(target), sourceWords(context, `drives.${target.id}.contents`)),
        evidence("target", driveName(target), "this sheet"),
      ),
      protectsData: !agreed,
    };
  }),

  rule("storage.breaks-set", "D", (context) => {
    const target = targetOf(context);
    const facts = factsOf(context);
    if (!target || !facts || keepsTarget(context)) return null;
    return memberPartners(facts, target)
      .map((set) => ({
        ...set,
        kept: set.partners.filter((p) => dispositionOf(p, planOf(context.sheet)) !== "free"),
      }))
      .filter((set) => set.kept.length > 0)
      .map((set) => ({
        ...hit(
          "stop",
          TARGET,
          { set: set.name, others: set.kept.map(driveName).join("; ") },
          evidence("target is a member of", set.name, sourceWords(context, `drives.${target.id}.memberOf`)),
          evidence("kept members", set.kept.map((d) => `…${serialTail(d)}`).join(", "), "this sheet"),
        ),
        subject: set.name,
        protectsData: true,
      }));
  }),

  rule("storage.target-failing", "D", (context) => {
    const target = targetOf(context);
    const judged = target ? judgeDrive(target) : null;
    if (!target || judged?.verdict !== "failing") return null;
    return hit(
      "stop",
      TARGET,
      { drive: driveName(target), reasons: judged.reasons.join("; ") },
      ...judged.reasons.map((r) => evidence("health", r, sourceWords(context, `drives.${target.id}.health`))),
    );
  }),

  rule("storage.target-unread", "D", (context) => {
    const target = targetOf(context);
    if (!target || !holdsData(target) || judgeDrive(target).verdict !== "not known") return null;
    // Cards, sticks and virtual drives keep no such counters; others do, and were not asked.
    if (["card", "usb", "virtual"].includes(target.media) || target.presentedBy !== null) return null;
    return hit(
      "caution",
      TARGET,
      { drive: driveName(target) },
      evidence("on it", contentWords(target), sourceWords(context, `drives.${target.id}.contents`)),
      evidence("health", "not read", "no smartctl answer was imported"),
    );
  }),

  rule("storage.alike", "D", (context) => {
    const target = targetOf(context);
    const facts = factsOf(context);
    const twins = target && facts ? drivesAlike(facts, target) : [];
    if (!target || twins.length === 0) return null;
    return hit(
      "caution",
      TARGET,
      {
        count: String(twins.length),
        line: `${target.model ?? "no model"} ${installerSize(target)}`,
        tail: serialTail(target) || "none",
        others: twins.map((d) => serialTail(d) || "none").join(", "),
      },
      evidence("target", `…${serialTail(target)}`, sourceWords(context, `drives.${target.id}.serial`)),
      evidence("looks the same", twins.map((d) => `…${serialTail(d)}`).join(", "), "last import"),
    );
  }),

  rule("storage.undecided", "D", (context) =>
    drivesOf(context)
      .filter((d) => dispositionOf(d, planOf(context.sheet)) === "undecided")
      .filter(() => context.sheet.storage.target !== null)
      .map((drive) => ({
        ...hit(
          "caution",
          "storage.leaveAlone",
          { drive: driveName(drive), holds: contentWords(drive) },
          evidence("in the machine", driveName(drive), "last import"),
          evidence("on the sheet", "neither target nor leave alone", "this sheet"),
        ),
        subject: drive.id,
      })),
  ),

  rule("storage.too-small", "D", (context) => {
    const target = targetOf(context);
    return target
      ? requiredAmount(
          context,
          TARGET,
          target.sizeBytes,
          sourceWords(context, `drives.${target.id}.sizeBytes`),
          "diskBytes",
        )
      : null;
  }),

  rule("storage.upgrade-target", "D", (context) => {
    const target = targetOf(context);
    const holdsSystem = (d: Drive): boolean => d.contents.some((c) => c.mountedAt.includes("/"));
    const system = drivesOf(context).find(holdsSystem);
    if (!target || !keepsTarget(context) || !system || holdsSystem(target)) return null;
    return {
      ...hit(
        "stop",
        TARGET,
        { road: context.sheet.image.road, system: driveName(system) },
        evidence("target", driveName(target), "this sheet"),
        evidence("runs from", driveName(system), sourceWords(context, `drives.${system.id}.contents`)),
      ),
      protectsData: true,
    };
  }),

  rule("storage.boot-target", "D", (context) => {
    const target = targetOf(context);
    const kind = target && targetKind(target);
    const said = context.profile?.bootTargets.find((b) => b.kind === kind);
    if (!target || !said || said.verdict === "supported") return null;
    return hit(
      said.verdict === "not supported" ? "stop" : "caution",
      TARGET,
      { profile: profileName(context), kind: said.kind, verdict: said.verdict, words: said.words },
      evidence("target", `${said.kind}: ${driveName(target)}`, "this sheet"),
      evidence("as boot device", said.verdict, `OS profile ${profileName(context)}`),
    );
  }),

  rule("storage.removable", "D", (context) => {
    const target = targetOf(context);
    if (!target || (!target.removable && target.media !== "usb" && target.media !== "card")) return null;
    const media = target.media === "card" ? "a flash card" : "removable";
    return hit(
      "caution",
      TARGET,
      { drive: driveName(target), media },
      evidence("media", target.media, sourceWords(context, `drives.${target.id}.media`)),
    );
  }),

  rule("storage.single", "D", (context) => {
    const target = targetOf(context);
    const drives = drivesOf(context).length;
    if (!target || drives < 2) return null;
    return hit(
      "note",
      TARGET,
      { drive: driveName(target), drives: String(drives) },
      evidence("target", "one drive", "this sheet"),
      evidence("drives in the machine", String(drives), "last import"),
    );
  }),
];

const planOf = (sheet: { storage: { target: string | null; leaveAlone: string[]; free: string[] } }) =>
  sheet.storage;

/** Whether the chosen road leaves the system on the target in place. */
function keepsTarget(context: BuildContext): boolean {
  const road = context.sheet.image.road === "fresh" ? null : roadOf(context);
  return road !== null && road.legs.length > 0;
}
