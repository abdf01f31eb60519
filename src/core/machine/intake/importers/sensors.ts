import { z } from "zod";
import { ok, type Result } from "../../../result";
import { own } from "../../../text";
import type { Sensor } from "../../facts/facts";
import { cleanText, parseShaped, plural, type Importer, type Reading } from "./importer";

const chipSchema = z.record(z.string(), z.union([z.string(), z.record(z.string(), z.number().nullable())]));
const documentSchema = z.record(z.string(), chipSchema);

const KINDS: Record<string, Sensor["kind"]> = {
  temp: "temperature",
  fan: "fan",
  in: "voltage",
  power: "power",
  curr: "current",
};

/** What chips report for a sensor that is not wired: -128 and 127.5 degrees come from open inputs. */
const isWired = (kind: Sensor["kind"], value: number): boolean =>
  kind !== "temperature" || (value > -60 && value < 127);

/** `sensors -j`: temperatures, fans, voltages, power, each with the limits that the chip states. */
export const sensors: Importer = {
  tool: "sensors",
  command: "sensors -j",
  recognises: (text) => /^\s*\{\s*"[^"]+"\s*:\s*\{\s*"Adapter"\s*:/.test(text),
  parse(text): Result<Reading> {
    const parsed = parseShaped(text, documentSchema, "sensors");
    if (!parsed.ok) return parsed;
    const ignored: string[] = [];
    const found = Object.entries(parsed.value).flatMap(([chip, features]) =>
      Object.entries(features).flatMap(([label, values]): Sensor[] => {
        if (typeof values === "string") return [];
        const input = Object.keys(values).find((k) => /_(input|average)$/.test(k));
        const kind = own(KINDS, /^[a-z]+/.exec(input ?? "")?.[0] ?? "");
        const value = input ? values[input] : null;
        if (!kind || value === null || value === undefined) return [];
        const id = cleanText(`${chip} ${label}`) ?? chip;
        if (!isWired(kind, value)) {
          ignored.push(`${id}: ${value}, an unconnected input`);
          return [];
        }
        const limit = (name: string): number | null => {
          const entry = Object.entries(values).find(([k]) => k.endsWith(`_${name}`))?.[1];
          // Chips report 0 for a limit that nobody has set, and temperatures of absolute zero.
          return entry === undefined || entry === null || entry === 0 || entry < -200 ? null : entry;
        };
        return [{ id, kind, value, max: limit("max"), critical: limit("crit"), min: limit("min") }];
      }),
    );
    return ok({
      facts: { sensors: found },
      understood: `${plural(found.length, "measurement")} of ${plural(Object.keys(parsed.value).length, "chip")}`,
      ignored,
      complete: { sensors: true },
    });
  },
};
