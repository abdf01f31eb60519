import { factsOf, type OnMachine, type Port } from "../machine";
import type { Wiring } from "./cable";
import type { Segment } from "./segment";
import type { NetworkSlice } from "./slice";

/** What the network of a machine is planned from: the sheet, the machine, and the site at which it stands. */
export interface PlannedOn extends OnMachine {
  sheet: { network: NetworkSlice };
  /** Where the machine stands: its networks, the things that are no machines, and the cables. */
  site: ({ name: string; segments: readonly Segment[] } & Wiring) | null;
}

/** What the rules about addresses and ports look at. */
export interface NetworkGround extends PlannedOn {
  /** The day that it is where the machine stands. */
  today: string;
  /** Who else holds what this sheet claims; `here` at the same site. */
  rivals: readonly { kind: string; key: string; owner: string; here: boolean }[];
}

/** The port of the machine that the sheet has chosen; null when it is not among the facts. */
export const portOf = (ground: OnMachine & { sheet: { network: { port: string | null } } }): Port | null =>
  factsOf(ground)?.ports.find((p) => p.mac === ground.sheet.network.port) ?? null;

export const segmentOf = ({ sheet, site }: Pick<NetworkGround, "sheet" | "site">): Segment | null =>
  site?.segments.find((s) => s.id === sheet.network.segment) ?? null;
