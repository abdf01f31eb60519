/** Whose an entry of the firmware's list is. */
export const OWNERS = [
  "the running system",
  "another system",
  "the network",
  "a medium",
  "the firmware",
  "nobody: stale",
  "not known",
] as const;
export type Owner = (typeof OWNERS)[number];

/** An entry of the firmware's list, as people must know it before they touch the list. */
export interface EntryView {
  id: string;
  label: string;
  active: boolean;
  /** Its place in the order, from 1; null where the order does not name it. */
  place: number | null;
  owner: Owner;
  /** The device that it leads to; null where none is known. */
  device: string | null;
  /** Entries that lead to the very same, by their ids. */
  twins: string[];
  /** What the plan makes of it, in words. */
  after: string;
  /** What would be lost if it were deleted, in words. */
  loses: string;
}
