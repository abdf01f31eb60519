/** What a second boot device is worth is worked out from; prices in one currency, whichever. */
export interface Worth {
  /** Failures of one device in a year, such as 0.05. */
  failuresPerYear: number;
  /** Price of a day without the machine. */
  dayPrice: number;
  /** Price of the second device. */
  devicePrice: number;
  /** Days until a failed device of a pair is replaced. */
  replacedWithinDays: number;
}

export interface WorthAnswer {
  /** Expected loss in a year with one device, and with two. */
  single: number;
  pair: number;
  /** Years until the second has paid for itself; null where it never does. */
  paidAfterYears: number | null;
}

const DAYS = 365;

/**
 * One failed device costs a day. Of a pair, the other must fail as well before the first is replaced: failures are taken as
 * independent and rare, so that happens failures x failures x days / 365 times a year for each of both.
 */
export function secondDevice({
  failuresPerYear,
  dayPrice,
  devicePrice,
  replacedWithinDays,
}: Worth): WorthAnswer {
  const single = failuresPerYear * dayPrice;
  const pair = 2 * failuresPerYear * ((failuresPerYear * replacedWithinDays) / DAYS) * dayPrice;
  const saved = single - pair;
  return { single, pair, paidAfterYears: saved > 0 ? devicePrice / saved : null };
}
