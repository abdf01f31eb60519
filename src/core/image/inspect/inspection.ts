import { z } from "zod";

export const ANSWERS = ["boots", "on some firmware", "does not"] as const;
export const FIRMWARES = ["legacy", "x64", "ia32", "aa64"] as const;

export const cellSchema = z.object({ answer: z.enum(ANSWERS), reason: z.string() });
const rowSchema = z.object({ legacy: cellSchema, x64: cellSchema, ia32: cellSchema, aa64: cellSchema });

export const regionSchema = z.object({
  name: z.string(),
  kind: z.enum(["boot", "table", "description", "files", "partition", "beyond", "missing", "unknown"]),
  offset: z.number().nonnegative(),
  length: z.number().nonnegative(),
});

/** What was found inside an image file; kept with the image, so that a build can use it without the file. */
export const inspectionSchema = z.object({
  sizeBytes: z.number().nonnegative(),
  /** What it is, in words. */
  kind: z.string(),
  volumeId: z.string().nullable(),
  made: z.string(),
  udf: z.boolean(),
  joliet: z.string().nullable(),
  /** What is wrong with the file; a cut-off image may still boot. */
  faults: z.array(z.object({ message: z.string(), grave: z.boolean() })),
  verdict: z.object({ optical: rowSchema, stick: rowSchema }),
  loaders: z.array(
    z.object({
      path: z.string(),
      arch: z.string().nullable(),
      where: z.string(),
      /** Null where it was not read: files that were looked into before, and programs without a sound header. */
      signed: z.boolean().nullable().default(null),
      /** Whose name the signature carries; it is read, and not verified. */
      signer: z.string().nullable().default(null),
    }),
  ),
  regions: z.array(regionSchema),
  bytesRead: z.number().nonnegative(),
});

export type Inspection = z.infer<typeof inspectionSchema>;
export type Cell = z.infer<typeof cellSchema>;
export type Region = z.infer<typeof regionSchema>;
export type Firmware = (typeof FIRMWARES)[number];
