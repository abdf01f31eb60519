/** How sizes are shown: by powers of 1000 as makers sell them, of 1024 as systems show them, or both. */
export const UNITS = ["both", "decimal", "binary"] as const;
export type Units = (typeof UNITS)[number];
