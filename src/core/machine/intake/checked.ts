import { isBag } from "../../document";
import { own } from "../../text";
import { z } from "zod";
import type { Problem } from "../../result";
import { contentSchema, driveSchema } from "../facts/drive";
import { factsSchema } from "../facts/facts";
import type { Reading } from "./importers";
import { itemsIn, LISTS, type Item } from "./lists";

// What stands between the tools and the facts: whatever an importer took from a text is whole, clean and of its kind.

/** Longer than any line that these tools print: an array of all devices that its format has room for. */
const LONGEST_LINE = 32_768;
const MOST_LINES = 400_000;
/** More of anything than a machine has. */
const MOST_ITEMS = 20_000;
const LONGEST_TEXT = 400;
const MOST_WARNINGS = 20;

/** Why a text of lines cannot be the output of a tool; null for one that can. */
export function unlikelyText(text: string): Problem | null {
  let line = 1;
  for (let at = 0; at <= text.length; line += 1) {
    const found = text.indexOf("\n", at);
    const end = found < 0 ? text.length : found;
    if (end - at > LONGEST_LINE)
      return {
        message: `line ${line} has ${end - at} characters; the limit is ${LONGEST_LINE}. The text was not imported.`,
        line,
      };
    at = end + 1;
    if (line > MOST_LINES)
      return {
        message: `more than ${MOST_LINES} lines; the text was not imported`,
        line,
      };
  }
  return null;
}

/** Signs that are not seen: controls, marks of direction, halves of pairs, and ends of lines. */
const UNSEEN = /[\p{Cc}\p{Cf}\p{Cs}\p{Zl}\p{Zp}]+/gu;
const HAS_UNSEEN = new RegExp(UNSEEN.source, "u");
const cleanWords = (text: string): string =>
  (HAS_UNSEEN.test(text) ? text.replace(UNSEEN, " ") : text).trim().slice(0, LONGEST_TEXT);

/** The value with all its texts clean and of a length that facts have room for. */
function clean(value: unknown): unknown {
  if (typeof value === "string") return cleanWords(value);
  if (Array.isArray(value)) return value.map(clean);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [cleanWords(key), clean(inner)]));
}

/** The longest list in what a tool told; for a refusal by its name. */
function longest(value: unknown, name: string): { name: string; length: number } {
  if (typeof value !== "object" || value === null) return { name, length: 0 };
  const inner = Object.entries(value).map(([key, v]) => longest(v, Array.isArray(value) ? name : key));
  const own = { name, length: Array.isArray(value) ? value.length : 0 };
  return inner.reduce((a, b) => (b.length > a.length ? b : a), own);
}

const content = contentSchema.partial().required({ part: true, sizeBytes: true });
const drive = driveSchema.partial().extend({
  contents: z.array(content).nullish(),
  signatures: z.array(contentSchema).optional(),
});
const { shape } = factsSchema;
/** What an item of each list may look like while a tool tells only some of it. */
const ITEMS: { readonly [Group in keyof typeof LISTS]: z.ZodType } = {
  drives: drive,
  ports: shape.ports.unwrap().element.partial(),
  pci: shape.pci.unwrap().element.partial(),
  sets: shape.sets.unwrap().element.partial(),
  storageControllers: shape.storageControllers.unwrap().element.partial(),
  sensors: shape.sensors.unwrap().element.partial(),
  powerSupplies: shape.powerSupplies.unwrap().element.partial(),
};
const isList = (group: string): group is keyof typeof LISTS => Object.hasOwn(LISTS, group);

const shown = (value: unknown): string => (JSON.stringify(value) ?? "nothing").slice(0, 60);

/** Leaves out of a thing what is not of its kind, and tells it: a field, or one item of a list in a field. */
function fitting(schema: z.ZodType, given: Item, tell: (field: string, value: unknown) => void): Item {
  const checked = schema.safeParse(given);
  if (checked.success) return given;
  const left = { ...given };
  const items = new Map<string, Set<number>>();
  for (const { path } of checked.error.issues) {
    const [field, at] = path.map(String);
    if (field === undefined) continue;
    const list = given[field];
    if (Array.isArray(list) && at !== undefined) {
      const wrong = items.get(field) ?? new Set<number>();
      if (!wrong.has(Number(at))) tell(field, list[Number(at)]);
      items.set(field, wrong.add(Number(at)));
    } else {
      if (field in left) tell(field, given[field]);
      delete left[field];
    }
  }
  for (const [field, wrong] of items)
    if (Array.isArray(given[field])) left[field] = given[field].filter((_, i) => !wrong.has(i));
  return left;
}

/**
 * A reading whose facts are clean and of their kind, with a warning for each that was not and is left out; a problem when
 * it tells more than any machine has.
 */
export function checkedReading(
  tool: string,
  reading: Reading,
): { reading: Reading; warnings: Problem[] } | Problem {
  const most = longest(reading.facts, "");
  if (most.length > MOST_ITEMS)
    return {
      message: `${tool}: ${most.length} ${most.name}, more than any machine has; the text was not imported`,
    };
  const wrong: string[] = [];
  const cleaned = clean(reading.facts);
  const facts: Item = isBag(cleaned) ? cleaned : {};
  for (const [group, value] of Object.entries(facts)) {
    const tell = (of: string) => (field: string, given: unknown) =>
      void wrong.push(
        `${tool}: ${of === "" ? group : of}: ${field} is ${shown(given)}, which is impossible; skipped`,
      );
    if (isList(group)) {
      const { key } = LISTS[group];
      facts[group] = itemsIn(value)
        .map((item) => fitting(ITEMS[group], item, tell(String(item[key] ?? item.seenAs ?? group))))
        .filter((item) => key === "id" || item[key]);
    } else if (Array.isArray(value)) {
      const schema: z.ZodType = own(shape, group) ?? z.never();
      facts[group] = fitting(z.object({ [group]: schema }), { [group]: value }, tell(""))[group];
    } else if (isBag(value)) {
      const schema: z.ZodType = own(shape, group) ?? z.never();
      facts[group] = fitting(schema, value, tell(""));
    }
  }
  const more = wrong.length - MOST_WARNINGS;
  const warnings = wrong.slice(0, MOST_WARNINGS).map((message) => ({ message }));
  if (more > 0) warnings.push({ message: `${tool}: ${more} more impossible values were skipped` });
  return { reading: { ...reading, facts }, warnings };
}
