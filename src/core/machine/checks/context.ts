import { hit, rulesOver, type Check, type Evidence, type Severity } from "../../finding";
import type { MachineDocument } from "../facts/document";
import { sourceWords } from "../document/on-machine";
import { MACHINE_MESSAGES } from "./messages.en";

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
  /** Its time zone. */
  timeZone: string;
  name: string;
  document: MachineDocument;
  rivals: readonly Twin[];
  pasts: readonly DrivePast[];
  circuit: CircuitState | null;
}

/** Where a rule about a machine points: at the machine of a sheet, or at the drives that it may be installed on. */
type At = "machine.id" | "storage.target" | "network.port";

export type MachineCheck = Check<MachineContext, At>;
const rulesIn = rulesOver<MachineContext, At>();
/** Rules about the machine itself, its drives and its ports. */
export const check = rulesIn("A", MACHINE_MESSAGES);
export const driveCheck = rulesIn("D", MACHINE_MESSAGES);
export const portCheck = rulesIn("E", MACHINE_MESSAGES);

/** A hit about the machine as a whole, or about one drive or port of it (`subject`). */
export const say = <Where extends At, Facts extends Readonly<Record<string, string>>>(
  severity: Severity,
  at: Where,
  facts: Facts,
  shown: Evidence[],
  subject?: string,
) => ({ ...hit(severity, at, facts, ...shown), ...(subject !== undefined && { subject }) });

/** Where a fact was read: "dmidecode, 2026-11-20", for evidence. */
export const readBy = (machine: MachineContext, path: string): string => sourceWords({ machine }, path);
