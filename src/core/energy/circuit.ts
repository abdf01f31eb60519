import type { CircuitState } from "../machine";
import { powerOf, type Reading } from "../readings";
import type { Site } from "../site";

/** A circuit of a site, with the load that the site's own electrician allows on it. */
export type Circuit = Site["circuits"][number];

export interface CircuitMember {
  name: string;
  circuit: string;
  readings: readonly Reading[];
}

/**
 * Load of a circuit: the newest loaded watts of each machine on it, idle watts where nothing else was read. Machines
 * without any power reading are counted, not guessed. The limit is what the site states; Derrick knows no code.
 */
export function circuitState(circuit: Circuit, members: readonly CircuitMember[]): CircuitState {
  const own = members.filter((m) => m.circuit === circuit.name);
  const drawn = own.map((m) => {
    const { idle, loaded } = powerOf(m.readings);
    return loaded?.value ?? idle?.value ?? null;
  });
  return {
    name: circuit.name,
    limitWatts: circuit.limitWatts,
    watts: drawn.reduce<number>((sum, w) => sum + (w ?? 0), 0),
    machines: own.length,
    unread: drawn.filter((w) => w === null).length,
  };
}
