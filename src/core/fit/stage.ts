import type { Path } from "../document";
import { factsOf, machineLine, MACHINE_MESSAGES } from "../machine";
import { open, said, type Stage } from "../stage";
import { FIT_CHECKS, FIT_MESSAGES } from "./checks";
import type { FitGround } from "./ground";
import { machineSlice, type MachineSlice } from "./slice";

function summary(ground: FitGround) {
  const facts = factsOf(ground);
  return ground.machine && facts
    ? said(`${ground.machine.name}: ${machineLine(facts) || "no hardware data yet"}`)
    : open("Choose the machine");
}

function values(ground: FitGround) {
  const { controller, system } = factsOf(ground) ?? {};
  return {
    "machine.name": ground.machine?.name ?? "",
    "management.address": controller?.address ?? "",
    "system.found": system?.osName ?? system?.osVersion ?? "",
  };
}

/** Stage A: the machine, and whether the wanted system fits it. */
export const fitStage = {
  zone: "A",
  title: "Machine",
  slice: { machine: machineSlice.prefault({}) },
  names: { "machine.id": "machine" },
  checks: FIT_CHECKS,
  messages: { ...MACHINE_MESSAGES, ...FIT_MESSAGES },
  summary,
  values,
} satisfies Stage<FitGround, Path<{ machine: MachineSlice }>>;
