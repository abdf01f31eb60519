import { evidence, hit } from "../../finding";
import { insideVerdict, loaderSignature, profileName, startsIn } from "../../image";
import { factsOf, sourceWords } from "../../machine";
import { mediumWords, onStick, stickBoots, stickOf } from "../../media";
import { modeWords } from "../../work";
import { targetOf } from "../../storage";
import { byteCount, bytesOf, formatBytes, sectorCount, localDay } from "../../units";
import type { BootGround } from "../ground";
import { isSecureAfter } from "../secure";
import { rule, type BootRule } from "./rule";

/** MBR addresses 2^32 sectors; with 512-byte sectors that is 2 TiB. */
const MBR_SECTORS = sectorCount(2 ** 32);

/** Rules about how the machine starts. */
export const bootRules: readonly BootRule[] = [
  rule("boot.inside", (context) => {
    const { image, sheet } = context;
    const { way } = sheet.image;
    // Over the network the loader is the boot service's, and not the one in the file.
    if (!image || !context.fromMedia || way === "network") return null;
    // A stick that a program prepared for one firmware is no longer what stands in the file.
    if (way === "stick" && stickOf(context).written !== "as the image") return null;
    const verdict = insideVerdict(image, way, sheet.boot.mode);
    if (!verdict || verdict.answer === "boots") return null;
    return hit(
      verdict.answer === "does not" ? "stop" : "caution",
      "boot.mode",
      {
        verdict: verdict.answer === "does not" ? "never" : "sometimes",
        way,
        mode: modeWords(sheet.boot.mode),
        reason: verdict.reason,
      },
      evidence(
        "inspection of the file",
        verdict.reason,
        `${image.inside?.by}, ${localDay(image.inside!.at, context)}`,
      ),
      evidence("boot mode", modeWords(sheet.boot.mode), "this sheet"),
    );
  }),

  rule("boot.image-mode", (context) => {
    const { image, sheet } = context;
    const byFile = context.fromMedia && (sheet.image.way === "virtual media" || sheet.image.way === "disc");
    if (!image || image.inside || !byFile || image.bootModes.includes(sheet.boot.mode)) return null;
    return hit(
      "stop",
      "boot.mode",
      { mode: modeWords(sheet.boot.mode) },
      evidence("boot mode", modeWords(sheet.boot.mode), "this sheet"),
      evidence("image boots in", startsIn(image), image.name),
    );
  }),

  rule("boot.profile-mode", (context) => {
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

  rule("boot.mode-switch", (context) => {
    const found = factsOf(context)?.firmware?.mode;
    if (!found || found === context.sheet.boot.mode) return null;
    const os = factsOf(context)?.system?.osName;
    return hit(
      "caution",
      "boot.mode",
      {
        found: modeWords(found),
        planned: modeWords(context.sheet.boot.mode),
        ...(os ? { existing: "system", os } : { existing: "unknown" }),
      },
      evidence("booted in", modeWords(found), sourceWords(context, "firmware.mode")),
      evidence("planned", modeWords(context.sheet.boot.mode), "this sheet"),
    );
  }),

  rule("boot.media-first", ({ sheet }) =>
    sheet.boot.start === "media first in the boot order"
      ? hit(
          "stop",
          "boot.start",
          { media: mediumWords[sheet.image.way] },
          evidence("start", "media first in the permanent boot order", "this sheet"),
          evidence("after the installation", "the machine restarts by itself", "OS profile"),
        )
      : null,
  ),

  rule("boot.secure-unsigned", (context) => {
    const { sheet, image } = context;
    if (!image || !context.fromMedia) return null;
    if (sheet.boot.mode !== "uefi" || sheet.boot.secureBoot !== "on") return null;
    const { state, words, source } = loaderSignature(image, sheet.image.way);
    if (state === "signed") return null;
    return hit(
      state === "unsigned" ? "stop" : "caution",
      "boot.secureBoot",
      { state: state === "unsigned" ? "unsigned" : "unknown" },
      evidence("Secure Boot", "on", "this sheet"),
      evidence("loader", words, source),
    );
  }),

  rule("boot.secure-profile", (context) => {
    const { sheet } = context;
    const refuses = wantsItOff(context);
    if (sheet.boot.mode !== "uefi" || !isSecureAfter(sheet.boot) || !refuses) return null;
    return hit(
      "stop",
      "boot.secureBoot",
      { profile: refuses },
      evidence("Secure Boot", "on", "this sheet"),
      evidence("Secure Boot", "must be off", `OS profile ${refuses}`),
    );
  }),

  // Where a system on the road wants it off, its profile is the reason; elsewhere a person gives one.
  rule("boot.secure-off", (context) => {
    const { boot } = context.sheet;
    if (boot.mode !== "uefi" || isSecureAfter(boot)) return null;
    const refuses = wantsItOff(context);
    return hit(
      refuses ? "note" : "caution",
      "boot.secureBoot",
      {},
      evidence("Secure Boot", "off", "this sheet"),
      ...(refuses ? [evidence("Secure Boot", "must be off", `OS profile ${refuses}`)] : []),
    );
  }),

  rule("boot.mbr-limit", (context) => {
    const target = targetOf(context);
    const sector = target?.logicalSectorBytes ?? 512;
    const reach = bytesOf(MBR_SECTORS, byteCount(sector));
    if (!target || context.sheet.boot.mode !== "legacy" || target.sizeBytes <= reach) return null;
    return hit(
      "caution",
      "boot.mode",
      { size: formatBytes(target.sizeBytes), limit: formatBytes(reach) },
      evidence(
        "target",
        formatBytes(target.sizeBytes),
        sourceWords(context, `drives.${target.id}.sizeBytes`),
      ),
      evidence("an MBR addresses", formatBytes(reach), `${sector}-byte sectors × 2³²`),
    );
  }),

  rule("stick.scheme", (context) => {
    const scheme = stickOf(context).known?.entry.scheme;
    const { boot, image } = context.sheet;
    if (!onStick(context) || !image.stick.ready || boot.mode !== "legacy" || scheme !== "GPT") return null;
    return hit(
      "caution",
      "boot.mode",
      { stick: stickOf(context).name },
      evidence("partition scheme", scheme, "drive inventory"),
      evidence("boot mode", modeWords(boot.mode), "this sheet"),
    );
  }),

  rule("stick.wrong-mode", (context) => {
    const { image, sheet } = context;
    if (!onStick(context) || !image) return null;
    const { written, name } = stickOf(context);
    // What was found inside the file is a better witness than what was typed about it (see boot.inside).
    if (image.inside && written === "as the image") return null;
    const boots = stickBoots(written, image.bootModes, sheet.boot.mode);
    if (boots === true) return null;
    return hit(
      boots === "unknown" ? "caution" : "stop",
      "boot.mode",
      { mode: modeWords(sheet.boot.mode), verdict: boots === "unknown" ? "unknown" : "never" },
      evidence("stick written", written, name || "this sheet"),
      evidence("boot mode", modeWords(sheet.boot.mode), "this sheet"),
    );
  }),
];

/** The first system on the road that does not start with secure boot; null when all of them do. */
const wantsItOff = (context: BootGround): string | null => {
  const profile = context.legs.find((l) => l.profile.secureBoot === "must be off")?.profile;
  return profile ? `${profile.name} ${profile.version}` : null;
};
