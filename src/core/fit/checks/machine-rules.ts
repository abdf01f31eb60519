import { localDay } from "../../units";
import { matchNotes, type CompatNote } from "../../compat";
import { evidence, hit } from "../../finding";
import { amountAsked, profileName } from "../../image";
import { factsOf, sourceWords, type Facts } from "../../machine";
import { portOf } from "../../network";
import { targetOf } from "../../storage";
import { compareVersions, term } from "../../text";
import type { FitGround } from "../ground";
import { rule, type FitRule } from "./rule";

/** Whether a build needs a part: the machine itself, the chosen port's device, the target's model. */
function leansOn(context: FitGround, { kind, value }: CompatNote["subject"]): boolean {
  if (kind === "machine model") return true;
  if (kind === "drive model")
    return (targetOf(context)?.model ?? "").toLowerCase().includes(value.toLowerCase());
  const slot = portOf(context)?.pci;
  return factsOf(context)?.pci.some((p) => p.slot === slot && p.ids === value) ?? false;
}

/** Compatibility notes that meet a part of the machine under the chosen profile: a rule a verdict. */
const COMPAT_RULES = (
  [
    ["compat.does-not-work", "does not work", "stop"],
    ["compat.condition", "works with a condition", "caution"],
    ["compat.works", "works", "note"],
  ] as const
).map(([code, verdict, severity]) =>
  rule(code, (context) => {
    const facts = factsOf(context);
    if (!facts || !context.profile) return null;
    const version = context.image?.version ?? context.profile.version;
    return matchNotes(context.compat, facts, context.profile.profile, version)
      .filter(({ note }) => note.verdict === verdict)
      .map(({ note, part }) => ({
        ...hit(
          // What this build does not lean on is worth knowing, and no reason to stop.
          severity === "stop" && !leansOn(context, note.subject) ? "caution" : severity,
          "image.id",
          {
            part,
            profile: profileName(context),
            condition: note.condition,
            evidence: note.evidence || `recorded by ${note.by}`,
          },
          evidence("part", `${part} (${note.subject.value})`, "imported"),
          evidence("verdict", note.verdict, `${note.by}, ${localDay(note.at, context)}`),
          ...note.trials
            .slice(-3)
            .map((t) =>
              evidence(t.outcome, `${t.changed}: ${t.happened}`, `${t.by}, ${localDay(t.at, context)}`),
            ),
        ),
        subject: note.subject.value,
      }));
  }),
);

