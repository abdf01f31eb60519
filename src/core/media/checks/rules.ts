import { evidence, hit } from "../../finding";
import { formatBytes, formatDuration, localDay } from "../../units";
import { onStick, stickOf, type MediaGround } from "../ground";
import { modeWords } from "../../work";
import { wayWords } from "../ways";
import { rule, type MediaRule } from "./rule";

const source = (context: MediaGround): string => (stickOf(context).known ? "drive inventory" : "typed");
/** A wait that is worth another way, in seconds, and how much quicker that way must be. */
const LONG_WAIT = 3600;
const MUCH_QUICKER = 2;

/** Rules about the way to the machine, and about the stick that is one of them. */
export const stickRules: readonly MediaRule[] = [
  rule("image.way-closed", (context) => {
    const { way } = context.sheet.image;
    // The licence and the absent controller have rules of their own, beside the machine.
    if (way === "virtual media") return null;
    const plan = context.ways?.find((p) => p.way === way);
    // What the inside of the image says stands at the boot mode (boot.inside).
    const own = plan?.reasons[0] ?? "";
    if (plan?.verdict !== "not possible" || own.startsWith(`${modeWords(context.sheet.boot.mode)}:`))
      return null;
    return hit(
      "stop",
      "image.way",
      { way: wayWords[way], reason: own },
      evidence("way", way, "this sheet"),
      evidence("why", own, "computed"),
    );
  }),

  rule("image.slow-way", (context) => {
    const plans = context.ways ?? [];
    const seconds = (p: (typeof plans)[number]): number => p.once.likelySeconds + p.each.likelySeconds;
    const chosen = plans.find((p) => p.way === context.sheet.image.way);
    if (!chosen || seconds(chosen) < LONG_WAIT) return null;
    const [better] = plans
      .filter((p) => p.verdict === "possible" && seconds(p) * MUCH_QUICKER < seconds(chosen))
      .sort((a, b) => seconds(a) - seconds(b));
    if (!better) return null;
    return hit(
      "note",
      "image.way",
      {
        way: wayWords[chosen.way],
        takes: formatDuration(seconds(chosen)),
        other: wayWords[better.way],
        less: formatDuration(seconds(better)),
      },
      evidence(chosen.way, formatDuration(seconds(chosen)), "computed"),
      evidence(better.way, formatDuration(seconds(better)), "computed"),
    );
  }),

  rule("stick.no-identity", (context) =>
    onStick(context) && !stickOf(context).serial
      ? hit(
          "caution",
          "image.stick.key",
          { stick: stickOf(context).name || "USB stick" },
          evidence("serial", "unknown", source(context)),
        )
      : null,
  ),

  rule("stick.other-image", (context) => {
    const { known } = stickOf(context);
    const { id, stick } = context.sheet.image;
    if (!onStick(context) || !stick.ready || !context.image) return null;
    const carries = known?.entry.carries;
    if (carries && carries.imageId === id) return null;
    const holds = carries?.name ?? (stickOf(context).holds || "unknown");
    return hit(
      "stop",
      "image.stick.ready",
      { stick: stickOf(context).name || "USB stick", holds, image: context.image.name },
      evidence("contents of the stick", holds, source(context)),
      evidence("image", context.image.name, "this sheet"),
    );
  }),

  rule("stick.not-compared", (context) => {
    const carries = stickOf(context).known?.entry.carries;
    if (!onStick(context) || !context.sheet.image.stick.ready || !carries || carries.compared) return null;
    return hit(
      "caution",
      "image.stick.ready",
      { stick: stickOf(context).name, at: localDay(carries.at, context) },
      evidence("written", localDay(carries.at, context), "drive inventory"),
      evidence("verified", "no", "drive inventory"),
    );
  }),

  rule("stick.too-small", (context) => {
    const { image } = context;
    const size = stickOf(context).sizeBytes;
    if (!onStick(context) || !image || size === null || size >= image.sizeBytes) return null;
    return hit(
      "stop",
      "image.stick.sizeBytes",
      { short: formatBytes(image.sizeBytes - size) },
      evidence("stick", formatBytes(size), source(context)),
      evidence("image", formatBytes(image.sizeBytes), image.name),
    );
  }),

  rule("stick.holds-data", (context) => {
    const { holds } = stickOf(context);
    if (!onStick(context) || context.sheet.image.stick.ready || holds === "" || holds === "nothing")
      return null;
    return hit(
      "caution",
      "image.stick.holds",
      { holds },
      evidence("contents of the stick", holds, source(context)),
    );
  }),
];
