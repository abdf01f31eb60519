/** Schools of what a system is started from. */
export const SCHOOLS = [
  "mirrored cards",
  "one card",
  "one drive",
  "mirrored drives",
  "hardware mirror",
  "external drive",
  "network each time",
  "SAN volume",
] as const;
export type School = (typeof SCHOOLS)[number];

/** One school, judged for this machine and this system. */
export interface SchoolView {
  school: School;
  isPossible: boolean;
  /** What it would stand on here, or what is missing. */
  here: string;
  /** Bays that it takes from the data. */
  bays: number;
  /** Devices that may fail while it still starts. */
  survives: number;
  /** What was measured of the devices: wear, hours, a sync under way. */
  wear: string;
  /** What a reinstallation leaves alone. */
  keeps: string;
  /** What the OS profile says of it; null where it says nothing. */
  profile: { verdict: "supported" | "discouraged" | "not supported"; words: string } | null;
  /** What a person must know of it. */
  note: string;
  /** The target of the sheet is of this school. */
  isChosen: boolean;
}
