import { z } from "zod";
import { isOneOf, keysOf, placeholdersOf } from "../../text";

/** How a value is written so that it stays in its place: quoted as a word, as a word of a POSIX shell, or as text of XML. */
export const SCRIPT_LANGUAGES = ["words", "shell", "xml"] as const;
export type ScriptLanguage = (typeof SCRIPT_LANGUAGES)[number];

/** What every line may name. */
const ALWAYS = [
  ...[
    "host.name",
    "host.domain",
    "host.fqdn",
    "keyboard.layout",
    "locale.name",
    "time.zone",
    "system.version",
  ],
  ...["source.url", "source.proxy", "account.super", "boot.mode", "target.layout", "target.count"],
  "edition.name",
  ...["host.mac", "host.address", "host.prefix", "host.netmask", "host.gateway"],
] as const;

/** What a section is written for, and what its lines may name beside that. */
export const SCRIPT_FOR = {
  once: [],
  drive: ["drive.serial", "drive.bytes", "drive.wwn", "drive.number"],
  spare: ["drive.serial", "drive.bytes", "drive.wwn", "drive.number"],
  account: ["account.name", "account.hash", "account.group"],
  key: ["account.name", "account.key"],
  "name server": ["server.address", "server.number"],
  component: ["component.name"],
  service: ["service.name"],
  "network command": ["network.command"],
  command: ["command.line"],
} as const;
export type ScriptFor = keyof typeof SCRIPT_FOR;

/** Fields of the sheet that a section may come from. */
export const SCRIPT_FIELDS = [
  ...["image.id", "boot.mode", "storage.target", "storage.layout", "network.port", "network.address"],
  ...["network.interfaces", "answers.hostName", "answers.domain", "answers.keyboard", "answers.locale"],
  ...["answers.timeZone", "answers.accounts", "answers.source", "answers.proxy", "answers.components"],
  ...["answers.services", "answers.edition", "answers.finish"],
] as const;

const sectionSchema = z
  .object({
    /** The field of the sheet that its lines come from; left out for what the format itself needs. */
    from: z.enum(SCRIPT_FIELDS).optional(),
    for: z.enum(keysOf(SCRIPT_FOR)).default("once"),
    /** All that is said must be so. */
    when: z
      .object({
        address: z.enum(["fixed", "dynamic"]).optional(),
        gateway: z.boolean().optional(),
        mode: z.enum(["uefi", "legacy"]).optional(),
        /** Whether the sheet names a source of packages, and a proxy. */
        source: z.boolean().optional(),
        proxy: z.boolean().optional(),
        drives: z.enum(["one", "several"]).optional(),
        /** Of accounts and keys. */
        role: z
          .array(z.enum(["super-user", "administrator", "ordinary", "service"]))
          .min(1)
          .optional(),
        /** Of accounts: whether a hash of its password was sealed. */
        hash: z.boolean().optional(),
      })
      .strict()
      .prefault({}),
    lines: z
      .array(
        z
          .string()
          .max(400)
          .refine((l) => !/\p{Cc}/u.test(l), "must be one line"),
      )
      .min(1),
  })
  .strict()
  .superRefine((section, context) => {
    const known: readonly string[] = [...ALWAYS, ...SCRIPT_FOR[section.for]];
    section.lines.forEach((line, i) => {
      // A name without its dot would stand in the file as it is written here; "${name}" is a shell's own.
      const [, bare] = /(?<!\$)\{([a-z][A-Za-z]*)\}/.exec(line) ?? [];
      if (bare)
        context.addIssue({
          code: "custom",
          message: `{${bare}} is unknown: names contain a dot, for example {drive.serial}`,
          path: ["lines", i],
        });
      for (const name of placeholdersOf(line))
        if (!isOneOf(known, name))
          context.addIssue({
            code: "custom",
            message: `{${name}} is unknown in a section for "${section.for}"; known: ${known.join(", ")}`,
            path: ["lines", i],
          });
    });
  });
export type ScriptSection = z.infer<typeof sectionSchema>;

/** The answer file of an installer in words of its own: sections of lines with {values} that are filled in from the build. */
export const answerScriptSchema = z
  .object({
    /** What follows the host name in the name of the file: ".cfg". */
    ending: z.string().regex(/^\.[a-z0-9.-]{1,20}$/, "must be a dot, then lower-case letters and digits"),
    language: z.enum(SCRIPT_LANGUAGES),
    /** How a drive is found by it, in words: read before a machine is given the file. */
    guard: z.string().min(1),
    /** What it leaves to a person, whatever the sheet says. */
    leaves: z.array(z.string().min(1)).default([]),
    sections: z.array(sectionSchema).min(1),
  })
  .strict()
  .refine(
    ({ sections }) =>
      sections.some((s) => s.for === "drive" && s.lines.some((l) => l.includes("{drive.serial}"))),
    {
      message:
        "no section for drives contains {drive.serial}, so the installer would choose a drive by itself",
      path: ["sections"],
    },
  );
export type AnswerScript = z.infer<typeof answerScriptSchema>;

/** The sets of a BSD on its medium, which its answer script lays out, and the pool that it makes. */
export const distributionSchema = z
  .object({
    /** The folder of the medium that holds the sets and their list of sums. */
    at: z.string().regex(/^\/[A-Za-z0-9._/-]+$/, "must be the path of a folder"),
    sets: z.array(z.string().regex(/^[A-Za-z0-9._-]+$/, "must be a file name")).min(1),
    pool: z
      .string()
      .regex(/^[a-z][a-z0-9-]{0,30}$/, "must be a lower-case letter, then letters, digits and hyphens"),
  })
  .strict();
