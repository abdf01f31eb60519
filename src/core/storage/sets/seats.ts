/** What a drive of a set is there for. Special devices, logs and caches stand beside the data of a pool. */
export const SEAT_ROLES = ["member", "spare", "special", "log", "cache"] as const;
export type SeatRole = (typeof SEAT_ROLES)[number];

/** The list of a set that names the drives of a role. */
export const SEAT_LISTS = {
  member: "members",
  spare: "spares",
  special: "special",
  log: "logs",
  cache: "caches",
} as const satisfies Record<SeatRole, string>;

/** The drives of a set by their lists. */
export type Seated = Record<(typeof SEAT_LISTS)[SeatRole], string[]>;

/** Every drive of a set, members first. */
export const idsOf = (set: Seated): string[] => SEAT_ROLES.flatMap((role) => set[SEAT_LISTS[role]]);

/** What a drive is in a set; null where it is not in it. */
export const roleIn = (set: Seated, drive: string): SeatRole | null =>
  SEAT_ROLES.find((role) => set[SEAT_LISTS[role]].includes(drive)) ?? null;
