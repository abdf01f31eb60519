import type { Facts } from "../machine";
import type { EffectOf } from "../work";

/** What stands at the machine and can be started from. */
export type Medium = Pick<EffectOf<"insert medium">, "medium" | "name" | "holds">;

/** What a machine is doing. */
export type Running =
  | { of: "nothing" }
  | { of: "medium"; medium: Medium["medium"] }
  /** Its own system: the one that stood there before, or the installed one. */
  | { of: "system"; isNew: boolean }
  | { of: "no device" };

/** What stands in and on a machine at one moment. It is never changed: what is done to it gives another one. */
export interface World {
  /** What a collector would read: drives with their contents, firmware, ports, the system. */
  facts: Facts;
  power: "on" | "off";
  media: readonly Medium[];
  /** The medium that stays first in the boot order; null: its own drives. */
  first: Medium["medium"] | null;
  /** The medium that the next start alone is from. */
  once: Medium["medium"] | null;
  /** Settings of the firmware that were changed for the installation, or put back after it. */
  settings: readonly string[];
  running: Running;
  installed: { profile: string; version: string } | null;
  /** Whether the firmware finds what is installed. */
  starts: boolean;
  /** Drives that the installer works on, by their ids. */
  target: readonly string[];
  /** Drives whose contents were lost. */
  lost: readonly string[];
  /** Default log-ins that got a password of their own. */
  logIns: readonly string[];
}

/** What a world is made from beside the facts of the machine. */
export interface WorldGround {
  facts: Facts;
  /** How a profile's system calls itself. */
  systems: readonly { profile: string; id: string; name: string }[];
  /** Bits of the network part of the address that is set; null where no network was chosen. */
  prefixLength: number | null;
}

/** A machine that is off, as its facts tell it. */
export const worldOf = ({ facts }: WorldGround): World => ({
  facts,
  power: "off",
  media: [],
  first: null,
  once: null,
  settings: [],
  running: { of: "nothing" },
  installed: null,
  starts: facts.system?.osId != null,
  target: [],
  lost: [],
  logIns: [],
});

/** What a start of a machine that has power ends in; a one-time choice is used up by it. */
export function start(world: World): World {
  const isIn = (medium: Medium["medium"] | null) => world.media.find((m) => m.medium === medium);
  const from = isIn(world.once) ?? isIn(world.first);
  return {
    ...world,
    power: "on",
    once: null,
    running: from ? { of: "medium", medium: from.medium } : own(world),
  };
}

/** What a machine does that starts from its own drives. */
export const own = ({ starts, installed }: World): Running =>
  starts ? { of: "system", isNew: installed !== null } : { of: "no device" };
