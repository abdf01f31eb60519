import type { Effect, EffectOf, OperationOf } from "../work";
import type { World } from "../world";

/** By what a fault is noticed. */
export type Caught = "name drive" | "read back" | "sight" | "acceptance";

/** What is typed at a gate that reads the console back. */
export type ReadFromConsole = Pick<OperationOf<"read back">, "verb" | "version" | "sizes">;

/** How a fault comes into a build: in place of an effect, or as what the console shows at a guard. */
type Strike =
  | { at: "effect"; do: Effect["do"]; instead: Instead<Effect> }
  /** The drive that the console really shows; null where this machine has no other. */
  | { at: "name drive"; shows: (world: World, guard: OperationOf<"name drive">) => string | null }
  | { at: "read back"; shows: (step: OperationOf<"read back">) => ReadFromConsole | null };

/** What comes of an effect: of the world before it, and as it would usually be after it; null where nothing goes wrong. */
type Instead<E> = (world: World, effect: E, usual: World) => World | null;

/** Something that goes wrong at a machine, as data. */
export interface Fault {
  code: string;
  /** What happens, for a person. */
  title: string;
  strike: Strike;
  /** A slip of fingers: it does not happen where an answer file types. */
  isTyped?: true;
  /** What is there to notice it, in the order of a build; empty: nothing is, which is a finding. */
  caughtBy: readonly Caught[];
}

/** A fault in place of one kind of effect; null where it cannot happen there. */
export const inPlaceOf = <Do extends Effect["do"]>(kind: Do, instead: Instead<EffectOf<Do>>): Strike => ({
  at: "effect",
  do: kind,
  instead: (world, effect, usual) => (isOf(effect, kind) ? instead(world, effect, usual) : null),
});

const isOf = <Do extends Effect["do"]>(effect: Effect, kind: Do): effect is EffectOf<Do> =>
  effect.do === kind;
