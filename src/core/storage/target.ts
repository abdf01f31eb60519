import type { Layout } from "../image";
import { byteCount, total, type ByteCount } from "../units";

/** Which drives a build installs on, and how they stand together. */
export interface TargetPlan {
  target: string | null;
  partners: readonly { drive: string; role: "member" | "spare" }[];
  layout: Layout;
}

/** One drive of the target with what it is there for. */
export interface TargetSeat {
  drive: string;
  role: "member" | "spare";
}

/** The drives of the target, the first one first; none while no target is chosen. */
export const targetSeats = ({ target, partners }: Pick<TargetPlan, "target" | "partners">): TargetSeat[] =>
  target === null ? [] : [{ drive: target, role: "member" }, ...partners.filter((p) => p.drive !== target)];

const PARITY: Partial<Record<Layout, number>> = { raidz1: 1, raidz2: 2, raidz3: 3 };

/** Fewest members of a layout: a parity layout needs one drive of data beside its parity. */
export const leastMembers = (layout: Layout): number =>
  layout === "single drive" ? 1 : layout === "mirror" || layout === "stripe" ? 2 : (PARITY[layout] ?? 0) + 1;

/** How many members may fail before the system is lost. */
export const survives = (layout: Layout, members: number): number =>
  layout === "mirror" ? members - 1 : (PARITY[layout] ?? 0);

/**
 * Bytes that a layout offers before any file system takes its share: of a mirror its smallest member, of a stripe the
 * sum, of parity layouts the smallest member times the members that hold data.
 */
export function grossBytes(layout: Layout, memberBytes: readonly ByteCount[]): ByteCount {
  if (memberBytes.length === 0) return byteCount(0);
  const smallest = Math.min(...memberBytes);
  if (layout === "stripe") return total(memberBytes);
  const parity = PARITY[layout];
  return byteCount(parity === undefined ? smallest : smallest * Math.max(0, memberBytes.length - parity));
}
