import { mediumWords, modeWords } from "../../boot";
import { checksumProblem, insideVerdict, isWeak, loaderSignature, verificationOf } from "../../image";
import { formatBytes, formatExactBytes } from "../../units";
import { factsOf, sourceWords, stickOf, targetOf, type BuildContext, todayOf } from "../context";
import { legsOf, startsFromMedia } from "../roads";
import { profileName } from "./machine-rules";
import { evidence, hit, rule, type Rule } from "./rules";

/** MBR addresses 2^32 sectors; with 512-byte sectors that is 2 TiB. */
const MBR_SECTORS = 2 ** 32;

export const imageRules: readonly Rule[] = [
  rule("image.none", "B", ({ image }) => (image ? null : hit("stop", "image.id", {}))),

  rule("image.no-profile", "B", ({ image, profile }) =>
    image && !profile
      ? hit("stop", "image.id", { profile: image.profile }, evidence("image", image.profile, image.name))
      : null,
  ),

  rule("image.no-checksum", "B", ({ image }) =>
    image && !image.published ? hit("caution", "image.id", { file: image.fileName || image.name }) : null,
  ),

  rule("image.weak-checksum", "B", ({ image }) =>
    image?.published && isWeak(image.published.algorithm)
      ? hit(
          "note",
          "image.id",
          { algorithm: image.published.algorithm },
          evidence("published", image.published.algorithm, image.publishedFrom || "typed"),
        )
      : null,
  ),

  rule("image.bad-checksum", "B", ({ image }) => {
    const problem = image?.published ? checksumProblem(image.published) : null;
    if (!image?.published || !problem) return null;
    return hit(
      "stop",
      "image.id",
      { problem },
      evidence("typed", image.published.value.slice(0, 80), image.name),
    );
  }),

  rule("image.not-verified", "B", ({ image }) => {
    if (!image?.published || checksumProblem(image.published)) return null;
    const state = verificationOf(image);
    if (state !== "not computed" && state !== "other algorithm") return null;
    const why =
      state === "not computed"
        ? "nobody has computed it over the file"
        : "the computed one is of another algorithm";
    return hit("caution", "image.id", { why, algorithm: image.published.algorithm });
  }),

  rule("image.checksum-differs", "B", ({ image }) => {
    if (!image || verificationOf(image) !== "differs") return null;
    const tail = (value: string | undefined): string => `…${(value ?? "").trim().slice(-12)}`;
    return {
      ...hit(
        "stop",
        "image.id",
        { file: image.fileName || image.name },
        evidence("published", tail(image.published?.value), image.publishedFrom || "typed"),
        evidence(
          "computed",
          tail(image.computed?.checksum.value),
          `${image.computed?.by}, ${image.computed?.at.slice(0, 10)}`,
        ),
      ),
      protectsData: true,
    };
  }),

  rule("image.support-over", "B", (context) => {
    const { image } = context;
    return image?.supportEnds && image.supportEnds < todayOf(context)
      ? hit(
          "caution",
          "image.id",
          { ended: image.supportEnds },
          evidence("support ended", image.supportEnds, image.name),
        )
      : null;
  }),

  rule("image.damaged", "B", ({ image }) =>
    (image?.inside?.found.faults ?? [])
      .filter((f) => f.grave)
      .map((f, i) => ({
        ...hit(
          "stop",
          "image.id",
          { file: image?.inside?.fileName || image?.name || "", fault: f.message },
          evidence("inside the file", f.message, `${image?.inside?.by}, ${image?.inside?.at.slice(0, 10)}`),
        ),
        subject: String(i),
        protectsData: true,
      })),
  ),

  rule("image.size-differs", "B", ({ image }) => {
    const seen = image?.inside?.found.sizeBytes;
    if (!image || seen === undefined || seen === image.sizeBytes) return null;
    return hit(
      "caution",
      "image.id",
      { seen: formatExactBytes(seen), typed: formatExactBytes(image.sizeBytes) },
      evidence("the file", formatExactBytes(seen), "inspector"),
      evidence("this image", formatExactBytes(image.sizeBytes), "typed"),
    );
  }),

  rule("image.not-inspected", "B", (context) => {
    const { image } = context;
    if (!image || image.inside || !startsFromMedia(context)) return null;
    return hit("note", "image.id", { file: image.fileName || image.name });
  }),

  rule("boot.inside", "C", (context) => {
    const { image, sheet } = context;
    const { way } = sheet.image;
    // A stick that a program prepared for one firmware is no longer what stands in the file.
    if (!image || !startsFromMedia(context)) return null;
    if (way === "stick" && stickOf(context).written !== "as the image") return null;
    const verdict = insideVerdict(image, way, sheet.boot.mode);
    if (!verdict || verdict.answer === "boots") return null;
    return hit(
      verdict.answer === "does not" ? "stop" : "caution",
      "boot.mode",
      {
        verdict: verdict.answer === "does not" ? "does not start" : "starts on some firmware only",
        way: way === "stick" ? "as a stick" : `as ${mediumWords[way]}`,
        mode: modeWords(sheet.boot.mode),
        reason: verdict.reason,
      },
      evidence("inside the file", verdict.reason, `${image.inside?.by}, ${image.inside?.at.slice(0, 10)}`),
      evidence("boot mode", modeWords(sheet.boot.mode), "this sheet"),
    );
  }),

  rule("boot.image-mode", "C", (context) => {
    const { image, sheet } = context;
    const byFile =
      startsFromMedia(context) && (sheet.image.way === "virtual media" || sheet.image.way === "disc");
    if (!image || image.inside || !byFile || image.bootModes.includes(sheet.boot.mode)) return null;
    return hit(
      "stop",
      "boot.mode",
      { mode: modeWords(sheet.boot.mode) },
      evidence("boot mode", modeWords(sheet.boot.mode), "this sheet"),
      evidence("image starts in", image.bootModes.map(modeWords).join(", "), image.name),
    );
  }),

  rule("boot.profile-mode", "C", (context) => {
    const modes = context.profile?.firmware.modes;
    if (!modes || modes.includes(context.sheet.boot.mode)) return null;
    return hit(
      "stop",
      "boot.mode",
      { mode: modeWords(context.sheet.boot.mode), profile: profileName(context) },
      evidence("boot mode", modeWords(context.sheet.boot.mode), "this sheet"),
      evidence("supported", modes.map(modeWords).join(", "), `OS profile ${profileName(context)}`),
    );
  }),

  rule("boot.mode-switch", "C", (context) => {
    const found = factsOf(context)?.firmware?.mode;
    if (!found || found === context.sheet.boot.mode) return null;
    const os = factsOf(context)?.system?.osName;
    return hit(
      "caution",
      "boot.mode",
      {
        found: modeWords(found),
        planned: modeWords(context.sheet.boot.mode),
        existing: os ?? "whatever is installed",
      },
      evidence("started in", modeWords(found), sourceWords(context, "firmware.mode")),
      evidence("planned", modeWords(context.sheet.boot.mode), "this sheet"),
    );
  }),

  rule("boot.media-first", "C", ({ sheet }) =>
    sheet.boot.start === "media first in the boot order"
      ? hit(
          "stop",
          "boot.start",
          { media: sheet.image.way },
          evidence("start", "media stays first for good", "this sheet"),
          evidence("after the install", "the machine restarts by itself", "OS profile"),
        )
      : null,
  ),

  rule("boot.secure-unsigned", "C", (context) => {
    const { sheet, image } = context;
    if (!image || !startsFromMedia(context)) return null;
    if (sheet.boot.mode !== "uefi" || sheet.boot.secureBoot !== "on") return null;
    const { state, words, source } = loaderSignature(image, sheet.image.way);
    if (state === "signed") return null;
    return hit(
      state === "unsigned" ? "stop" : "caution",
      "boot.secureBoot",
      { state: state === "unsigned" ? "is not signed" : "may not be signed: nobody has looked" },
      evidence("secure boot", "on", "this sheet"),
      evidence("loader", words, source),
    );
  }),

  rule("boot.secure-profile", "C", (context) => {
    const { sheet } = context;
    const refuses = wantsItOff(context);
    if (sheet.boot.mode !== "uefi" || sheet.boot.secureBoot !== "on" || !refuses) return null;
    return hit(
      "stop",
      "boot.secureBoot",
      { profile: refuses },
      evidence("secure boot", "on", "this sheet"),
      evidence("secure boot", "must be off", `OS profile ${refuses}`),
    );
  }),

  // Where a system on the road wants it off, its profile is the reason; elsewhere a person gives one.
  rule("boot.secure-off", "C", (context) => {
    const { boot } = context.sheet;
    if (boot.mode !== "uefi" || boot.secureBoot === "on") return null;
    const refuses = wantsItOff(context);
    return hit(
      refuses ? "note" : "caution",
      "boot.secureBoot",
      {},
      evidence("secure boot", "off", "this sheet"),
      ...(refuses ? [evidence("secure boot", "must be off", `OS profile ${refuses}`)] : []),
    );
  }),

  rule("boot.mbr-limit", "C", (context) => {
    const target = targetOf(context);
    const sector = target?.logicalSectorBytes ?? 512;
    if (!target || context.sheet.boot.mode !== "legacy" || target.sizeBytes <= MBR_SECTORS * sector)
      return null;
    return hit(
      "caution",
      "boot.mode",
      { size: formatBytes(target.sizeBytes), limit: formatBytes(MBR_SECTORS * sector) },
      evidence(
        "target",
        formatBytes(target.sizeBytes),
        sourceWords(context, `drives.${target.id}.sizeBytes`),
      ),
      evidence("an MBR reaches", formatBytes(MBR_SECTORS * sector), `${sector}-byte sectors × 2³²`),
    );
  }),
];

/** The first system on the road that does not start with secure boot; null when all of them do. */
const wantsItOff = (context: BuildContext): string | null => {
  const profile = legsOf(context).find((l) => l.profile.secureBoot === "must be off")?.profile;
  return profile ? `${profile.name} ${profile.version}` : null;
};
