/** What is taken of a class of drives where nobody typed anything better; each figure can be changed. */
export interface DriveClass {
  /** Share of drives that fail in a year. */
  afr: number;
  /** Chance that a bit cannot be read, as data sheets state it. */
  bitErrors: number;
  /** Sustained rate in bytes per second. */
  bytesPerSecond: number;
}

export const CLASSES = {
  spinning: { afr: 0.015, bitErrors: 1e-15, bytesPerSecond: 180e6 },
  flash: { afr: 0.01, bitErrors: 1e-17, bytesPerSecond: 450e6 },
  nvme: { afr: 0.01, bitErrors: 1e-17, bytesPerSecond: 1.5e9 },
} as const satisfies Record<string, DriveClass>;
export type ClassName = keyof typeof CLASSES;
export const CLASS_NAMES = Object.keys(CLASSES) as ClassName[];

/** A rebuild beside other work goes at this share of the sustained rate; where the machine is busy, at the later one. */
export const REBUILD_SHARE = { likely: 0.6, late: 0.2 };
