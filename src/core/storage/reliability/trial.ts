import { uniformFloat64 } from "pure-rand/distribution/uniformFloat64";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";
import { meanHours, unreadable, type Reliability } from "./markov";

/** What a trial is made of: the model of the chain, and where it goes beyond that. */
export interface Trial {
  model: Reliability;
  years: number;
  seed: number;
  /** While a group has lost a drive its others fail this many times as often: drives of one batch. 1 is none. */
  batch: number;
  /** Repairs take their mean each time, as a drive that is copied does, or are spread as the chain has them. */
  repairs: "even" | "spread";
}

/** How many of so many systems have lost data, with the bounds of that share at 95 %. */
export interface TrialResult {
  runs: number;
  losses: number;
  share: number;
  from: number;
  to: number;
}

/** What a thread beside a page does with a trial; `told` is called with the result so far. */
export interface TrialThread {
  run(trial: Trial, runs: number, told: (soFar: TrialResult) => void): void;
}

const YEAR_HOURS = 8760;
const Z95 = 1.959963984540054;

/** Bounds of a share at 95 %, good for few events too (Wilson's score interval). */
export function shareBounds(losses: number, runs: number): { from: number; to: number } {
  if (runs === 0) return { from: 0, to: 1 };
  const p = losses / runs;
  const z2 = Z95 ** 2 / runs;
  const middle = (p + z2 / 2) / (1 + z2);
  const half = (Z95 / (1 + z2)) * Math.sqrt((p * (1 - p)) / runs + z2 / (4 * runs));
  return {
    from: losses === 0 ? 0 : Math.max(0, middle - half),
    to: losses === runs ? 1 : Math.min(1, middle + half),
  };
}

/** Systems after each other, each event drawn; the same seed gives the same losses. */
export class Trials {
  private readonly next: () => number;
  private readonly rate: number;
  private readonly unreadable: number;
  private runs = 0;
  private losses = 0;

  constructor(private readonly trial: Trial) {
    const generator = xoroshiro128plus(trial.seed);
    this.next = () => uniformFloat64(generator);
    this.rate = 1 / meanHours(trial.model.afr);
    this.unreadable = unreadable(trial.model);
  }

  /** Runs so many more systems. */
  run(count: number): TrialResult {
    for (let i = 0; i < count; i += 1) if (this.loses()) this.losses += 1;
    this.runs += count;
    const { runs, losses } = this;
    return { runs, losses, share: losses / runs, ...shareBounds(losses, runs) };
  }

  private loses(): boolean {
    for (let g = 0; g < this.trial.model.groups; g += 1) if (this.groupLoses()) return true;
    return false;
  }

  private after(mean: number): number {
    return -mean * Math.log1p(-this.next());
  }

  private repairTime(): number {
    const { repairHours } = this.trial.model;
    return this.trial.repairs === "even" ? repairHours : this.after(repairHours);
  }

  /** One group until its data are lost or the years are over; `mended` holds when each lost drive is back. */
  private groupLoses(): boolean {
    const { members, tolerates, repair } = this.trial.model;
    const end = this.trial.years * YEAR_HOURS;
    const mended: number[] = [];
    let now = 0;
    for (;;) {
      const lost = mended.length;
      const fails = (members - lost) * this.rate * (lost > 0 ? this.trial.batch : 1);
      const failure = now + this.after(1 / fails);
      const back = mended[0] ?? Infinity;
      now = Math.min(failure, back);
      if (now >= end) return false;
      if (back <= failure) {
        // With nothing left to spare, the rebuild that ends here had to read everything.
        if (lost === tolerates && this.next() < this.unreadable) return true;
        mended.shift();
      } else {
        if (lost === tolerates) return true;
        const starts = repair === "serial" ? (mended.at(-1) ?? now) : now;
        mended.push(starts + this.repairTime());
        mended.sort((a, b) => a - b);
      }
    }
  }
}
