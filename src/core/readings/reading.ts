import { own } from "../text";
import { z } from "zod";
import type { Facts } from "../machine";

/** What is measured, and in what: the unit is part of the kind, so that no figure is without one. */
export const READING_KINDS = {
  power: { unit: "W", words: "power" },
  temperature: { unit: "°C", words: "temperature" },
  clock: { unit: "MHz", words: "clock rate" },
  fan: { unit: "rpm", words: "fan speed" },
  disk: { unit: "MB/s", words: "disk rate" },
  network: { unit: "Mbit/s", words: "network rate" },
} as const;
export type ReadingKind = keyof typeof READING_KINDS;

export const readingSchema = z.object({
  at: z.iso.datetime(),
  by: z.string().max(120),
  kind: z.enum(["power", "temperature", "clock", "fan", "disk", "network"]),
  /** What was measured: "at the wall", "processor", "port eno1". */
  what: z.string().trim().min(1, "enter what was measured").max(160),
  state: z.enum(["idle", "loaded", "not told"]),
  value: z.number(),
  limit: z.number().nullable().default(null),
  source: z.string().max(120),
  /** Under which load and for how long, so that the next one can be taken alike. */
  how: z.string().max(200).default(""),
});
export type Reading = z.infer<typeof readingSchema>;

/** Ranges outside which a typed number is a slip: a kilowatt written as watts, a reading in another unit. */
const PLAUSIBLE: Record<ReadingKind, readonly [least: number, most: number]> = {
  power: [0, 20_000],
  temperature: [-40, 130],
  clock: [100, 8000],
  fan: [0, 40_000],
  disk: [0.1, 60_000],
  network: [0.1, 800_000],
};

/** Why a reading cannot be right, or null. */
export function readingProblem({ kind, value }: Pick<Reading, "kind" | "value">): string | null {
  const [least, most] = PLAUSIBLE[kind];
  if (Number.isFinite(value) && value >= least && value <= most) return null;
  const { unit, words } = READING_KINDS[kind];
  return `${value} ${unit} is not plausible for ${words}: the range is ${least} to ${most} ${unit}. Check the unit.`;
}

const SENSOR_KINDS = { temperature: "temperature", fan: "fan", power: "power" } as const;

/** Readings that an import brought: temperatures, fans and power of the sensors, and the temperature of each drive. */
export function readingsOf(facts: Facts, at: string, by: string, state: Reading["state"]): Reading[] {
  const sensors = facts.sensors.flatMap((s): Reading[] => {
    const kind = own(SENSOR_KINDS, s.kind);
    if (kind === undefined) return [];
    const reading = {
      at,
      by,
      kind,
      what: s.id,
      state,
      value: s.value,
      limit: s.max ?? s.critical,
      source: "sensors",
      how: "",
    };
    return readingProblem(reading) === null ? [reading] : [];
  });
  const drives = facts.drives.flatMap((d): Reading[] => {
    const value = d.health?.temperatureC;
    return value === null || value === undefined || d.missingSince !== null
      ? []
      : [
          {
            at,
            by,
            kind: "temperature",
            what: `drive ${d.id}`.slice(0, 160),
            state,
            value,
            limit: null,
            source: "smartctl",
            how: "",
          },
        ];
  });
  return [...sensors, ...drives];
}

/** The newest reading for each thing measured and state. */
export function latestReadings(readings: readonly Reading[]): Reading[] {
  const newest = new Map<string, Reading>();
  for (const r of readings) {
    const key = `${r.kind}\n${r.what}\n${r.state}`;
    const known = newest.get(key);
    if (!known || known.at <= r.at) newest.set(key, r);
  }
  return [...newest.values()];
}

/** Idle and loaded watts of the whole machine: the newest of each; "not told" stands in for idle when nothing else does. */
export function powerOf(readings: readonly Reading[]): { idle: Reading | null; loaded: Reading | null } {
  const power = latestReadings(readings.filter((r) => r.kind === "power")).sort((a, b) =>
    a.at.localeCompare(b.at),
  );
  const of = (state: Reading["state"]): Reading | null =>
    power.filter((r) => r.state === state).at(-1) ?? null;
  return { idle: of("idle") ?? of("not told"), loaded: of("loaded") };
}
