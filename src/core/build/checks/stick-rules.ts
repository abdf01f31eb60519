import { modeWords, stickBoots } from "../../boot";
import { formatBytes, formatDuration } from "../../units";
import { stickOf, type BuildContext } from "../context";
import { startsFromMedia } from "../roads";
import { waysOf } from "../roads-view";
import { evidence, hit, rule, type Rule } from "./rules";

const onStick = (context: BuildContext): boolean =>
  context.sheet.image.way === "stick" && startsFromMedia(context);
const source = (context: BuildContext): string => (stickOf(context).known ? "drive register" : "typed");
/** A wait that is worth another way, in seconds, and how much quicker that way must be. */
const LONG_WAIT = 3600;
const MUCH_QUICKER = 2;

/** Rules about the way to the machine, and about the stick that is one of them. */
export const stickRules: readonly Rule[] = [
  rule("image.way-closed", "B", (context) => {
    const { way } = context.sheet.image;
    // The licence and the absent controller have rules of their own, beside the machine.
    if (way === "virtual media") return null;
    const plan = waysOf(context)?.plans.find((p) => p.way === way);
    // What the inside of the image says stands at the boot mode (boot.inside).
    const own = plan?.reasons[0] ?? "";
    if (plan?.verdict !== "not possible" || own.startsWith(`${modeWords(context.sheet.boot.mode)}:`))
      return null;
    return hit(
      "stop",
      "image.way",
      { way, reason: own },
      evidence("way", way, "this sheet"),
      evidence("why", own, "computed"),
    );
  }),

  rule("image.slow-way", "B", (context) => {
    const plans = waysOf(context)?.plans ?? [];
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
        way: chosen.way,
        takes: formatDuration(seconds(chosen)),
        other: better.way,
        less: formatDuration(seconds(better)),
      },
      evidence(chosen.way, formatDuration(seconds(chosen)), "computed"),
      evidence(better.way, formatDuration(seconds(better)), "computed"),
    );
  }),

  rule("stick.no-identity", "B", (context) =>
    onStick(context) && !stickOf(context).serial
      ? hit(
          "caution",
          "image.stick.key",
          { stick: stickOf(context).name || "the stick" },
          evidence("serial", "not known", source(context)),
        )
      : null,
  ),

  rule("stick.other-image", "B", (context) => {
    const { known } = stickOf(context);
    const { id, stick } = context.sheet.image;
    if (!onStick(context) || !stick.ready || !context.image) return null;
    const carries = known?.entry.carries;
    if (carries && carries.imageId === id) return null;
    const holds = carries?.name ?? (stickOf(context).holds || "not known");
    return hit(
      "stop",
      "image.stick.ready",
      { stick: stickOf(context).name || "The stick", holds, image: context.image.name },
      evidence("on the stick", holds, source(context)),
      evidence("image", context.image.name, "this sheet"),
    );
  }),

  rule("stick.not-compared", "B", (context) => {
    const carries = stickOf(context).known?.entry.carries;
    if (!onStick(context) || !context.sheet.image.stick.ready || !carries || carries.compared) return null;
    return hit(
      "caution",
      "image.stick.ready",
      { stick: stickOf(context).name, at: carries.at.slice(0, 10) },
      evidence("written", carries.at.slice(0, 10), "drive register"),
      evidence("read back", "no", "drive register"),
    );
  }),

  rule("stick.scheme", "C", (context) => {
    const scheme = stickOf(context).known?.entry.scheme;
    const { boot, image } = context.sheet;
    if (!onStick(context) || !image.stick.ready || boot.mode !== "legacy" || scheme !== "GPT") return null;
    return hit(
      "caution",
      "boot.mode",
      { stick: stickOf(context).name },
      evidence("partition scheme", scheme, "drive register"),
      evidence("boot mode", modeWords(boot.mode), "this sheet"),
    );
  }),

  rule("stick.too-small", "B", (context) => {
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

  rule("stick.holds-data", "B", (context) => {
    const { holds } = stickOf(context);
    if (!onStick(context) || context.sheet.image.stick.ready || holds === "" || holds === "nothing")
      return null;
    return hit("caution", "image.stick.holds", { holds }, evidence("on the stick", holds, source(context)));
  }),

  rule("stick.wrong-mode", "C", (context) => {
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
      { mode: modeWords(sheet.boot.mode), verdict: boots === "unknown" ? "may not start" : "will not start" },
      evidence("stick written", written, name || "this sheet"),
      evidence("boot mode", modeWords(sheet.boot.mode), "this sheet"),
    );
  }),
];
