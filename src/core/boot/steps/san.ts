import { takes } from "../../estimate";
import { driveLook } from "../../machine";
import { operation, statement, type Operation } from "../../work";
import { targetOf } from "../../storage";
import type { BootGround } from "../ground";

/** What a target on a storage network asks for before it is written: it has to be this machine's alone. */
export function sanSteps(ground: BootGround): Operation[] {
  const target = targetOf(ground);
  if (!target?.san) return [];
  return [
    operation("san-volume", "C", takes(300, 1800), {
      title: "Check that only this machine can access the volume",
      kind: "confirm",
      place: "console",
      do: [
        `Ask the storage administrator which initiators can access the ${target.san} volume: ${driveLook(target)}.`,
        "Each server boots from its own copy; two servers that write to one volume destroy it.",
        "In the setup of the initiator: the address of the volume, and the port that reaches it.",
      ],
      sees: [
        statement("One initiator only, and it belongs to this machine"),
        statement("The volume in the boot entries of the firmware"),
      ],
      never: [statement("A volume that another machine has mounted")],
      must: "The installer destroys a volume that another machine has mounted, without a warning.",
    }),
  ];
}
