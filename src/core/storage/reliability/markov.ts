/** Drives that fail at a constant rate, in equal and independent groups. */
export interface Reliability {
  /** Members of a group, and how many of them may be lost. */
  members: number;
  tolerates: number;
  groups: number;
  /** Share of drives that fail in a year, such as 0.02. */
  afr: number;
  /** Mean hours until a failed drive is replaced and rebuilt. */
  repairHours: number;
  /** Whether failed drives of a group are rebuilt at the same time, or one after the other. */
  repair: "parallel" | "serial";
  /** Chance that a bit cannot be read, such as 1e-15; null leaves it out. */
  bitErrors: number | null;
  driveBytes: number;
}

const YEAR_HOURS = 8760;

/** Mean hours to the failure of a drive: failures of a year are 1 - exp(-hours / mean). */
export const meanHours = (afr: number): number => -YEAR_HOURS / Math.log1p(-afr);

/** Chance that a rebuild without any redundancy left meets a sector that cannot be read, reading all others in full. */
export const unreadable = ({ bitErrors, driveBytes, members, tolerates }: Reliability): number =>
  bitErrors === null || tolerates < 1
    ? 0
    : -Math.expm1(8 * driveBytes * (members - tolerates) * Math.log1p(-bitErrors));

/** Rates of a group with j drives lost: one more fails, one is repaired, and a repair ends in loss. */
interface Rates {
  fails: number[];
  repaired: number[];
  lost: number[];
}

function ratesOf(model: Reliability): Rates {
  const { members: n, tolerates: p, repairHours, repair } = model;
  const rate = 1 / meanHours(model.afr);
  const u = unreadable(model);
  const states = Array.from({ length: p + 1 }, (_, j) => j);
  const mend = (j: number): number => (j === 0 ? 0 : (repair === "parallel" ? j : 1) / repairHours);
  return {
    fails: states.map((j) => (n - j) * rate),
    repaired: states.map((j) => mend(j) * (j === p ? 1 - u : 1)),
    lost: states.map((j) => (j === p ? mend(j) * u : 0)),
  };
}

/**
 * Mean hours to the loss of data in one group: with a(j) the mean time from j lost to j + 1 lost or worse, worked upwards
 * without subtractions, so that nothing cancels.
 */
export function hoursToLoss(model: Reliability): number {
  const { fails, repaired, lost } = ratesOf(model);
  const p = model.tolerates;
  // From state j the time to reach j + 1: (1 + repaired * time from j - 1 to j) / (fails + what ends in loss at once).
  let up = 0;
  let total = 0;
  for (let j = 0; j <= p; j += 1) {
    up = (1 + repaired[j]! * up) / (fails[j]! + lost[j]!);
    total += up;
  }
  return total;
}

type Matrix = number[][];

function multiply(a: Matrix, b: Matrix): Matrix {
  const n = a.length;
  const product: Matrix = [];
  for (let i = 0; i < n; i += 1) {
    const row: number[] = [];
    for (let j = 0; j < n; j += 1) {
      let sum = 0;
      for (let k = 0; k < n; k += 1) sum += a[i]![k]! * b[k]![j]!;
      row.push(sum);
    }
    product.push(row);
  }
  return product;
}

/** With an event at the most expected in a step, what lies behind so many of them is below the digits of a double. */
const MOST_EVENTS = 20;

/**
 * Chance that data are lost within some years. The chain of a group is uniformised over a step so short that few events
 * fall into it, and the step's matrix is squared up to the whole time; loss is summed by itself, so tiny chances keep their digits.
 */
export function lossWithin(model: Reliability, years: number): number {
  if (years <= 0) return 0;
  const { fails, repaired, lost } = ratesOf(model);
  const size = model.tolerates + 2;
  const end = size - 1;
  const fastest = Math.max(...fails.map((f, j) => f + repaired[j]! + lost[j]!)) * 1.000001;
  const hours = years * YEAR_HOURS;
  const squarings = Math.max(0, Math.ceil(Math.log2(fastest * hours)) + 1);
  const events = (fastest * hours) / 2 ** squarings;
  const jump: Matrix = Array.from({ length: size }, (_, i) => {
    const row = Array<number>(size).fill(0);
    if (i === end) row[end] = 1;
    else {
      row[i + 1]! += fails[i]! / fastest;
      if (i > 0) row[i - 1]! += repaired[i]! / fastest;
      row[end]! += lost[i]! / fastest;
      row[i]! += 1 - (fails[i]! + repaired[i]! + lost[i]!) / fastest;
    }
    return row;
  });
  let step: Matrix = jump.map((row) => row.map(() => 0));
  let power: Matrix = jump.map((row, i) => row.map((_, j) => (i === j ? 1 : 0)));
  let weight = Math.exp(-events);
  for (let n = 0; n < MOST_EVENTS; n += 1) {
    step = step.map((row, i) => row.map((v, j) => v + weight * power[i]![j]!));
    power = multiply(power, jump);
    weight *= events / (n + 1);
  }
  for (let i = 0; i < squarings; i += 1) step = multiply(step, step);
  const one = step[0]![end]!;
  return -Math.expm1(model.groups * Math.log1p(-Math.min(one, 1)));
}

/** The usual estimate of the mean hours to loss, which knows no unreadable sectors and no second order. */
export function naiveHours({ members, tolerates, groups, afr, repairHours, repair }: Reliability): number {
  let down = 1;
  let faculty = 1;
  for (let j = 0; j <= tolerates; j += 1) down *= members - j;
  for (let j = 2; j <= tolerates; j += 1) faculty *= j;
  const mean = meanHours(afr) ** (tolerates + 1);
  return ((mean / (down * repairHours ** tolerates)) * (repair === "parallel" ? faculty : 1)) / groups;
}
