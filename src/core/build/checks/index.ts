import { todayOf } from "../context";
import { answerRules } from "./answer-rules";
import { imageRules } from "./image-rules";
import { machineRules } from "./machine-rules";
import { networkRules } from "./network-rules";
import { roadRules } from "./road-rules";
import type { Rule } from "./rules";
import { stickRules } from "./stick-rules";
import { storageRules } from "./storage-rules";
import { unreadRules } from "./unread-rules";
import { MACHINE_CHECKS, type MachineCheck } from "../../machine";

/** A rule about the machine alone, run on the machine of the sheet. */
const ofMachine = (check: MachineCheck): Rule => ({
  ...check,
  run: (context) => {
    const { machine, now, rivals, pasts, circuit } = context;
    if (!machine) return [];
    const { name, document } = machine;
    return check.run({ now, today: todayOf(context), name, document, rivals, pasts, circuit });
  },
});

/** Every rule of a build sheet, in working order. */
export const BUILD_CHECKS: readonly Rule[] = [
  ...machineRules,
  ...unreadRules,
  ...MACHINE_CHECKS.map(ofMachine),
  ...imageRules,
  ...roadRules,
  ...stickRules,
  ...storageRules,
  ...networkRules,
  ...answerRules,
];
