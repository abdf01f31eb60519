import { z } from "zod";
import { defineDocument, type Path, type ValueAt } from "../document";
import { waiverSchema } from "../finding";
import { STAGES } from "./stages";

type Both<U> = (U extends unknown ? (one: U) => void : never) extends (all: infer I) => void ? I : never;
type Slices = Both<(typeof STAGES)[number]["slice"]>;

const slices = Object.assign({}, ...STAGES.map((s) => s.slice)) as Slices;

/** The decisions of a build, stage by stage. It holds choices only; facts stay with the machine and the image. */
export const sheetSchema = z.object({
  schemaVersion: z.literal(1),
  subject: z.string().max(200).default(""),
  ...slices,
  waivers: z.array(waiverSchema).default([]),
});
export type Sheet = z.infer<typeof sheetSchema>;
/** A field of the sheet, such as "network.address". */
export type SheetPath = Path<Sheet>;
/** New values by their fields. */
export type SheetChanges = { [P in SheetPath]?: ValueAt<Sheet, P> };
export const sheetDocument = defineDocument({ kind: "build", version: 1, schema: sheetSchema, upgrades: {} });

export const emptySheet = (): Sheet => sheetSchema.parse({ schemaVersion: 1 });
