import type { MachineCheck } from "./context";
import { driveChecks } from "./drive-checks";
import { machineChecks } from "./machine-checks";
import { upkeepChecks } from "./upkeep-checks";
import { portChecks, reachChecks } from "./port-checks";

/** Rules about a machine as it is, whatever is built on it: they stand on its own sheet and on every build of it. */
export const MACHINE_CHECKS: readonly MachineCheck[] = [
  ...machineChecks,
  ...upkeepChecks,
  ...driveChecks,
  ...portChecks,
];
/** Rules that only the machine's own sheet shows. */
export const MACHINE_SHEET_CHECKS: readonly MachineCheck[] = [...MACHINE_CHECKS, ...reachChecks];

export { MACHINE_MESSAGES } from "./messages.en";
export type { CircuitState, DrivePast, MachineCheck, MachineContext, Twin } from "./context";