/** Rules about the machine under the wanted system. */
export const machineRules: readonly FitRule[] = [
  rule("machine.none", ({ machine }) => (machine ? null : hit("stop", "machine.id", {}))),

  rule("machine.memory", (context) => {
    const memory = factsOf(context)?.memory;
    const installed = memory?.installedBytes || memory?.recognisedBytes;
    const path = memory?.installedBytes ? "memory.installedBytes" : "memory.recognisedBytes";
    return amountAsked(context, "machine.id", installed, sourceWords(context, path), "memoryBytes");
  }),

  rule("machine.cores", (context) =>
    amountAsked(
      context,
      "machine.id",
      factsOf(context)?.processors?.cores,
      sourceWords(context, "processors.cores"),
      "cores",
    ),
  ),

  rule("machine.architecture", (context) => {
    const has = factsOf(context)?.processors?.architecture;
    const { image, profile } = context;
    const offered = profile?.requirements.architectures ?? [];
    if (!has || !image) return null;
    const processor = evidence("processor", has, sourceWords(context, "processors.architecture"));
    if (image.architecture !== has)
      return hit(
        "stop",
        "image.id",
        { has, says: `the image is for ${image.architecture}` },
        processor,
        evidence("image", image.architecture, image.name),
      );
    if (!profile || offered.some((a) => a === has)) return null;
    return hit(
      "stop",
      "image.id",
      { has, says: `${profileName(context)} supports ${offered.join(" and ")}` },
      processor,
      evidence("architectures", offered.join(", "), `OS profile ${profileName(context)}`),
    );
  }),

  rule("machine.role", (context) => {
    const role = context.machine?.document.typed.role;
    const suits = context.profile?.suits ?? [];
    if (!role || suits.length === 0 || suits.includes(role)) return null;
    return hit(
      "note",
      "image.id",
      { role: term(role), profile: profileName(context), suits: suits.join(", ") },
      evidence("role", role, "typed"),
      evidence("suitable for", suits.join(", "), `OS profile ${profileName(context)}`),
    );
  }),

  rule("machine.virtualisation", (context) => {
    const wish = context.profile?.requirements.virtualisation;
    if (factsOf(context)?.processors?.virtualisation !== false || !wish || wish === "not needed") return null;
    return hit(
      wish === "required" ? "stop" : "caution",
      "machine.id",
      { profile: profileName(context), wish: term(wish) },
      evidence("processor flags", "neither vmx nor svm", sourceWords(context, "processors.virtualisation")),
      evidence("virtualisation", wish, `OS profile ${profileName(context)}`),
    );
  }),

  rule("machine.iommu", (context) => {
    const wish = context.profile?.requirements.iommu;
    if (factsOf(context)?.processors?.iommu !== false || !wish || wish === "not needed") return null;
    return hit(
      wish === "required" ? "stop" : "caution",
      "machine.id",
      { profile: profileName(context), wish: term(wish) },
      evidence("IOMMU groups", "none", sourceWords(context, "processors.iommu")),
      evidence("IOMMU", wish, `OS profile ${profileName(context)}`),
    );
  }),

  rule("machine.level", (context) => {
    const has = factsOf(context)?.processors?.level;
    const wanted = context.profile?.requirements.processorLevel;
    if (!has || !wanted || compareVersions(has, wanted) >= 0) return null;
    return hit(
      "stop",
      "machine.id",
      { has, wanted, profile: profileName(context) },
      evidence("processor", has, sourceWords(context, "processors.level")),
      evidence("level", wanted, `OS profile ${profileName(context)}`),
    );
  }),

  rule("machine.firmware-least", (context) => {
    const facts = factsOf(context);
    if (!facts) return null;
    return (context.profile?.requirements.firmware ?? []).flatMap((asked) => {
      const part = firmwareOf(facts, asked);
      if (!part || compareVersions(part.found, asked.least) >= 0) return [];
      const { found, path } = part;
      return {
        ...hit(
          "caution",
          "machine.id",
          { part: asked.part, found, least: asked.least, why: asked.why, profile: profileName(context) },
          evidence(asked.part, found, sourceWords(context, path)),
          evidence("least", asked.least, `OS profile ${profileName(context)}`),
        ),
        subject: `${asked.part} ${asked.model}`,
      };
    });
  }),

  ...COMPAT_RULES,

  rule("machine.no-remote-hands", (context) => {
    const controller = factsOf(context)?.controller;
    if (!context.machine || controller?.present !== false || !byVirtualMedia(context)) return null;
    return hit(
      "stop",
      "image.way",
      { machine: context.machine.name },
      evidence("management controller", "none", sourceWords(context, "controller.present")),
      evidence("boot source", "virtual media", "this sheet"),
    );
  }),

  rule("machine.media-licence", (context) => {
    const media = factsOf(context)?.controller?.virtualMedia;
    if (!byVirtualMedia(context) || !media || media === "licensed") return null;
    return hit(
      media === "not licensed" ? "stop" : "caution",
      "image.way",
      { media },
      evidence("virtual media", media, sourceWords(context, "controller.virtualMedia")),
      evidence("boot source", "virtual media", "this sheet"),
    );
  }),
];

/** The firmware that a profile speaks of, as it was read; null where this machine has no such part, or it was not read. */
function firmwareOf(
  facts: Facts,
  { part, model }: { part: string; model: string },
): { found: string; path: string } | null {
  const named = (text: string | null | undefined): boolean =>
    (text ?? "").toLowerCase().includes(model.toLowerCase());
  const read = (found: string | null | undefined, path: string) => (found ? { found, path } : null);
  const whole = named(`${facts.chassis?.maker ?? ""} ${facts.chassis?.model ?? ""}`);
  if (part === "system firmware") return whole ? read(facts.firmware?.version, "firmware.version") : null;
  if (part === "management controller")
    return whole ? read(facts.controller?.firmware, "controller.firmware") : null;
  if (part === "storage controller") {
    const own = facts.storageControllers.find((c) => named(c.name));
    return own ? read(own.firmware, `storageControllers.${own.id}`) : null;
  }
  const drive = facts.drives.find((d) => d.missingSince === null && named(d.model));
  return drive ? read(drive.firmware, `drives.${drive.id}.firmware`) : null;
}

const byVirtualMedia = (context: FitGround): boolean =>
  context.sheet.image.way === "virtual media" && context.fromMedia;
