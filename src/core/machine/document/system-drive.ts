import type { Drive } from "../facts/drive";
import { presentDrives } from "../facts/describe";
import type { Facts } from "../facts/facts";

/** The drives that the running system stands on, and by what that is known. */
export interface SystemDrives {
  drives: Drive[];
  /** "mounted" and "pool" name every drive of the system, "entry" the one that the firmware started, "mark" what carries its label. */
  by: "mounted" | "pool" | "entry" | "mark";
}

/** Device path of a GPT partition in a boot entry (UEFI 2.10, 10.3.5.1): HD(number,GPT,guid,...). */
const ENTRY_GUID = /HD\(\d+,GPT,([0-9a-f-]{36})/i;

/**
 * On which drives the system stands: those that carry "/"; of a ZFS root those of its pool; of a system that runs from
 * memory the one that holds the partition of the boot entry that was started, else those that carry a label or pool
 * which the OS profile knows its system by. Null when nothing that was read tells it.
 */
export function systemDrives(facts: Facts, marks: readonly string[] = []): SystemDrives | null {
  const drives = presentDrives(facts);
  const having = (test: (drive: Drive) => boolean): Drive[] => drives.filter(test);
  const mounted = having((d) => (d.contents ?? []).some((c) => c.mountedAt.includes("/")));
  if (mounted.length > 0) return { drives: mounted, by: "mounted" };
  const { rootSource, rootKind } = facts.system ?? {};
  if (rootKind === "zfs" && rootSource) {
    const pool = `pool ${rootSource.split("/")[0]}`;
    const members = having((d) => d.memberOf.includes(pool));
    if (members.length > 0) return { drives: members, by: "pool" };
  }
  const { currentEntry, entries } = facts.firmware ?? {};
  const guid = ENTRY_GUID.exec(entries?.find((e) => e.id === currentEntry)?.path ?? "")?.[1]?.toLowerCase();
  const started = guid
    ? having((d) => (d.contents ?? []).some((c) => c.partUuid?.toLowerCase() === guid))
    : [];
  if (started.length > 0) return { drives: started, by: "entry" };
  const marked = having(
    (d) =>
      (d.contents ?? []).some((c) => c.label !== null && marks.includes(c.label)) ||
      marks.some((m) => d.memberOf.includes(`pool ${m}`)),
  );
  return marked.length > 0 ? { drives: marked, by: "mark" } : null;
}
