import type { Check, Evidence, Hit, Severity } from "../../finding";
import type { MachineDocument } from "../document";

/** A serial or MAC that another machine holds too. */
export interface Twin {
  kind: string;
  key: string;
  owner: string;
}

/** What the drive register knows of one drive of this machine that its facts do not tell. */
export interface DrivePast {
  driveId: string;
  /** The machine that it sat in before, when it has moved. */
  cameFrom: string | null;
  /** Hours at the move, to tell whether a self-test ran since. */
  hoursAtMove: number | null;
  /** Another machine whose facts hold it as present now. */
  alsoIn: string | null;
}

/** Load on the circuit that the machine is on, as computed beside it. */
export interface CircuitState {
  name: string;
  watts: number;
  limitWatts: number;
  machines: number;
  unread: number;
}

/** Everything that the rules about a machine may look at; nothing of any build. */
export interface MachineContext {
  now: string;
  /** The day that it is where the machine stands. */
  today: string;
  name: string;
  document: MachineDocument;
  rivals: readonly Twin[];
  pasts: readonly DrivePast[];
  circuit: CircuitState | null;
}

export type MachineCheck = Check<MachineContext>;

export const check = (
  code: string,
  zone: MachineCheck["zone"],
  run: (context: MachineContext) => Hit | Hit[] | null,
): MachineCheck => ({ code, zone, run: (context) => [run(context) ?? []].flat() });

/** A hit about the machine as a whole, or about one drive or port of it (`subject`). */
export const say = (
  severity: Severity,
  at: string,
  facts: Record<string, string>,
  shown: Evidence[],
  subject?: string,
): Hit => ({ severity, at, facts, evidence: shown, ...(subject !== undefined && { subject }) });

export const shows = (what: string, value: string, source: string): Evidence => ({ what, value, source });

/** Where a fact was read: "dmidecode, 2026-11-20", for evidence. */
export function readBy({ document }: MachineContext, path: string): string {
  const source = document.sources[path];
  return source ? `${source.tool}, ${source.at.slice(0, 10)}` : "imported";
}
