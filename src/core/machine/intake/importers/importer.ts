import type { z } from "zod";
import { fail, type Problem, type Result } from "../../../result";
import { parseJson } from "../../../text";
import type { DriveSet, Facts, PciDevice, Port, Sensor, StorageController } from "../../facts/facts";
import type { ObservedDrive } from "../../facts/identity";

type Some<T, K extends keyof T> = Partial<T> & Pick<T, K>;

/** Facts as one tool saw them: an item of a list may lack what that tool does not print. */
export type Observed = Omit<
  Partial<Facts>,
  "drives" | "ports" | "pci" | "sets" | "storageControllers" | "sensors" | "powerSupplies"
> & {
  drives?: ObservedDrive[];
  ports?: Some<Port, "mac">[];
  pci?: Some<PciDevice, "slot">[];
  sets?: Some<DriveSet, "id" | "kind" | "name" | "state" | "health">[];
  storageControllers?: Some<StorageController, "id" | "name">[];
  sensors?: Some<Sensor, "id" | "kind" | "value">[];
  powerSupplies?: Facts["powerSupplies"];
};

/** What one tool's output says: facts, and in words what was taken and what was left. */
export interface Reading {
  facts: Observed;
  understood: string;
  ignored: string[];
  /** Lists of which the tool prints every item: one that is absent now is gone. */
  complete?: Partial<
    Record<"drives" | "ports" | "pci" | "sets" | "storageControllers" | "sensors" | "powerSupplies", boolean>
  >;
}

/** Reads the output of one tool. `recognises` looks at the beginning only and never throws. */
export interface Importer {
  tool: string;
  command: string;
  recognises(text: string): boolean;
  /** For tools whose answer comes in many texts: several of them as one. */
  join?(texts: string[]): string;
  /** For texts that show their own end: whether it is there. */
  hasEnd?(text: string): boolean;
  parse(text: string): Result<Reading>;
}

/** Parses JSON and checks its shape; a shape problem names the path inside the document. */
export function parseShaped<T>(text: string, schema: z.ZodType<T>, what: string): Result<T> {
  const json = parseJson(text);
  if (!json.ok) return json;
  const shaped = schema.safeParse(json.value);
  if (shaped.success) return { ok: true, value: shaped.data, warnings: [] };
  return fail(...shaped.error.issues.slice(0, 5).map((issue) => ({ message: shapeWords(issue, what) })));
}

/** What a tool prints at a place, and what stands there: in words about the tool, and not about a schema. */
function shapeWords(issue: z.core.$ZodIssue, tool: string): string {
  const at = issue.path.length === 0 ? "its output" : `"${issue.path.map(String).join(".").slice(0, 120)}"`;
  if (issue.code === "invalid_union" && issue.errors[0]?.[0])
    return shapeWords({ ...issue.errors[0][0], path: [...issue.path, ...issue.errors[0][0].path] }, tool);
  if (issue.code !== "invalid_type") return `${tool}: ${at} is not what ${tool} prints there`;
  const kinds: ReadonlyMap<string, string> = new Map([
    ["string", "a text"],
    ["number", "a number"],
    ["boolean", "true or false"],
    ["array", "a list"],
  ]);
  const wanted = kinds.get(issue.expected) ?? "values with names";
  const isMissing = issue.message.endsWith("received undefined");
  return `${tool} prints ${wanted} as ${at}, and this text has ${isMissing ? "none" : "something else"}. Check that it is the whole output of this tool.`;
}

/** The problem of a text that lacks its own end, with the last words of it. */
export function cutOff(text: string, end: string): Problem {
  const line = text.trimEnd().split("\n").length;
  return { message: `truncated after "${lastWords(text)}": ${end} is missing. Drop the whole output.`, line };
}

/** The end of a text's last line that has words, for a message. */
export const lastWords = (text: string): string =>
  (text.slice(-4000).trimEnd().split("\n").at(-1) ?? "")
    .trim()
    .slice(-60)
    .replace(/\p{Cc}/gu, "·");

/** The parts of a text between empty lines. */
export function blocksOf(text: string): string[] {
  const blocks: string[][] = [[]];
  for (const line of text.split(/\r?\n/))
    if (line.trim() === "") blocks.push([]);
    else blocks.at(-1)!.push(line);
  return blocks.filter((b) => b.length > 0).map((b) => b.join("\n"));
}

const PLACEHOLDERS =
  /^(not specified|not settable|unknown|none|default string|to be filled by o\.?e\.?m\.?|\s*|0+)$/i;

/** Trims; removes control characters; what makers write when they wrote nothing becomes null. At most 200 characters. */
export function cleanText(value: string | null | undefined): string | null {
  const text = (value ?? "")
    .replace(/\p{Cc}/gu, " ")
    .trim()
    .slice(0, 200);
  return PLACEHOLDERS.test(text) ? null : text;
}

/** As cleanText; but "0" is the name of a slot or bay. */
export const cleanPlace = (value: string | null | undefined): string | null =>
  /^\s*\d+\s*$/.test(value ?? "") ? (value ?? "").trim().slice(0, 200) : cleanText(value);

/** Sizes up to 9 PB count exactly; what is larger, negative or no number at all is not known. */
export function plausibleBytes(value: unknown): number | null {
  const size = typeof value === "string" && value.trim() !== "" ? Number(value) : value;
  return typeof size === "number" && Number.isSafeInteger(size) && size >= 0 ? size : null;
}

/** A whole number of at least 0, or null for what is none. */
export function wholeNumber(value: unknown): number | null {
  const number = typeof value === "string" && value.trim() !== "" ? Number(value) : value;
  return typeof number === "number" && Number.isSafeInteger(Math.trunc(number)) && number >= 0
    ? Math.trunc(number)
    : null;
}

export const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
