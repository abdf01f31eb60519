import { evidence, hit } from "../../finding";
import { factsOf, sourceWords } from "../../machine";
import { compareVersions, inLine, term, terms } from "../../text";
import { profileName, type ImageGround } from "../ground";
import type { Image } from "../image";
import { imageOfLeg } from "../roads";
import { rule, type ImageRule } from "./rule";

const ROAD = "image.road" as const;
const found = (context: ImageGround): string => {
  const { osName, osVersion } = factsOf(context)?.system ?? {};
  return osName ?? osVersion ?? "";
};
const foundEvidence = (context: ImageGround) =>
  evidence("on the machine", found(context), sourceWords(context, "system.osName"));

/** Rules about the road to the wanted system, and about the profile that it is planned with. */
export const roadRules: readonly ImageRule[] = [
  rule("image.road-closed", (context) => {
    const road = context.road;
    if (!road || road.legs.length > 0) return null;
    return hit(
      "stop",
      ROAD,
      { road: term(road.road), why: road.why },
      evidence("road", road.road, "this sheet"),
      found(context) ? foundEvidence(context) : evidence("wanted", profileName(context), "OS profile"),
    );
  }),

  rule("image.stone-missing", (context) =>
    context.legs
      .slice(0, -1)
      .filter((leg) => leg.through === "installer" && !imageOfLeg(context, leg, false))
      .map((leg) => ({
        ...hit(
          "stop",
          ROAD,
          { stone: `${leg.profile.name} ${leg.version}` },
          evidence(
            "intermediate version",
            `${leg.profile.name} ${leg.version}`,
            `OS profile ${profileName(context)}`,
          ),
          evidence("in the library", "no image", "images"),
        ),
        subject: `${leg.profile.profile} ${leg.version}`,
      })),
  ),

  rule("image.stepping-stone", (context) => {
    const road = context.road;
    const stones = context.legs.slice(0, -1);
    if (!road || stones.length === 0) return null;
    return hit(
      "note",
      ROAD,
      { stones: stones.map((l) => `${l.profile.name} ${l.version}`).join(", then "), why: road.why },
      ...stones.map((l) =>
        evidence("intermediate version", `${l.profile.name} ${l.version}`, `${l.kind}, by ${l.through}`),
      ),
    );
  }),

  rule("image.road-loses", (context) => {
    const road = context.road;
    if (!road || road.loses.length === 0 || !context.installed) return null;
    return hit(
      "caution",
      ROAD,
      { found: found(context), road: term(road.road), loses: terms(road.loses) },
      foundEvidence(context),
      evidence("not kept by this method", terms(road.loses), `OS profile ${profileName(context)}`),
    );
  }),

  rule("image.road-kept", (context) => {
    if (context.sheet.image.road !== "fresh") return null;
    const other = context.roads.find((r) => r.road !== "fresh" && r.legs.length > 0);
    if (!other) return null;
    return hit(
      "note",
      ROAD,
      { found: found(context), road: term(other.road), keeps: terms(other.keeps) },
      foundEvidence(context),
      evidence(`kept by ${term(other.road)}`, terms(other.keeps), `OS profile ${profileName(context)}`),
    );
  }),

  rule("image.known-fault", (context) =>
    context.faults
      // One that forces a stepping stone is told with the stone.
      .filter(({ fault }) => !fault.stone)
      .map(({ fault, leg }) => ({
        ...hit(
          // What meets everybody is worth knowing; what meets this hardware wants a decision.
          fault.when.target || fault.when.model || fault.when.part ? "caution" : "note",
          "image.id",
          { profile: `${leg.profile.name} ${leg.profile.version}`, looks: fault.looks, remedy: fault.remedy },
          evidence(
            "when",
            Object.values(fault.when).join(", "),
            `OS profile ${leg.profile.name} ${leg.profile.version}`,
          ),
        ),
        subject: `${leg.profile.profile} ${fault.id}`,
      })),
  ),

  rule("image.profile-newer", ({ edition }) =>
    edition && edition.kept < edition.newest
      ? hit(
          "note",
          "image.edition",
          { kept: String(edition.kept), newest: String(edition.newest) },
          evidence("this sheet", `revision ${edition.kept}`, "this sheet"),
          evidence("newest", `revision ${edition.newest}`, "OS profiles"),
        )
      : null,
  ),

  rule("image.newer-exists", ({ image, shelf, sheet }) => {
    if (!image) return null;
    const newer = shelf
      .filter(({ id, image: other }) => id !== sheet.image.id && other.purpose === "installer")
      .filter(
        ({ image: other }) => other.profile === image.profile && other.architecture === image.architecture,
      )
      .filter(({ image: other }) => compareVersions(other.version, image.version) > 0)
      .toSorted((a, b) => compareVersions(b.image.version, a.image.version))[0];
    return newer
      ? hit(
          "note",
          "image.id",
          { version: image.version, newer: newer.image.name },
          evidence("this image", image.version, image.name),
          evidence("in the library", newer.image.version, newer.image.name),
        )
      : null;
  }),

  rule("image.odd-name", ({ image, profile }) => {
    const words = profile?.recognise ?? [];
    const name = image?.fileName.toLowerCase() ?? "";
    if (!image || name === "" || words.length === 0 || words.every((w) => name.includes(w.toLowerCase())))
      return null;
    return hit(
      "note",
      "image.id",
      { file: image.fileName, words: words.join(" and "), profile: profile?.name ?? "" },
      evidence("file name", image.fileName, image.name),
      evidence(
        "file names of this OS family contain",
        words.join(", "),
        `OS profile ${profile?.name} ${profile?.version}`,
      ),
    );
  }),

  rule("image.maker-build", (context) => {
    const { image, sheet } = context;
    const maker = factsOf(context)?.chassis?.maker;
    if (!image || !maker) return null;
    const names = (i: Image): boolean =>
      `${i.name} ${i.fileName} ${i.notes}`.toLowerCase().includes(maker.toLowerCase());
    const custom = (i: Image): boolean => i.variant === "maker's custom";
    if (custom(image) && !names(image))
      return hit(
        "caution",
        "image.id",
        { says: `it is vendor-customised, and its name does not mention ${maker}` },
        evidence("variant", image.variant, image.name),
        evidence("maker", maker, sourceWords(context, "chassis.maker")),
      );
    const better = context.shelf.find(
      ({ id, image: other }) =>
        id !== sheet.image.id &&
        custom(other) &&
        names(other) &&
        other.profile === image.profile &&
        compareVersions(other.version, image.version) === 0,
    );
    if (custom(image) || !better) return null;
    return hit(
      "note",
      "image.id",
      {
        says: `it is the general image, and ${better.image.name} is in the library for machines of ${maker}`,
      },
      evidence("this image", image.variant, image.name),
      evidence("maker", maker, sourceWords(context, "chassis.maker")),
    );
  }),

  rule("image.pre-release", (context) => {
    const { profile, image } = context;
    if (!image || profile?.support.channel !== "pre-release") return null;
    const use = context.machine?.document.typed.use ?? "production";
    return hit(
      use === "lab" ? "caution" : "stop",
      "image.id",
      { profile: profileName(context), use },
      evidence("channel", "pre-release", `OS profile ${profileName(context)}`),
      evidence("use of the machine", use, "typed"),
    );
  }),

  rule("image.line-over", (context) => {
    const { profile, image } = context;
    const ends = profile?.support.ends;
    // A date on the image itself is the better witness (image.support-over).
    if (!image || image.supportEnds || !profile || !inLine(image.version, profile.version)) return null;
    if (profile.support.channel !== "out of support" && (!ends || ends >= context.today)) return null;
    return hit(
      "caution",
      "image.id",
      { profile: profileName(context), ...(ends ? { ended: "day", day: ends } : { ended: "unknown" }) },
      evidence("support ended", ends ?? profile.support.channel, `OS profile ${profileName(context)}`),
    );
  }),
];
