import { z } from "zod";
import type { Item } from "@/core/record";

export const HEAD = "derrick-archive.json";
export const MANIFEST = "manifest.json";

export const headSchema = z.object({
  format: z.literal("derrick-archive"),
  version: z.literal(1),
  exportedAt: z.iso.datetime(),
});

/** Stands last: what was written, so that a cut-off or altered archive is known before anything of it is used. */
export const manifestSchema = z.object({
  files: z.array(z.object({ name: z.string(), bytes: z.number().int(), sha256: z.string() })),
});

const part = (text: string): string => encodeURIComponent(text).replaceAll("*", "%2A");

/** The file of an archive that holds an item. It is a name to read, never a path to write to. */
export function fileOf(item: Item): string {
  switch (item.kind) {
    case "profile":
      return `profiles/${part(item.key)}/${part(item.version)}/${item.edition}.json`;
    case "drive":
      return `drives/${part(item.key)}.json`;
    case "readings":
      return `readings/${part(item.machineId)}.json`;
    case "transfer":
    case "time":
      return `${item.kind}s/${part(item.runId)}/${part(item.step)}.json`;
    case "damaged":
      return `damaged/${item.of}/${part(item.id)}.json`;
    default:
      return `${item.kind}s/${part(item.id)}.json`;
  }
}
