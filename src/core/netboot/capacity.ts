import type { Figure, FigureInput } from "../estimate";
import { addSeconds, formatBytes } from "../units";
import type { Arming } from "./arming";
import type { ArmingState } from "./state";

/** What the server of the boot service can give, in bytes a second. */
export interface ServerRates {
  /** Of its link, as somebody told; null where nobody did. */
  link: number | null;
  /** At which it reads images from its disk; null where nobody told, and it then counts for nothing. */
  disk: number | null;
}

/** 1 Gbit/s, which a server without anything better has. */
const USUAL_LINK = 125e6;
/** Of a link, what files get: the rest is frames, addresses and acknowledgements (1 Gbit/s gives about 110 MB/s). */
const FILE_SHARE = 0.88;
/** What one machine takes where nothing tells how much its installer reads: bound by its own drive. */
const USUAL_EACH = 8e6;

/** Bytes a second that one machine takes while it installs itself: what it reads, spread over the time that takes. */
export const eachTakes = ({ reads }: Pick<Arming, "reads">): number =>
  reads && reads.bytes > 0 && reads.seconds > 0 ? reads.bytes / reads.seconds : USUAL_EACH;

const perSecond = (rate: number): string => `${formatBytes(rate)}/s`;

const most = ({ link, disk }: ServerRates): number =>
  Math.min((link ?? USUAL_LINK) * FILE_SHARE, disk ?? Infinity);

/** How many machines like this one the server feeds at once, with the working; at least one. */
export function atOnceFigure(rates: ServerRates, arming: Pick<Arming, "reads">): Figure {
  const each = eachTakes(arming);
  const inputs: FigureInput[] = [
    {
      name: "network link of the server",
      value: perSecond(rates.link ?? USUAL_LINK),
      source: rates.link === null ? "default" : "typed",
    },
    {
      name: "its disk",
      value: rates.disk === null ? "unknown, and not counted" : perSecond(rates.disk),
      source: rates.disk === null ? "default" : "typed",
    },
    { name: "rate per machine", value: perSecond(each), source: arming.reads ? "computed" : "default" },
  ];
  return {
    value: Math.max(1, Math.floor(most(rates) / each)),
    unit: "machines",
    formula: `minimum of ${FILE_SHARE} × link and disk ÷ rate per machine, rounded down`,
    inputs,
  };
}

/** Seconds until so many machines are installed, in rounds of as many as go at once. */
export const roundsSeconds = (machines: number, atOnce: number, each: number): number =>
  Math.ceil(machines / atOnce) * each;

/** Seconds until the last of so many machines has its turn: the rounds before its own. */
export const lastTurnSeconds = (machines: number, atOnce: number, each: number): number =>
  roundsSeconds(machines, atOnce, each) - each;

/**
 * Machines whose time is likely over before their turn: behind those that were given their script, the others go in rounds of so
 * many, in the order in which they were armed, each round as long as the installation of one.
 */
export function outOfTime<T extends { arming: Arming; state: ArmingState }>(
  open: readonly T[],
  atOnce: number,
  now: string,
): T[] {
  const fed = open.filter(({ state }) => isFed(state)).length;
  return open
    .filter(({ state }) => !state.reached.script)
    .toSorted((a, b) => (a.arming.at < b.arming.at ? -1 : 1))
    .filter(({ arming }, i) => {
      const turn = lastTurnSeconds(fed + i + 1, atOnce, arming.likelySeconds);
      return addSeconds(now, turn) > arming.until;
    });
}

/** A machine that was given its script takes from the server until it is installed; one that is late may stand still. */
export const isFed = ({ status, reached, lateSince }: ArmingState): boolean =>
  (status === "fetching" || status === "installing") && !reached["first boot"] && lateSince === null;

/**
 * Why a machine that asks has to wait for others, or null: what those take that are fed now, with what it takes itself, is more
 * than the server gives. One is always fed, and one that was given its script before goes on.
 */
export function waitsFor(
  rates: ServerRates,
  own: { arming: Arming; state: ArmingState },
  others: readonly { arming: Arming; state: ArmingState }[],
): string | null {
  if (own.state.reached.script) return null;
  const fed = others.filter(({ state }) => isFed(state));
  const taken = fed.reduce((sum, { arming }) => sum + eachTakes(arming), 0);
  if (fed.length === 0 || taken + eachTakes(own.arming) <= most(rates)) return null;
  return `Queued: ${fed.length} ${fed.length === 1 ? "machine is" : "machines are"} being installed, which is the limit of this server.`;
}
