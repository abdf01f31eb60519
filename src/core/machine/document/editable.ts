import { z } from "zod";
import type { Editable, Hand } from "../../document";
import { controllerAfter, controllerRetold, controllerSourcesBack, writtenController } from "./controller";
import { controllerPartSchema } from "../facts/controller-schema";
import { typedSchema, type MachineDocument, type Typed } from "../facts/document";

/** What people write about a machine; its facts are read, but for those of the controller, which are typed as facts. */
export const writtenSchema = z.object({
  typed: typedSchema,
  notes: z.string().max(20_000),
  controller: controllerPartSchema,
});
export type Written = z.infer<typeof writtenSchema>;

export const machineEditable: Editable<MachineDocument, typeof writtenSchema> = {
  ...{ kind: "machine", schema: writtenSchema },
  partOf: ({ typed, notes, facts }) => ({ typed, notes, controller: writtenController(facts.controller) }),
  put: (document, { typed, notes, controller }, hand) => ({
    ...controllerAfter(document, controller, hand),
    typed: signed(document.typed, typed, hand),
    notes,
  }),
  retold: controllerRetold,
  followed: controllerSourcesBack,
};

/** Who wrote down a defect or a date, and who decided about a firmware, is the hand that did, whatever was sent. */
function signed(before: Typed, after: Typed, { by, at }: Hand): Typed {
  const byFirst = <T extends { id: string; by: string }>(old: readonly T[], rows: readonly T[]): T[] =>
    rows.map((row) => ({ ...row, by: old.find((o) => o.id === row.id)?.by ?? by }));
  const decided = (row: Typed["firmware"][number]) => {
    const old = before.firmware.find((f) => f.part === row.part);
    const same =
      old && JSON.stringify({ ...old, by: "", at: "" }) === JSON.stringify({ ...row, by: "", at: "" });
    return same ? old : { ...row, by, at };
  };
  return {
    ...after,
    defects: byFirst(before.defects, after.defects),
    dates: byFirst(before.dates, after.dates),
    firmware: after.firmware.map(decided),
  };
}

/** What people call the fields that they write, by their paths. */
export const WRITTEN_NAMES: Readonly<Record<string, string>> = {
  "typed.role": "Role",
  "typed.use": "Use",
  "typed.place": "Location",
  "typed.circuit": "Circuit",
  "typed.keys.setup": "Firmware setup key",
  "typed.keys.bootMenu": "Boot menu key",
  "typed.keys.network": "Network boot key",
  "typed.keys.seconds": "Boot-key prompt after power-on, s",
  "typed.bays": "Bays",
  "typed.defects": "Defects",
  "typed.firmware": "Accepted firmware settings",
  "typed.dates": "Dates",
  "typed.expected": "Delivery note",
  "typed.parameters": "Parameters",
  "typed.noise": "Noise",
  "typed.laptop.lid": "Lid of the laptop",
  "typed.laptop.sleep": "Sleep of the laptop",
  "typed.laptop.battery": "Battery of the laptop",
  "controller.present": "Management controller",
  "controller.address": "Address of the management controller",
  "controller.virtualMedia": "Virtual media",
  "controller.mediaBytesPerSecond": "Measured virtual media speed",
  "controller.loginKept": "Credential location",
  notes: "Notes",
};
