import { levelAt, type Layout } from "./layout";
import { pressesFor, readAs, typeOn, type Stored } from "./typed";

/** What lies between two keyboards: one sends the keys, the other is what the program takes them for. */
export interface Between {
  sends: Layout;
  reads: Layout;
}

/** The printable characters of ASCII, the blank first. */
const PRINTABLE: readonly string[] = Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i));

/** A character that comes out as another; `becomes` is empty where nothing comes out. */
export interface Moved {
  character: string;
  becomes: string;
}

/** The printable ASCII characters that come out differently, or that the sending keyboard has not. */
export function movedCharacters({ sends, reads }: Between): Moved[] {
  return PRINTABLE.flatMap((character) => {
    const presses = pressesFor(sends, character);
    const becomes = presses ? readAs(reads, presses).text : "";
    return becomes === character ? [] : [{ character, becomes }];
  });
}

export type Trap =
  /** Characters that the sending keyboard has no key for: the text cannot be typed there. */
  { kind: "untypable"; missing: string[] } | { kind: "typed"; stored: Stored; same: boolean };

/** What is stored when a text is typed on one keyboard and read as another. */
export function trapOf(text: string, { sends, reads }: Between): Trap {
  const typed = typeOn(sends, text);
  if (!typed.ok)
    return {
      kind: "untypable",
      missing: [...new Set(text)].filter((character) => !pressesFor(sends, character)),
    };
  const stored = readAs(reads, typed.value);
  return { kind: "typed", stored, same: stored.text === text && !stored.deadPending };
}

/**
 * What to type on the sending keyboard so that the program, which reads it as another, gets `stored`; null where no keys
 * of it give that. It is found by the keys: those that make `stored` where it is read, and what stands on them here.
 */
export function typeToGet(stored: string, { sends, reads }: Between): string | null {
  const wanted = typeOn(reads, stored);
  if (!wanted.ok) return null;
  const here = readAs(sends, wanted.value).text;
  const trap = trapOf(here, { sends, reads });
  return trap.kind === "typed" && trap.stored.text === stored ? here : null;
}

/**
 * The characters that one press gives on every layout alike: the lowest way to type it is the same key and level on all of
 * them, so that whichever of them is assumed, the same comes out.
 */
export function sameOnAll(layouts: readonly Layout[]): Set<string> {
  const [first, ...others] = layouts;
  if (!first) return new Set(PRINTABLE);
  const same = PRINTABLE.filter((character) => {
    const presses = pressesFor(first, character);
    const [press] = presses ?? [];
    if (!press || presses?.length !== 1 || press.level > 1) return false;
    return others.every((other) => {
      const own = pressesFor(other, character);
      return (
        levelAt(other, press) === character &&
        own?.length === 1 &&
        own[0]?.key === press.key &&
        own[0].level === press.level
      );
    });
  });
  return new Set(same);
}
