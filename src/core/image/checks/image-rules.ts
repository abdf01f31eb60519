import { UNKNOWN } from "../shelf";
import { formatExactBytes, localDay } from "../../units";
import { evidence, hit } from "../../finding";
import { isWeak } from "../checksum-list";
import { checksumProblem, verificationOf } from "../image";
import { rule, type ImageRule } from "./rule";

/** Rules about the image itself. */
export const imageRules: readonly ImageRule[] = [
  rule("image.none", ({ image }) => (image ? null : hit("stop", "image.id", {}))),

  rule("image.no-profile", ({ image, profile }) =>
    image && !profile
      ? hit(
          "stop",
          "image.id",
          { profile: image.profile, state: image.profile === UNKNOWN ? "unknown" : "absent" },
          evidence("image", image.profile, image.name),
        )
      : null,
  ),

  rule("image.no-checksum", ({ image }) =>
    image && !image.published ? hit("caution", "image.id", { file: image.fileName || image.name }) : null,
  ),

  rule("image.weak-checksum", ({ image }) =>
    image?.published && isWeak(image.published.algorithm)
      ? hit(
          "note",
          "image.id",
          { algorithm: image.published.algorithm },
          evidence("published", image.published.algorithm, image.publishedFrom || "typed"),
        )
      : null,
  ),

  rule("image.bad-checksum", ({ image }) => {
    const problem = image?.published ? checksumProblem(image.published) : null;
    if (!image?.published || !problem) return null;
    return hit(
      "stop",
      "image.id",
      { problem },
      evidence("typed", image.published.value.slice(0, 80), image.name),
    );
  }),

  rule("image.not-verified", ({ image }) => {
    if (!image?.published || checksumProblem(image.published)) return null;
    const state = verificationOf(image);
    if (state !== "not computed" && state !== "other algorithm") return null;
    return hit("caution", "image.id", { why: state, algorithm: image.published.algorithm });
  }),

  rule("image.checksum-differs", (context) => {
    const { image } = context;
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
          `${image.computed?.by}, ${localDay(image.computed!.at, context)}`,
        ),
      ),
      protectsData: true,
    };
  }),

  rule("image.support-over", (context) => {
    const { image } = context;
    return image?.supportEnds && image.supportEnds < context.today
      ? hit(
          "caution",
          "image.id",
          { ended: image.supportEnds },
          evidence("support ended", image.supportEnds, image.name),
        )
      : null;
  }),

  rule("image.damaged", (context) => {
    const { image } = context;
    const inside = image?.inside;
    if (!inside) return [];
    const source = `${inside.by}, ${localDay(inside.at, context)}`;
    return inside.found.faults
      .filter((f) => f.grave)
      .map((f, i) => ({
        ...hit(
          "stop",
          "image.id",
          { file: inside.fileName || image.name, fault: f.message },
          evidence("inspection of the file", f.message, source),
        ),
        subject: String(i),
        protectsData: true,
      }));
  }),

  rule("image.size-differs", ({ image }) => {
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

  rule("image.not-inspected", (context) => {
    const { image } = context;
    if (!image || image.inside || !context.fromMedia) return null;
    return hit("note", "image.id", { file: image.fileName || image.name });
  }),
];
