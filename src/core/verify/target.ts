import { driveName, systemDrives, type Facts } from "../machine";
import { differs, notSeen, seen, type Seen } from "./seen";

const BY = {
  mounted: "the system is mounted from",
  pool: "the root pool is on",
  entry: "the firmware booted from",
  mark: "its label is on",
} as const;

const MADE = /^virtual drive (.+)$/;

/** The ids of planned drives as the machine tells them now: a virtual drive that was made has one of its own by then. */
export const asFound = (drives: readonly string[], facts: Facts): string[] =>
  drives.map((id) => {
    const name = MADE.exec(id)?.[1];
    return (name && facts.drives.find((d) => d.presentedBy === name)?.id) || id;
  });

/** Whether the system stands on the planned drives, and on no other. */
export function lookAtTarget(
  { drives: planned, marks }: { drives: string[]; marks: string[] },
  facts: Facts,
): Seen {
  if (facts.drives.length === 0) return notSeen();
  const drives = asFound(planned, facts);
  const absent = drives.filter((id) => !facts.drives.some((d) => d.id === id && d.missingSince === null));
  if (absent.length > 0) return differs(`${absent.join(", ")} is missing`);
  const system = systemDrives(facts, marks);
  if (!system) return notSeen("the collected data does not show the system drive");
  const found = `${BY[system.by]} ${system.drives.map(driveName).join("; ")}`;
  const ids = system.drives.map((d) => d.id);
  if (ids.some((id) => !drives.includes(id))) return differs(found);
  // A boot entry and a label tell one drive of a set; mounts and pools tell all of them.
  const whole = drives.every((id) => ids.includes(id));
  if (whole) return seen(found, true);
  return system.by === "mounted" || system.by === "pool"
    ? differs(`${found}, without ${drives.filter((id) => !ids.includes(id)).join(", ")}`)
    : notSeen(`${found}; other drives not reported`);
}
