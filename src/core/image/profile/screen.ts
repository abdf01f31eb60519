import { z } from "zod";
import { placeholdersOf, isOneOf } from "../../text";

/** Every name that a profile's texts may use in {curly braces}; each is filled from the build. */
export const PLACEHOLDERS = [
  "account.admin",
  "account.super",
  "account.where",
  "boot.mode",
  "edition.name",
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
  "system.found",
  "target.count",
  "target.layout",
  "target.model",
  "target.name",
  "target.seenAs",
  "target.size",
  "time.zone",
] as const;

/** A value of the build for each name that a profile's text may hold; "" while it is open. */
export type Values = Record<(typeof PLACEHOLDERS)[number], string>;

export const template = z.string().superRefine((text, context) => {
  for (const name of placeholdersOf(text)) {
    if (!isOneOf(PLACEHOLDERS, name))
      context.addIssue({
        code: "custom",
        message: `{${name}} is not a value of the build; known values: ${PLACEHOLDERS.join(", ")}`,
      });
  }
});

export const slug = z.string().regex(/^[a-z0-9-]+$/, "use lower-case letters, digits and hyphens");
export const seconds = z.number().positive();

/**
 * What a screen does to drives. "chooses": the drive is picked here; "writes": from here on the target is written;
 * "others": drives beside the target are written, which are those that the plan frees. A guard goes before each.
 */
export const DRIVE_WORK = ["none", "chooses", "writes", "others"] as const;
/** What a page before its key may show of what it is about to do. */
export const READ_BACK = ["verb", "version", "size"] as const;
export type DriveWork = (typeof DRIVE_WORK)[number];

/** One screen of the installer (or one piece of first-boot work): what it shows, what to type, when to go on. */
export const screenSchema = z
  .object({
    id: slug,
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
    drive: z.enum(DRIVE_WORK).default("none"),
    /** True where what stands on the target is lost from here on. */
    destroys: z.boolean().default(false),
    /** What the page before the key tells of its verb, version and size: it is read back and compared with the plan. */
    reads: z.array(z.enum(READ_BACK)).default([]),
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
  .refine((s) => s.late >= s.likely, { message: "the maximum is below the expected time", path: ["late"] })
  .refine((s) => !s.destroys || s.drive === "writes", {
    message: "a screen that erases the target must be marked `drive: writes`, so that a guard precedes it",
    path: ["destroys"],
  })
  .refine((s) => s.drive !== "none" || !/\{target\./.test(JSON.stringify([s.title, s.see, s.type])), {
    message:
      "this screen shows the target, so it chooses or writes a drive: mark it `drive: chooses` or `drive: writes`, so that a guard precedes it",
    path: ["drive"],
  })
  .refine((s) => s.reads.length === 0 || s.drive === "writes", {
    message: "a screen with a value to verify must be marked `drive: writes`",
    path: ["reads"],
  });
export type Screen = z.infer<typeof screenSchema>;
