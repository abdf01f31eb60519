import { driveName, isSoundMember, type DriveSet, type Facts } from "../machine";
import { formatBytes } from "../units";
import type { Expectation } from "./expect";
import { differs, notSeen, seen, type Seen } from "./seen";

type Match = Extract<Expectation["match"], { kind: "set" }>;

/** "RAID-6", "raid6" and "RAID 6" are one level; what a pool calls "single" is planned as single drives. */
const plain = (level: string): string =>
  level
    .toLowerCase()
    .replace(/single drives/, "single")
    .replace(/:[\w:]*$/, "")
    .replace(/[\s-]/g, "")
    .replace(/raidz1?$/, "raidz1");

/** A spare inside a dRAID is no drive of its own. */
const INSIDE = /^draid\d-\d+-\d+$/;

/** The set by its name; an array goes by its device, so it is known by its drives as well. */
function made({ made: kind, name, members }: Match, sets: readonly DriveSet[]): DriveSet | undefined {
  const holds = (s: DriveSet, id: string): boolean => s.members.some((m) => m.drive === id);
  const named = sets.find((s) => s.name === name);
  if (named || kind === "pool" || members.length === 0) return named;
  return sets.find((s) => members.some((id) => holds(s, id)));
}

const nameOf = (facts: Facts, id: string): string => {
  const drive = facts.drives.find((d) => d.id === id);
  return drive ? driveName(drive) : id;
};

/** The drives that a role is planned for and does not have, and those that have it unplanned, in words. */
function strangers(
  facts: Facts,
  set: DriveSet,
  role: DriveSet["members"][number]["role"],
  planned: readonly string[],
): string[] {
  const found = set.members.filter((m) => m.role === role).flatMap((m) => m.drive ?? []);
  const without = planned.filter((id) => !found.includes(id)).map((id) => nameOf(facts, id));
  const beside = found.filter((id) => !planned.includes(id)).map((id) => nameOf(facts, id));
  const as = role === "member" ? "" : ` as ${role}`;
  return [
    ...(without.length > 0 ? [`without ${without.join("; ")}${as}`] : []),
    ...(beside.length > 0 ? [`with ${beside.join("; ")}${as}`] : []),
  ];
}

/** What is otherwise than planned, in words; parts of which nothing was read are named in `open`. */
function compared(match: Match, facts: Facts, set: DriveSet): { faults: string[]; open: string[] } {
  const faults: string[] = [];
  const open: string[] = [];
  if (!set.level) open.push("its layout");
  else if (plain(match.level) !== plain(set.level)) faults.push(`it is ${set.level}`);
  const own = set.members.filter((m) => !INSIDE.test(m.name));
  // A member whose drive is not told cannot be compared, and then none is said to be missing.
  const isTold = own.length > 0 && own.every((m) => m.drive !== null);
  if (isTold)
    faults.push(
      ...strangers(facts, set, "member", match.members),
      ...strangers(facts, set, "spare", match.spares),
      ...strangers(facts, set, "special", match.special),
      ...strangers(facts, set, "log", match.logs),
      ...strangers(facts, set, "cache", match.caches),
    );
  else open.push("its member drives");
  if (set.sizeBytes === null) open.push("its size");
  else if (Math.abs(set.sizeBytes - match.sizeBytes) > match.within * match.sizeBytes)
    faults.push(`it has ${formatBytes(set.sizeBytes)}`);
  const unsound = set.members.filter((m) => !isSoundMember(m.state));
  if (set.health === "failed" || (set.health === "degraded" && set.progress === null))
    faults.push(
      `it is ${set.health}${unsound.length > 0 ? `: ${unsound.map((m) => m.name).join(", ")}` : ""}`,
    );
  return { faults, open };
}

/** Whether a set was made as planned: layout, drives, spares, size, and that it stands. */
export function lookAtSet(match: Match, facts: Facts): Seen {
  const kind = facts.sets.filter((s) => s.kind === match.made);
  if (kind.length === 0) return notSeen(`no ${match.made} was collected`);
  const set = made(match, kind);
  if (!set) return differs(`no ${match.made} with this name; found ${kind.map((s) => s.name).join(", ")}`);
  const { faults, open } = compared(match, facts, set);
  const size = set.sizeBytes === null ? "" : `, ${formatBytes(set.sizeBytes)}`;
  const busy = set.progress ? `; ${set.progress.what} at ${set.progress.percent} %` : "";
  const found = `${set.level ?? "layout not reported"}${size}${busy}`;
  if (faults.length > 0) return differs(`${found}: ${faults.join(", ")}`);
  return open.length > 0 ? notSeen(`${found}; not reported: ${open.join(", ")}`) : seen(found, true);
}
