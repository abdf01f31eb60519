import type { Figure } from "../estimate";
import { judgeDrive, presentDrives, type MachineDocument } from "../machine";
import { latestReadings, powerOf, readingWords, type Reading } from "../readings";
import { formatFixed, formatBinaryBytes, secondsBetween, formatMoney } from "../units";
import { payBack, yearlyCost, yearlyEnergy, type Running, type Tariff } from "./cost";

export interface Point {
  weighs: "for" | "against" | "unknown";
  words: string;
  figure: Figure | null;
}

/** What a machine is judged by: its own facts and readings, and what it would be replaced with. */
export interface VerdictInput {
  document: MachineDocument;
  readings: readonly Reading[];
  now: string;
  tariff: Tariff | null;
  loadedShare: number;
  /** What else could do the job: its running and its price. */
  /** The price is null where nobody gave one: then nothing is said of when it pays. */
  other: { name: string; running: Running; price: number | null } | null;
  wantsPassThrough: boolean;
  memoryWantedBytes: number | null;
}

export interface Verdict {
  verdict: "worth using" | "with conditions" | "not worth it" | "not enough known";
  sentence: string;
  points: Point[];
}

const OLD_YEARS = 7;
const PAY_BACK_MONTHS = 36;
const YEAR_SECONDS = 31_557_600;
const TIGHT_KELVINS = 10;

/** Idle and loaded watts as a running; a machine read only idle is taken to draw the same under load, and says so. */
export function runningOf(readings: readonly Reading[], loadedShare: number): Running | null {
  const { idle, loaded } = powerOf(readings);
  if (!idle && !loaded) return null;
  const source = (r: Reading | null): Running["idleSource"] =>
    r === null ? "default" : r.source === "typed" ? "typed" : "imported";
  return {
    idleWatts: (idle ?? loaded)?.value ?? 0,
    loadedWatts: (loaded ?? idle)?.value ?? 0,
    loadedShare,
    idleSource: source(idle),
    loadedSource: source(loaded),
  };
}

/**
 * Clock under load of all cores for each watt: a rough figure for the work that a watt does, good for comparing
 * machines of one kind and no others. Null until both were read under load.
 */
export function workPerWatt(readings: readonly Reading[], cores: number | null): Figure | null {
  const clock = latestReadings(readings).find((r) => r.kind === "clock" && r.state === "loaded");
  const { loaded } = powerOf(readings);
  if (!clock || !loaded || !cores) return null;
  const source = (r: Reading) => (r.source === "typed" ? ("typed" as const) : ("imported" as const));
  return {
    value: (clock.value * cores) / loaded.value,
    unit: "MHz per watt",
    formula: "clock under load × cores ÷ watts under load; compare only similar machines",
    inputs: [
      { name: "clock under load", value: readingWords(clock), source: source(clock) },
      { name: "cores", value: String(cores), source: "imported" },
      { name: "watts under load", value: readingWords(loaded), source: source(loaded) },
    ],
  };
}

/**
 * Judges whether a machine is worth using for a job. Two points against, or one that no money mends (a failing drive,
 * a pass-through group that cannot be parted), make it not worth it; one makes conditions; without a power reading and
 * a temperature there is not enough known.
 */
export function judgeMachine(input: VerdictInput): Verdict {
  const points = [...powerPoints(input), ...heatPoints(input), ...agePoints(input), ...partPoints(input)];
  const against = points.filter((p) => p.weighs === "against");
  const unknown = points.filter((p) => p.weighs === "unknown");
  const measured =
    input.readings.some((r) => r.kind === "power") && input.readings.some((r) => r.kind === "temperature");
  const verdict: Verdict["verdict"] =
    !measured && against.length < 2
      ? "not enough known"
      : against.length >= 2
        ? "not worth it"
        : against.length === 1 || unknown.length > 0
          ? "with conditions"
          : "worth using";
  const reasons = (against.length > 0 ? against : unknown).map((p) => p.words);
  const because = reasons.length > 0 ? `: ${reasons.slice(0, 3).join("; ")}` : "";
  const open: Record<Verdict["verdict"], string> = {
    "worth using": "Worth using",
    "with conditions": "Usable with conditions",
    "not worth it": "Not worth it for this job",
    "not enough known": "Not enough data",
  };
  return { verdict, sentence: `${open[verdict]}${because}.`, points };
}

function powerPoints({ readings, tariff, loadedShare, other }: VerdictInput): Point[] {
  const running = runningOf(readings, loadedShare);
  if (!running) return [{ weighs: "unknown", words: "its power draw was not measured", figure: null }];
  const energy = yearlyEnergy(running);
  if (!tariff)
    return [
      {
        weighs: "unknown",
        words: `it uses ${formatFixed(energy.value, 0)} kWh per year; the site has no electricity tariff`,
        figure: energy,
      },
    ];
  const cost = yearlyCost(running, tariff);
  const runs = `it costs ${formatMoney(cost.value, tariff.currency)} per year to run`;
  if (!other) return [{ weighs: "for", words: runs, figure: cost }];
  const cheaper = yearlyCost(other.running, tariff).value < cost.value;
  if (cheaper && !other.price)
    return [
      {
        weighs: "unknown",
        words: `${runs}, more than ${other.name}, whose price is unknown: the payback time is unknown`,
        figure: cost,
      },
    ];
  const months = payBack(running, other.running, other.price ?? 0, tariff);
  if (!months) return [{ weighs: "for", words: `${runs}, not more than ${other.name}`, figure: cost }];
  const heavy = months.value <= PAY_BACK_MONTHS;
  return [
    {
      weighs: heavy ? "against" : "for",
      words: `${runs}; ${other.name} would pay off in ${Math.ceil(months.value)} months`,
      figure: months,
    },
  ];
}

