import type { Arming, ArmingState } from "@/core/netboot";

export interface BoardLine {
  id: string;
  buildId: string;
  /** Without the serial, which is asked for one page further. */
  arming: Pick<Arming, "build" | "until" | "timeZone"> & { machine: { id: string; name: string } };
  state: ArmingState;
}

/** What of an arming goes to a page. */
export function boardLine(row: {
  id: string;
  buildId: string;
  arming: Arming;
  state: ArmingState;
}): BoardLine {
  const { id, buildId, arming, state } = row;
  const { build, until, timeZone, machine } = arming;
  return {
    ...{ id, buildId, state },
    arming: { build, until, timeZone, machine: { id: machine.id, name: machine.name } },
  };
}
