import { z } from "zod";

const LONGEST = 300;

/** Why a text is no name of a parameter, or null. */
export const parameterNameProblem = (name: string): string | null =>
  /^[a-z][a-z0-9-]{0,39}$/.test(name)
    ? null
    : "a name starts with a lower-case letter and has letters, digits and hyphens, at most 40";

/** Why a text is no value of a parameter, or null. What was typed is not repeated: it may be a password. */
export function parameterValueProblem(value: string): string | null {
  if (value.length > LONGEST) return `a value has at most ${LONGEST} characters`;
  if (/[^\x20-\x7e]/.test(value))
    return "a value is one line of ASCII, because kernels and shells read nothing else";
  return /:\/\/[^/\s:@]*:[^/\s@]+@/.test(value)
    ? "the value contains a password; make the parameter a secret, and store its value encrypted for each sheet"
    : null;
}

/** A value under a name. A secret has none here: it is sealed for each sheet, so that no copy of this document has it. */
export const parameterSchema = z
  .object({
    name: z.string(),
    value: z.string().default(""),
    isSecret: z.boolean().default(false),
  })
  .superRefine(({ name, value, isSecret }, context) => {
    const problem =
      parameterNameProblem(name) ??
      (isSecret && value !== ""
        ? "the value of a secret is not stored in a document"
        : parameterValueProblem(value));
    if (problem) context.addIssue({ code: "custom", message: problem });
  });
export type Parameter = z.infer<typeof parameterSchema>;

export const parametersSchema = z
  .array(parameterSchema)
  .max(100)
  .superRefine((all, context) => {
    const twice = all.find(({ name }, i) => all.findIndex((p) => p.name === name) < i);
    if (twice) context.addIssue({ code: "custom", message: `"${twice.name}" is listed twice` });
  });

/** Where parameters are given; what stands later goes before what stands earlier. */
export const LEVELS = ["profile", "site", "sheet", "machine"] as const;
export type Level = (typeof LEVELS)[number];
export type Given = Readonly<Record<Level, readonly Parameter[]>>;

/** What is in force under a name, which level gives it, and which others it goes before. */
export interface InForce extends Parameter {
  from: Level;
  before: { from: Level; value: string }[];
}

/**
 * The parameters in force, by name. What is secret on one level is secret on all: a value that is written down elsewhere would
 * go round it.
 */
export function inForce(given: Given): InForce[] {
  const names = [...new Set(LEVELS.flatMap((level) => given[level].map((p) => p.name)))].sort();
  return names.flatMap((name): InForce[] => {
    const all = LEVELS.flatMap((from) =>
      given[from].filter((p) => p.name === name).map((p) => ({ ...p, from })),
    );
    const isSecret = all.some((p) => p.isSecret);
    const shown = (value: string): string => (isSecret ? "" : value);
    const last = all.at(-1);
    return last
      ? [
          {
            ...{ name, isSecret, from: last.from, value: shown(last.value) },
            before: all.slice(0, -1).map(({ from, value }) => ({ from, value: shown(value) })),
          },
        ]
      : [];
  });
}

/** What a sealed secret opens in the list of what was sealed; no account has a blank in its name. */
export const sealedAs = (name: string): string => `parameter ${name}`;
