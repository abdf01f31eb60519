import type { Cable, Wiring } from "./cable";
import { carries, switchPort, type SwitchPort } from "./device";
import type { Segment } from "./segment";

/** The segments whose frames go through a port, with or without a tag. One that has no VLAN is told by no port. */
export const segmentsOfPort = (port: SwitchPort, segments: readonly Segment[]): Segment[] =>
  segments.filter((s) => s.vlan !== null && carries(port, s.vlan) !== null);

/** The segments that a cable carries: those that both of its ends let through, as far as they are described. */
export function segmentsOfCable(
  { devices }: Pick<Wiring, "devices">,
  segments: readonly Segment[],
  { a, b }: Cable,
): Segment[] {
  const ports = [a, b].flatMap((end) => {
    if (!("device" in end)) return [];
    const device = devices.find((d) => d.id === end.device);
    return (device && switchPort(device, end.port)) ?? [];
  });
  return ports.length === 0
    ? []
    : segments.filter((s) => ports.every((p) => segmentsOfPort(p, segments).includes(s)));
}
