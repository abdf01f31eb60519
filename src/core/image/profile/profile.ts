import { z } from "zod";
import { parametersSchema } from "../../parameter";
import { answerScriptSchema, distributionSchema } from "./answer-script";
import { networkProfileSchema } from "./network";
import { partitioningSchema } from "./partitioning";
import { screenSchema, seconds, slug, template } from "./screen";
import { LAYOUTS, TARGET_KINDS } from "./kinds";
import { fateSchema, faultSchema, upgradeSchema } from "./upgrade";

const requirementSchema = z
  .object({ least: z.number().nonnegative(), recommended: z.number().nonnegative() })
  .strict();

/** The formats in which installers take their answers from a file. "script": in words that stand in the profile. */
export const ANSWER_FILES = ["kickstart", "preseed", "cloud-config", "bsd script", "script", "none"] as const;

/** How one family of operating system, in one version, is installed. Profiles are data: users add their own. */
export const profileSchema = z
  .object({
    schema: z.literal(2),
    profile: slug,
    name: z.string().min(1),
    version: z.string().min(1),
    family: z.string().min(1),
    installer: z.enum(["graphical", "text"]),
    /** The format in which this installer takes its answers from a file; "none" leaves the answer card. */
    answerFile: z.enum(ANSWER_FILES).default("none"),
    /** The words of an installer that takes a script of its own. Null: not told. */
    answerScript: answerScriptSchema.nullable().default(null),
    /** What the script of a BSD lays out. Null: not told. */
    distribution: distributionSchema.nullable().default(null),
    /** Words of a file name or volume name by which an image of this profile is recognised; all must occur. */
    recognise: z.array(z.string().min(1)).default([]),
    support: z
      .object({
        channel: z.enum(["long-term", "current", "pre-release", "out of support"]).default("current"),
        ends: z.iso.date().nullable().default(null),
      })
      .strict()
      .prefault({}),
    editions: z
      .array(z.object({ name: z.string().min(1), suits: z.string().min(1), lacks: z.string() }).strict())
      .default([]),
    /** Roles of a machine that it is made for; empty for any. */
    suits: z.array(z.string().min(1)).default([]),
    /** What a running system says of itself in /etc/os-release. */
    identify: z
      .object({
        id: z.string(),
        version: z.string(),
        /** Labels of partitions, or names of pools, by which the drive of this system is known where "/" is not mounted from it. */
        marks: z.array(z.string().min(1)).default([]),
      })
      .strict(),
    requirements: z
      .object({
        architectures: z.array(z.enum(["x86_64", "aarch64"])).min(1),
        memoryBytes: requirementSchema,
        diskBytes: requirementSchema,
        cores: requirementSchema,
        virtualisation: z.enum(["required", "wished", "not needed"]),
        iommu: z.enum(["required", "wished", "not needed"]).default("not needed"),
        /** "x86-64-v2" and the like; left out when every processor of the architecture will do. */
        processorLevel: z
          .string()
          .regex(/^x86-64-v[1-4]$/, "must be x86-64-v1 to x86-64-v4")
          .optional(),
        /** Least firmware for makers' models that are known to need it. */
        firmware: z
          .array(
            z
              .object({
                model: z.string().min(1),
                /** `model` names the machine for the first two, the part itself for the others. */
                part: z.enum(["system firmware", "management controller", "storage controller", "drive"]),
                least: z.string().min(1),
                why: z.string().min(1),
              })
              .strict(),
          )
          .default([]),
      })
      .strict(),
    firmware: z
      .object({ modes: z.array(z.enum(["uefi", "legacy"])).min(1), bootMenuSeconds: seconds.default(10) })
      .strict(),
    secureBoot: z.enum(["works", "must be off"]).default("works"),
    /** What of its image a machine starts over the network, and the words that its kernel is given beside those of its answer file. */
    netboot: z
      .object({
        kernel: z.string().regex(/^\/\S+$/, "must be the path of a file in the image"),
        initrd: z
          .array(z.string().regex(/^\/\S+$/, "must be the path of a file in the image"))
          .min(1)
          .max(8),
        words: z
          .array(z.string().regex(/^[\x21-\x7e]+$/, "must be one word without spaces"))
          .max(40)
          .default([]),
      })
      .strict()
      .nullable()
      .default(null),
    /** Values that its kernel's words and the commands of a sheet may name; a site, a sheet or a machine may give others. */
    parameters: parametersSchema.default([]),
    /** How its installer can lay the system over drives. */
    layouts: z.array(z.enum(LAYOUTS)).min(1).default(["single drive"]),
    /** What its installer makes of the target by itself. Null: not told. */
    partitioning: partitioningSchema.nullable().default(null),
    /** What it can make of other drives, and how: by the script that a sheet writes, or by hand. Null: not told. */
    sets: z
      .partialRecord(z.enum(["ZFS", "md"]), z.enum(["script", "by hand"]))
      .nullable()
      .default(null),
    /**
     * What the cache of ZFS takes of the memory at most, as this family sets it: a share, all but so much, or no more than
     * so much; the least of them. Null: not told.
     */
    zfsCache: z
      .object({
        share: z.number().positive().max(1).optional(),
        leaveGib: z.number().positive().optional(),
        mostGib: z.number().positive().optional(),
      })
      .strict()
      .nullable()
      .default(null),
    /** Keys that open other consoles beside the installer. */
    consoleKeys: z
      .array(z.object({ keys: z.string().min(1), opens: z.string().min(1) }).strict())
      .default([]),
    /** From what it can start; a kind that is not listed is not known. */
    bootTargets: z
      .array(
        z
          .object({
            kind: z.enum(TARGET_KINDS),
            verdict: z.enum(["supported", "discouraged", "not supported"]),
            words: z.string().default(""),
          })
          .strict(),
      )
      .default([]),
    passwords: z
      .object({
        leastLength: z.number().int().positive(),
        classes: z.number().int().min(1).max(4),
        /** A capital that stands first and a digit that stands last count as kinds. */
        edgesCount: z.boolean().default(true),
        /** The account's name may stand in its password. */
        mayHoldName: z.boolean().default(true),
        words: z.string(),
      })
      .strict(),
    accounts: z
      .object({
        superUser: z.string(),
        needsAdministrator: z.boolean(),
        /** The group whose members may elevate. */
        adminGroup: z.string().min(1).default("wheel"),
        reserved: z.array(z.string()).default([]),
      })
      .strict(),
    hostName: z.object({ domain: z.enum(["required", "wanted", "not used"]) }).strict(),
    /** Log-ins that exist before anybody chose one; `changedOn` is the screen that changes them. */
    defaultLogins: z
      .array(z.object({ name: z.string().min(1), opens: z.string().min(1), changedOn: slug }).strict())
      .default([]),
    /** Layouts that the installer offers, by its own names; empty means that it offers every common one. */
    keyboards: z.array(z.string()).default([]),
    management: z
      .object({
        address: template,
        kind: z.enum(["web page", "remote shell", "console only"]),
        certificateWarning: z.boolean(),
      })
      .strict(),
    /** How its network is written down. */
    network: networkProfileSchema.prefault({}),
    evaluationDays: z.number().int().positive().nullable().default(null),
    knownFaults: z.array(faultSchema).default([]),
    /** What a fresh installation keeps of what was on the machine, and loses. */
    fresh: fateSchema.prefault({}),
    upgrades: z.array(upgradeSchema).default([]),
    screens: z.array(screenSchema).min(1),
    firstBoot: z.array(screenSchema).default([]),
    restart: z.object({ likely: seconds, late: seconds }).strict(),
  })
  .strict()
  .superRefine((profile, context) => {
    const ids = [...profile.screens, ...profile.firstBoot].map((s) => s.id);
    const twice = ids.find((id, i) => ids.indexOf(id) !== i);
    if (twice)
      context.addIssue({ code: "custom", message: `two screens have the id "${twice}"`, path: ["screens"] });
    const edges = profile.upgrades.map((u) => u.id);
    const edgeTwice = edges.find((id, i) => edges.indexOf(id) !== i);
    if (edgeTwice)
      context.addIssue({
        code: "custom",
        message: `two upgrades have the id "${edgeTwice}"`,
        path: ["upgrades"],
      });
    profile.defaultLogins.forEach((login, i) => {
      if (!ids.includes(login.changedOn))
        context.addIssue({
          code: "custom",
          message: `no screen has the id "${login.changedOn}", so this login would not be changed`,
          path: ["defaultLogins", i, "changedOn"],
        });
    });
    if (profile.answerScript && profile.answerFile !== "script")
      context.addIssue({
        code: "custom",
        message: "an answer script is defined, but `answerFile` is not `script`: it would not be used",
        path: ["answerScript"],
      });
    if (profile.distribution && profile.answerFile !== "bsd script")
      context.addIssue({
        code: "custom",
        message:
          "distribution sets are defined, but `answerFile` is not `bsd script`: they would not be used",
        path: ["distribution"],
      });
    if (!profile.screens.some((s) => s.destroys))
      context.addIssue({
        code: "custom",
        message: "no screen is marked `destroys: true`, so no guard would precede the erasure of the disk",
        path: ["screens"],
      });
    for (const [name, r] of Object.entries(profile.requirements)) {
      if (typeof r === "object" && !Array.isArray(r) && r.recommended < r.least)
        context.addIssue({
          code: "custom",
          message: "recommended is less than the minimum",
          path: ["requirements", name],
        });
    }
  });
export type Profile = z.infer<typeof profileSchema>;