function heatPoints({ readings }: VerdictInput): Point[] {
  const hot = readings
    .filter((r) => r.kind === "temperature" && r.limit !== null)
    .map((r) => ({ r, margin: (r.limit ?? 0) - r.value }))
    .sort((a, b) => a.margin - b.margin)[0];
  if (!hot)
    return readings.some((r) => r.kind === "temperature")
      ? []
      : [{ weighs: "unknown", words: "its temperature was not measured", figure: null }];
  const figure: Figure = {
    value: hot.margin,
    unit: "K to the limit",
    formula: "limit − measurement",
    inputs: [
      { name: "limit", value: `${hot.r.limit} °C`, source: hot.r.source === "typed" ? "typed" : "imported" },
      {
        name: `measurement (${hot.r.what}, ${hot.r.state})`,
        value: readingWords(hot.r),
        source: hot.r.source === "typed" ? "typed" : "imported",
      },
    ],
  };
  return [
    hot.margin < TIGHT_KELVINS
      ? {
          weighs: "against",
          words: `${hot.r.what} is at ${readingWords(hot.r)}, ${formatFixed(hot.margin, 0)} K below its limit`,
          figure,
        }
      : {
          weighs: "for",
          words: `${formatFixed(hot.margin, 0)} K margin at the hottest sensor (${hot.r.what})`,
          figure,
        },
  ];
}

function agePoints({ document: { facts }, now, memoryWantedBytes }: VerdictInput): Point[] {
  const points: Point[] = [];
  const date = facts.firmware?.releaseDate ?? "";
  const match = /(\d{4})/.exec(date);
  const years = match ? secondsBetween(`${match[1]}-07-01T00:00:00.000Z`, now) / YEAR_SECONDS : null;
  if (years !== null && years >= OLD_YEARS)
    points.push({
      weighs: "against",
      words: `its latest firmware is from ${match?.[1]}, ${Math.floor(years)} years ago`,
      figure: null,
    });
  const memory = facts.memory?.installedBytes ?? facts.memory?.recognisedBytes;
  if (memoryWantedBytes !== null && memory)
    points.push({
      weighs: memory < memoryWantedBytes ? "against" : "for",
      words: `${formatBinaryBytes(memory)} of memory, ${formatBinaryBytes(memoryWantedBytes)} required`,
      figure: null,
    });
  return points;
}

function partPoints({ document, wantsPassThrough }: VerdictInput): Point[] {
  const { facts, typed } = document;
  const failing = presentDrives(facts).filter((d) => judgeDrive(d).verdict === "failing");
  const points: Point[] = failing.map((d) => ({
    weighs: "against",
    words: `drive ${d.id} is failing (${judgeDrive(d).reasons[0]})`,
    figure: null,
  }));
  for (const defect of typed.defects.filter((d) => d.mendedOn === null))
    points.push({
      // A dead lamp or socket is a nuisance; a fault in what every guest leans on is a reason.
      weighs: ["power", "temperature", "memory", "drives", "network"].includes(defect.affects)
        ? "against"
        : "unknown",
      words: `known defect: ${defect.what}`,
      figure: null,
    });
  if (wantsPassThrough) points.push(...passThroughPoints(document));
  return points;
}

const DISPLAY = /^03/;
/** Bridges and the host's own devices share groups with everything and are never given away. */
const NOT_GIVEN = /^(06|0806|0c05)/;

/** Graphics devices that cannot be given to a guest alone, because another device stands in their IOMMU group. */
function passThroughPoints({ facts }: MachineDocument): Point[] {
  const displays = facts.pci.filter((p) => DISPLAY.test(p.classId));
  if (facts.processors?.iommu === false || facts.pci.every((p) => p.iommuGroup === null))
    return [
      {
        weighs: facts.processors?.iommu === false ? "against" : "unknown",
        words:
          facts.processors?.iommu === false
            ? "it has no IOMMU groups, so PCI pass-through is not possible"
            : "its IOMMU groups were not collected",
        figure: null,
      },
    ];
  return displays.flatMap((d): Point[] => {
    if (d.iommuGroup === null) return [];
    const function0 = d.slot.replace(/\.\d$/, "");
    const others = facts.pci.filter(
      (p) =>
        p.iommuGroup === d.iommuGroup && !p.slot.startsWith(`${function0}.`) && !NOT_GIVEN.test(p.classId),
    );
    return [
      others.length > 0
        ? {
            weighs: "against",
            words: `${d.device} shares IOMMU group ${d.iommuGroup} with ${others.map((o) => o.device).join(", ")}`,
            figure: null,
          }
        : { weighs: "for", words: `${d.device} is alone in IOMMU group ${d.iommuGroup}`, figure: null },
    ];
  });
}
