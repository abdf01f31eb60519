import { takes } from "../../estimate";
import { driveLook } from "../../machine";
import { step, type Step } from "../../stage";
import { targetOf } from "../../storage";
import type { BootGround } from "../ground";

/** What a target on a storage network asks for before it is written: it has to be this machine's alone. */
export function sanSteps(ground: BootGround): Step[] {
  const target = targetOf(ground);
  if (!target?.san) return [];
  return [
    step("san-volume", "C", takes(300, 1800), {
      title: "See that the volume is this machine's alone",
      kind: "confirm",
      place: "console",
      do: [
        `Ask whoever keeps the array to which initiators the ${target.san} volume is given: ${driveLook(target)}.`,
        "Each server starts from a copy of its own; two that write one volume destroy it.",
        "In the set-up of the initiator: the volume's address, and the port that reaches it.",
      ],
      see: ["One initiator only, and it is this machine's", "The volume in the firmware's own list"],
      never: ["A volume that another machine has mounted"],
      must: "What another machine has mounted is destroyed by the installer without a question.",
    }),
  ];
}
