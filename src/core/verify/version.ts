import type { Facts } from "../machine";
import { differs, notSeen, seen, type Seen } from "./seen";

const parts = (version: string): string[] => version.split(/[.\s-]+/).filter(Boolean);
/** Whether the first version begins with all parts of the second: 9.2.1 with 9.2. */
const beginsWith = (version: string, start: string): boolean =>
  parts(start).every((p, i) => parts(version)[i] === p);

/**
 * Which system runs, and in which version. The planned version is met by itself and by what goes further in the same
 * line (9.2 by 9.2.1). A system that tells less than was planned (9 for 9.2) leaves the rest open.
 */
export function lookAtVersion({ id, version }: { id: string; version: string }, { system }: Facts): Seen {
  if (!system?.osId) return notSeen();
  const told = system.osVersion ?? "";
  const found = system.osName ?? `${system.osId} ${told}`.trim();
  if (system.osId !== id) return differs(found);
  // The long name often goes further than the version of its own line: "Cairn Hypervisor 9.2" beside "9".
  const named = (/\d+(?:\.\d+)*/g.exec(system.osName ?? "") ?? [""])[0];
  const full = told === "" || (named !== "" && beginsWith(named, told)) ? named : told;
  if (full === "") return notSeen(`${found}: no version reported`);
  if (beginsWith(full, version)) return seen(withVersion(found, full), true);
  return beginsWith(version, full)
    ? notSeen(`${found}: only ${full} reported`)
    : differs(withVersion(found, full));
}

const withVersion = (found: string, version: string): string =>
  found.includes(version) ? found : `${found} (${version})`;
