import { fail, ok, type Result } from "../../result";
import { afterDead, compose } from "./compose";
import { levelAt, pressesOf, waysToType, type Layout, type Press } from "./layout";

const lowest = (presses: readonly Press[]): Press | undefined =>
  presses.reduce<Press | undefined>((best, p) => (!best || p.level < best.level ? p : best), undefined);

const deadWays = new WeakMap<Layout, Map<string, Press[]>>();

/** What dead keys make on a layout: through a space if that does it, else through the first letter that does. */
function throughDead(layout: Layout): Map<string, Press[]> {
  const known = deadWays.get(layout);
  if (known) return known;
  const made = new Map<string, Press[]>();
  const presses = pressesOf(layout);
  const second = presses.filter((press) => press.level < 2);
  for (const after of [second.filter((press) => press.key === "SPCE"), second])
    for (const first of presses) {
      const dead = levelAt(layout, first);
      if (!(dead instanceof Object)) continue;
      for (const press of after) {
        const base = levelAt(layout, press);
        const character = typeof base === "string" ? compose([dead.dead], base) : null;
        if (character !== null && !made.has(character)) made.set(character, [first, press]);
      }
    }
  deadWays.set(layout, made);
  return made;
}

/** The presses that type a character on a layout, or null: the lowest level, then the first key; dead keys only if need be. */
export function pressesFor(layout: Layout, character: string): Press[] | null {
  const direct = lowest(waysToType(layout, character));
  return direct ? [direct] : (throughDead(layout).get(character) ?? null);
}

/** The presses that type a text on a layout; a failure names the characters that it cannot type. */
export function typeOn(layout: Layout, text: string): Result<Press[]> {
  const presses = [...text].map((character) => ({ character, ways: pressesFor(layout, character) }));
  const missing = presses.filter(({ ways }) => !ways).map(({ character }) => character);
  return missing.length > 0
    ? fail({ message: `this keyboard cannot type ${missing.join("")}` })
    : ok(presses.flatMap(({ ways }) => ways ?? []));
}

export interface Stored {
  text: string;
  /** Presses of AltGr that are a plain Alt on the assumed layout: a shortcut, which types nothing. */
  altPresses: number;
  withoutSymbol: number;
  /** The last key was dead, and what it waited for never came. */
  deadPending: boolean;
}

/** What a program stores that takes the presses for those of the layout `assumed`. */
export function readAs(assumed: Layout, presses: readonly Press[]): Stored {
  const stored: Stored = { text: "", altPresses: 0, withoutSymbol: 0, deadPending: false };
  let dead: string[] = [];
  for (const press of presses) {
    const level = levelAt(assumed, press) ?? null;
    if (press.level >= 2 && !assumed.right_alt_is_altgr) {
      stored.altPresses += 1;
      dead = [];
    } else if (level === null) stored.withoutSymbol += 1;
    else if (typeof level === "string") {
      stored.text += compose(dead, level) ?? "";
      dead = [];
    } else {
      const after =
        dead.length === 0 ? "waits" : dead.length > 1 ? "given up" : afterDead(dead[0]!, level.dead);
      if (after instanceof Object) stored.text += after.sign;
      dead = after === "waits" ? [...dead, level.dead] : [];
    }
  }
  return { ...stored, deadPending: dead.length > 0 };
}
