import type { Check } from "../../finding";
import type { Path } from "../../document";
import { MACHINE_CHECKS, type MachineCheck } from "../../machine";
import type { FitGround } from "../ground";
import { machineRules } from "./machine-rules";
import { unreadRules } from "./unread-rules";

type FitCheck = Check<FitGround, Path<FitGround["sheet"]> | "network.port">;

/** A rule about the machine alone, run on the machine of the sheet. */
const ofMachine = (check: MachineCheck): FitCheck => ({
  ...check,
  run: ({ machine, ...rest }) => (machine ? check.run({ ...rest, ...machine }) : []),
});

/** Every rule about the machine: under the wanted system, and as it is. */
export const FIT_CHECKS: readonly FitCheck[] = [
  ...machineRules,
  ...unreadRules,
  ...MACHINE_CHECKS.map(ofMachine),
];
export { FIT_MESSAGES } from "./messages.en";
