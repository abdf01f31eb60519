import { z } from "zod";
import { durationSchema, figureSchema, rateSampleSchema } from "../estimate";
import { zoneSchema } from "../finding";

/** What stands before a destructive step: the operator types the tail of the serial that the console shows. */
export const guardSchema = z.object({
  expect: z.string(),
  asks: z.string(),
  target: z.string(),
  /** Drives that must not be named: typing one of these tails stops the run with the drive's name. */
  leaveAlone: z.array(z.object({ tail: z.string(), name: z.string(), holds: z.string() })),
});

/** What is true once a step is done; absent parts stay as they were. */
export const effectSchema = z.object({
  power: z.enum(["on", "off"]).optional(),
  media: z.string().optional(),
  nextBoot: z.string().optional(),
  target: z.enum(["untouched", "at risk", "erased", "installed"]).optional(),
});

export const stepSchema = z.object({
  id: z.string(),
  zone: zoneSchema,
  kind: z.enum(["act", "type", "wait", "confirm", "guard", "read"]),
  place: z.enum(["desk", "console", "at the machine"]),
  title: z.string(),
  see: z.array(z.string()),
  never: z.array(z.string()),
  do: z.array(z.string()),
  type: z.array(z.object({ label: z.string(), value: z.string() })),
  secret: z.array(z.string()),
  keys: z.string(),
  expected: z.array(z.object({ looks: z.string(), means: z.string() })),
  hazards: z.array(z.string()),
  guard: guardSchema.nullable(),
  duration: durationSchema,
  figure: figureSchema.nullable(),
  /** What is read or written through the medium meanwhile; the time it takes is measured in the run and learned. */
  moves: z
    .object({ way: rateSampleSchema.shape.way, through: z.string(), bytes: z.number().positive() })
    .nullable()
    .default(null),
  after: effectSchema,
});

export type Step = z.infer<typeof stepSchema>;
export type Guard = z.infer<typeof guardSchema>;
export type Effect = z.infer<typeof effectSchema>;
