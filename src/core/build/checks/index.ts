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
  run: ({ machine, now, neighbours, pasts, circuit }) =>
    machine
      ? check.run({ now, name: machine.name, document: machine.document, twins: neighbours, pasts, circuit })
      : [],
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
