// Apart from the schema of a set, so that the sheet's first script can carry it.

/** How the members of a set keep their data; words for a pool, numbers for the levels of md and of controllers. */
export const SET_TYPES = [
  ...(["stripe", "mirror", "raidz1", "raidz2", "raidz3", "draid1", "draid2", "draid3"] as const),
  ...(["0", "1", "5", "6", "10", "50", "60"] as const),
] as const;
export type SetType = (typeof SET_TYPES)[number];
