import { formatFixed, formatMoney } from "../units";
import type { Figure, FigureInput } from "../estimate";

/** Hours of a mean year (365.25 days). */
const YEAR_HOURS = 8766;
/** British thermal units an hour for one watt: the unit in which room coolers are sold. */
const BTU_PER_WATT = 3.412;

/** How a machine runs: watts idle and loaded, and the share of the time under load. */
export interface Running {
  idleWatts: number;
  loadedWatts: number;
  loadedShare: number;
  idleSource: FigureInput["source"];
  loadedSource: FigureInput["source"];
}

export interface Tariff {
  perKilowattHour: number;
  currency: string;
}

const watts = (n: number): string => `${formatFixed(n, n < 10 ? 1 : 0)} W`;

/** Mean power: idle × (1 − share) + loaded × share. */
export function meanPower(run: Running): Figure {
  return {
    value: run.idleWatts * (1 - run.loadedShare) + run.loadedWatts * run.loadedShare,
    unit: "W",
    formula: "idle × (1 − share of time under load) + under load × share of time under load",
    inputs: [
      { name: "idle", value: watts(run.idleWatts), source: run.idleSource },
      { name: "under load", value: watts(run.loadedWatts), source: run.loadedSource },
      { name: "share of time under load", value: `${Math.round(run.loadedShare * 100)} %`, source: "typed" },
    ],
  };
}

/** Energy of a year of running without pause, in kWh. */
export function yearlyEnergy(run: Running): Figure {
  const mean = meanPower(run);
  return {
    value: (mean.value * YEAR_HOURS) / 1000,
    unit: "kWh per year",
    formula: "mean power × 8766 h ÷ 1000",
    inputs: [{ name: "mean power", value: watts(mean.value), source: "computed" }, ...mean.inputs],
  };
}

export function yearlyCost(run: Running, tariff: Tariff): Figure {
  const energy = yearlyEnergy(run);
  return {
    value: energy.value * tariff.perKilowattHour,
    unit: "per year",
    currency: tariff.currency,
    formula: "energy per year × tariff",
    inputs: [
      { name: "energy per year", value: `${formatFixed(energy.value, 0)} kWh`, source: "computed" },
      { name: "tariff", value: `${tariff.perKilowattHour} ${tariff.currency}/kWh`, source: "typed" },
      ...energy.inputs,
    ],
  };
}

/** All that a machine draws becomes heat in the room. */
export function heat(run: Running): Figure {
  const mean = meanPower(run);
  return {
    value: mean.value * BTU_PER_WATT,
    unit: "BTU/h",
    formula: "mean power × 3.412 BTU/h per W",
    inputs: [{ name: "mean power", value: watts(mean.value), source: "computed" }],
  };
}

/**
 * Months after which the cheaper running of another machine has paid its price; null when it does not run cheaper.
 * Interest, repairs and the value of the old machine are left out, and the formula says so.
 */
export function payBack(own: Running, other: Running, price: number, tariff: Tariff): Figure | null {
  const [mine, theirs] = [yearlyCost(own, tariff), yearlyCost(other, tariff)];
  const saved = mine.value - theirs.value;
  if (saved <= 0) return null;
  return {
    value: (price / saved) * 12,
    unit: "months",
    formula: "price ÷ (cost per year − cost per year of the other) × 12; without interest and repairs",
    inputs: [
      { name: "price", value: formatMoney(price, tariff.currency), source: "typed" },
      { name: "cost per year", value: formatMoney(mine.value, tariff.currency), source: "computed" },
      {
        name: "cost per year of the other",
        value: formatMoney(theirs.value, tariff.currency),
        source: "computed",
      },
    ],
  };
}
