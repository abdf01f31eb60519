import { z } from "zod";

/** What a key gives at one level: a character, a dead key that waits for the next one, or nothing that can be printed. */
const levelSchema = z.union([z.string(), z.object({ dead: z.string() }), z.null()]);
export type Level = z.infer<typeof levelSchema>;

/**
 * A keyboard layout by key names as they stand on the keyboard (AD01 is the first key of the upper letter row). Levels are
 * plain, Shift, AltGr, AltGr and Shift; where the right Alt key is a plain Alt there are only the first two.
 */
export const layoutSchema = z.object({
  layout: z.string(),
  variant: z.string(),
  right_alt_is_altgr: z.boolean(),
  keys: z.record(z.string(), z.object({ levels: z.array(levelSchema) })),
});
export type Layout = z.infer<typeof layoutSchema>;

/** One press: a key, and which of the two modifiers is held. */
export interface Press {
  key: string;
  level: 0 | 1 | 2 | 3;
}

/** The order in which keys are tried: rows from the top, from left to right. */
const ROWS = [
  "TLDE",
  ...row("AE", 13),
  ...row("AD", 12),
  ...row("AC", 11),
  "BKSL",
  "LSGT",
  ...row("AB", 11),
  "SPCE",
];

function row(name: string, keys: number): string[] {
  return Array.from({ length: keys }, (_, i) => `${name}${String(i + 1).padStart(2, "0")}`);
}

const HELD = ["", "Shift+", "AltGr+", "AltGr+Shift+"] as const;

/** "AltGr+Shift+AD02". */
export const pressWords = ({ key, level }: Press): string => `${HELD[level]}${key}`;

/** What a press gives on a layout; undefined when the layout has no such key or level. */
export const levelAt = (layout: Layout, { key, level }: Press): Level | undefined =>
  layout.keys[key]?.levels[level];

/** All presses that a layout has, lower levels first. */
export const pressesOf = (layout: Layout): Press[] =>
  ([0, 1, 2, 3] as const)
    .filter((level) => level < 2 || layout.right_alt_is_altgr)
    .flatMap((level) => ROWS.filter((key) => layout.keys[key]).map((key) => ({ key, level })));

const ways = new WeakMap<Layout, Map<string, Press[]>>();

/** Every character of a layout with the presses that give it, worked out once for each layout. */
function waysOf(layout: Layout): Map<string, Press[]> {
  const known = ways.get(layout);
  if (known) return known;
  const made = new Map<string, Press[]>();
  for (const press of pressesOf(layout)) {
    const level = levelAt(layout, press);
    if (typeof level === "string") made.set(level, [...(made.get(level) ?? []), press]);
  }
  for (const list of made.values()) list.sort((a, b) => ROWS.indexOf(a.key) - ROWS.indexOf(b.key));
  ways.set(layout, made);
  return made;
}

/** The presses that give a character without a dead key, in the order of the keys. */
export const waysToType = (layout: Layout, character: string): readonly Press[] =>
  waysOf(layout).get(character) ?? [];
