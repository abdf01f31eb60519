import { z } from "zod";
import { TARGET_KINDS } from "./kinds";
import { screenSchema, slug, template } from "./screen";

/** What a machine holds beside its bare operating system: the rows of "what does this road keep?". */
export const ASPECTS = [
  "data pools",
  "dataset keys",
  "guests",
  "shares",
  "settings",
  "accounts",
  "network settings",
  "host keys",
  "packages",
  "changes by hand",
  "licence",
  "other operating systems",
] as const;
export type Aspect = (typeof ASPECTS)[number];

const aspects = z.array(z.enum(ASPECTS)).default([]);

/** What a road keeps and loses; an aspect in neither list does not arise there. */
export const fateSchema = z
  .object({ keeps: aspects, loses: aspects, words: z.string().default("") })
  .strict()
  .refine((f) => !f.keeps.some((a) => f.loses.includes(a)), {
    message: "the same item is both kept and lost",
    path: ["loses"],
  });
export type Fate = z.infer<typeof fateSchema>;

/** One allowed jump onto this profile's version, or inside its line, from what is installed. */
export const upgradeSchema = z
  .object({
    id: slug,
    from: z
      .object({
        profile: slug,
        version: z.string().min(1),
        /** The oldest version of that line from which the jump is allowed. */
        least: z.string().min(1).optional(),
      })
      .strict(),
    /** The version that stands afterwards; left out when it is the profile's own. */
    to: z.string().min(1).optional(),
    way: z.enum(["upgrade", "convert"]),
    /** "installer" starts from this profile's media; "running system" is done in the system that runs. */
    through: z.enum(["installer", "running system"]),
    /** What must be so before it begins; each becomes a line of the first step. */
    needs: z.array(template).default([]),
    fate: fateSchema,
    screens: z
      .array(screenSchema)
      .min(1, "an upgrade without screens has no steps")
      .refine((screens) => screens.some((s) => s.drive === "writes"), {
        message: "no screen is marked `drive: writes`, so no guard would precede the change of the system",
      }),
  })
  .strict();
export type Upgrade = z.infer<typeof upgradeSchema>;

/** A fault that is known before it is met, and the stepping stone that it forces. All given conditions must hold. */
export const faultSchema = z
  .object({
    id: slug,
    when: z
      .object({
        road: z.enum(["fresh", "in place"]).optional(),
        target: z.enum(TARGET_KINDS).optional(),
        /** Words that must occur in the machine's model. */
        model: z.string().min(1).optional(),
        /** A driver or a PCI id (vendor:device) that a device of the machine has. */
        part: z.string().min(1).optional(),
      })
      .strict()
      .refine(
        (w) => Object.keys(w).length > 0,
        "set a condition: installation method, target, model or part",
      ),
    looks: z.string().min(1),
    remedy: z.string().min(1),
    /** Install this one first, then upgrade. */
    stone: z
      .object({ profile: slug, version: z.string().min(1) })
      .strict()
      .optional(),
  })
  .strict();
export type KnownFault = z.infer<typeof faultSchema>;
