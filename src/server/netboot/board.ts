import type { Figure } from "@/core/estimate";
import {
  atOnceFigure,
  isClosed,
  type Arming,
  type ArmingState,
  type ArmingWalk,
  type ServerRates,
} from "@/core/netboot";
import { parsePrefix } from "@/core/network";
import { addSeconds } from "@/core/units";
import { bootRows, machineRows, siteRows, type Db, type Tx } from "@/db";
import type { Desk } from "../desk";
import { readEnvironment } from "../environment";
import { armingsOf, standingsIn, standingsOf } from "./standing";

/** A row of the board: one arming and how far its machine is. */
export interface BoardRow {
  id: string;
  buildId: string;
  arming: Arming;
  state: ArmingState;
}

export interface Board {
  /** Where the boot service listens; null while it is off. */
  url: string | null;
  rows: BoardRow[];
  /** How many were armed before those, and are over. */
  older: number;
  /** Who asked and was never armed, with the machine that it is by its MAC; null for one that nobody knows. */
  strangers: (Awaited<ReturnType<typeof bootRows.strangers>>[number] & {
    machine: { id: string; name: string } | null;
  })[];
  /** How many MACs asked so, where only the newest are listed; null where all are. */
  strangersInAll: number | null;
  /** Sites at which one of them can be made a machine. */
  sites: { id: string; name: string }[];
  /** IPv4 networks of the sites where network boot is on, by their first address and their length. */
  networks: { network: string; prefix: string }[];
  /** How many machines like the next one the server feeds at once; null where none is armed. */
  atOnce: Figure | null;
  now: string;
}

/** What this server gives to machines that install themselves, as its environment tells. */
export function serverRates(): ServerRates {
  const { DERRICK_BOOT_LINK: link, DERRICK_BOOT_DISK: disk } = readEnvironment();
  return { link: link ? (link * 1e6) / 8 : null, disk: disk ? disk * 1e6 : null };
}

/**
 * So long an arming counts after its end: what began shortly before it may be under way, and one that failed calls for a person
 * on Today. An installation that takes longer is late, and takes nothing from the server.
 */
const AFTER_SECONDS = 24 * 3600;
const sinceOf = (now: string): string => addSeconds(now, -AFTER_SECONDS);

/** Machines, other than one, that were given their script and may be fed by this server now. */
export async function othersGiven(db: Db | Tx, id: string, now: string): Promise<BoardRow[]> {
  const ids = (await bootRows.givenIds(db, sinceOf(now))).filter((other) => other !== id);
  const given = await armingsOf(db, ids);
  return rowsOf(given, await standingsIn(db, given), now);
}

/** So many are listed whatever came of them; those whose time is not over are listed all. */
const [MOST_ROWS, MOST_STRANGERS] = [200, 50];
/** As many as are kept: each has asked at least once. */
export const ALL_STRANGERS = 2000;

const rowsOf = (
  armings: readonly bootRows.ArmingRow[],
  standings: ReadonlyMap<string, ArmingWalk>,
  now: string,
): BoardRow[] =>
  armings.map(({ id, buildId, arming }) => ({
    ...{ id, buildId, arming },
    state: standings.get(id)!.at(now),
  }));

/** Machines that install themselves now, or came to a bad end since yesterday, of each the newest arming. */
export async function installing(desk: Desk): Promise<BoardRow[]> {
  const now = desk.now();
  const armings = await armingsOf(desk.db, await bootRows.newestIds(desk.db, MOST_ROWS, sinceOf(now)));
  const newest = armings.filter((a, i) => armings.findIndex((b) => b.machineId === a.machineId) === i);
  return rowsOf(newest, await standingsOf(desk.db, newest), now).filter(
    ({ state, arming }) =>
      !isClosed(state) ||
      ((state.status === "failed" || state.status === "expired") && arming.until > sinceOf(now)),
  );
}

/** Machines that are armed and, after them, those that were, newest first, and those that asked and are armed by nobody, the newest or so many of them. */
export async function bootBoard(desk: Desk, mostStrangers = MOST_STRANGERS): Promise<Board> {
  const now = desk.now();
  const armings = await armingsOf(desk.db, await bootRows.newestIds(desk.db, MOST_ROWS, sinceOf(now)));
  const inAll = await bootRows.count(desk.db);
  const listed = rowsOf(armings, await standingsOf(desk.db, armings), now);
  // Those that may still install themselves stand first, whatever came of newer ones.
  const rows = [false, true].flatMap((isOver) => listed.filter(({ state }) => isClosed(state) === isOver));
  const open = rows.find(({ state }) => !isClosed(state));
  const sites = await siteRows.all(desk.db);
  const asked = await bootRows.strangers(desk.db, mostStrangers);
  const machines = await machineRows.byMacs(
    desk.db,
    asked.map(({ mac }) => mac),
  );
  const strangers = asked.map((one) => ({ ...one, machine: machines.get(one.mac) ?? null }));
  return {
    ...{ url: readEnvironment().DERRICK_BOOT_URL ?? null, rows, now, older: inAll - armings.length },
    atOnce: open ? atOnceFigure(serverRates(), open.arming) : null,
    strangersInAll: asked.length < mostStrangers ? null : await bootRows.strangersInAll(desk.db),
    strangers: strangers.filter(({ machine }) => !armings.some((row) => row.machineId === machine?.id)),
    sites: sites.map(({ id, site }) => ({ id, name: site.name })),
    networks: sites
      .filter(({ site }) => site.networkBoot === "on")
      .flatMap(({ site }) => site.segments)
      .flatMap(({ prefix }) => {
        const parsed = parsePrefix(prefix);
        return parsed?.family === "ipv4" ? [{ network: parsed.network, prefix }] : [];
      }),
  };
}
