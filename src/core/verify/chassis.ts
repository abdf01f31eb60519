/** The line of an acceptance by which a machine is known. */
export const CHASSIS_LINE = "serial";

/** The line that says that a reading comes from another machine; undefined where none does. */
export const otherChassis = <L extends { id: string; verdict: string }>(lines: readonly L[]): L | undefined =>
  lines.find((l) => l.id === CHASSIS_LINE && l.verdict === "differs");
