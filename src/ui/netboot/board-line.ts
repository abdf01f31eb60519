import { ipxeMedium, type Arming, type ArmingState } from "@/core/netboot";

export interface BoardLine {
  id: string;
  buildId: string;
  /** Without the serial, which is asked for one page further. */
  arming: Pick<Arming, "build" | "until" | "timeZone"> & { machine: { id: string; name: string } };
  state: ArmingState;
  /** What the machine has to show; "" where nothing is asked. */
  code: string;
  /** A script for a boot medium that carries the code; "" without one. */
  medium: string;
}

/** What of an arming goes to a page. */
export function boardLine(
  row: { id: string; buildId: string; arming: Arming; state: ArmingState },
  url: string | null,
): BoardLine {
  const { id, buildId, arming, state } = row;
  const { build, until, timeZone, machine, code } = arming;
  return {
    ...{ id, buildId, state, code },
    medium: code && url ? ipxeMedium(url, code) : "",
    arming: { build, until, timeZone, machine: { id: machine.id, name: machine.name } },
  };
}
