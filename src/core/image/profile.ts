import { z } from "zod";
import { placeholdersOf } from "../text";

/** Every name that a profile's texts may use in {curly braces}; each is filled from the build. */
export const PLACEHOLDERS = [
  "account.admin",
  "account.super",
  "account.where",
  "boot.mode",
  "host.address",
  "host.domain",
  "host.fqdn",
  "host.gateway",
  "host.mac",
  "host.name",
  "host.nameServers",
  "host.netmask",
  "host.port",
  "host.prefix",
  "image.file",
  "image.name",
  "image.version",
  "keyboard.layout",
  "locale.name",
  "machine.name",
  "management.address",
  "target.name",
  "target.seenAs",
  "target.size",
  "target.tail",
  "time.zone",
] as const;

const template = z.string().superRefine((text, context) => {
  for (const name of placeholdersOf(text)) {
    if (!(PLACEHOLDERS as readonly string[]).includes(name))
      context.addIssue({
        code: "custom",
        message: `{${name}} is not a value of the build; the known ones are ${PLACEHOLDERS.join(", ")}`,
      });
  }
});

const seconds = z.number().positive();

const requirementSchema = z
  .object({ least: z.number().nonnegative(), recommended: z.number().nonnegative() })
  .strict();

/** One screen of the installer (or one piece of first-boot work): what it shows, what to type, when to go on. */
export const screenSchema = z
  .object({
    id: z.string().regex(/^[a-z0-9-]+$/, "use lower-case letters, digits and hyphens"),
    title: template.min(1),
    /** What must be on the screen before anything is pressed. */
    see: z.array(template).default([]),
    /** What may not be there: seeing it means stop. */
    never: z.array(template).default([]),
    do: z.array(template).default([]),
    type: z.array(z.object({ label: z.string(), value: template }).strict()).default([]),
    /** A secret is named, never written: the operator takes it from where the build says it is kept. */
    secret: z.array(z.string()).default([]),
    keys: z.string().default(""),
    /** True where the screen erases or overwrites the target: a guard goes before it. */
    destroys: z.boolean().default(false),
    /** True where the operator only waits. */
    wait: z.boolean().default(false),
    /** Looks wrong, is expected here; and until when. */
    expected: z.array(z.object({ looks: z.string(), means: z.string() }).strict()).default([]),
    /** The share of the image that is read through the media while this screen stands (0 to 1). */
    readsShare: z.number().min(0).max(1).default(0),
    when: z.enum(["always", "fixed address", "dynamic address"]).default("always"),
    likely: seconds,
    late: seconds,
  })
  .strict()
  .refine((s) => s.late >= s.likely, { message: "late is earlier than likely", path: ["late"] });
export type Screen = z.infer<typeof screenSchema>;

/** How one family of operating system, in one version, is installed. Profiles are data: users add their own. */
export const profileSchema = z
  .object({
    schema: z.literal(1),
    profile: z.string().regex(/^[a-z0-9-]+$/, "use lower-case letters, digits and hyphens"),
    name: z.string().min(1),
    version: z.string().min(1),
    family: z.string().min(1),
    installer: z.enum(["graphical", "text"]),
    /** What a running system says of itself in /etc/os-release. */
    identify: z.object({ id: z.string(), version: z.string() }).strict(),
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
          .regex(/^x86-64-v[1-4]$/, "is written x86-64-v1 to x86-64-v4")
          .optional(),
        /** Least firmware for makers' models that are known to need it. */
        firmware: z
          .array(
            z
              .object({
                model: z.string().min(1),
                part: z.enum(["system firmware", "management controller"]),
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
    passwords: z
      .object({
        leastLength: z.number().int().positive(),
        classes: z.number().int().min(1).max(4),
        words: z.string(),
      })
      .strict(),
    accounts: z
      .object({
        superUser: z.string(),
        needsAdministrator: z.boolean(),
        reserved: z.array(z.string()).default([]),
      })
      .strict(),
    hostName: z.object({ domain: z.enum(["required", "wanted", "not used"]) }).strict(),
    /** Layouts that the installer offers, by its own names; empty means that it offers every common one. */
    keyboards: z.array(z.string()).default([]),
    management: z
      .object({
        address: template,
        kind: z.enum(["web page", "remote shell", "console only"]),
        certificateWarning: z.boolean(),
      })
      .strict(),
    evaluationDays: z.number().int().positive().nullable().default(null),
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
    if (!profile.screens.some((s) => s.destroys))
      context.addIssue({
        code: "custom",
        message: "no screen is marked `destroys: true`, so no guard would stand before the disk is erased",
        path: ["screens"],
      });
    for (const [name, r] of Object.entries(profile.requirements)) {
      if (typeof r === "object" && !Array.isArray(r) && r.recommended < r.least)
        context.addIssue({
          code: "custom",
          message: "recommended is less than least",
          path: ["requirements", name],
        });
    }
  });
export type Profile = z.infer<typeof profileSchema>;
