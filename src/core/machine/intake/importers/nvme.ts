import { z } from "zod";
import { ok, type Result } from "../../../result";
import { cleanText, parseShaped, plausibleBytes, plural, type Importer, type Reading } from "./importer";

const documentSchema = z.object({
  Devices: z.array(
    z.object({
      DevicePath: z.string(),
      Firmware: z.string().nullish(),
      ModelNumber: z.string().nullish(),
      SerialNumber: z.string().nullish(),
      PhysicalSize: z.number().nullish(),
      SectorSize: z.number().nullish(),
    }),
  ),
});

/** `nvme list -o json` (the flat form): NVMe drives with firmware and size. It prints nothing where there is none. */
export const nvmeList: Importer = {
  tool: "nvme list",
  command: "nvme list -o json",
  recognises: (text) => /^\s*\{\s*"Devices"\s*:/.test(text),
  parse(text): Result<Reading> {
    const parsed = parseShaped(text, documentSchema, "nvme list");
    if (!parsed.ok) return parsed;
    const drives = parsed.value.Devices.map((d) => ({
      serial: cleanText(d.SerialNumber),
      model: cleanText(d.ModelNumber),
      firmware: cleanText(d.Firmware),
      sizeBytes: plausibleBytes(d.PhysicalSize) || undefined,
      logicalSectorBytes: plausibleBytes(d.SectorSize),
      media: "nvme" as const,
      seenAs: cleanText(d.DevicePath.replace(/^\/dev\//, "")) ?? "?",
    }));
    return ok({ facts: { drives }, understood: plural(drives.length, "NVMe drive"), ignored: [] });
  },
};
