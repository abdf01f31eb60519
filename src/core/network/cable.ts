import { z } from "zod";
import type { Device, SwitchPort } from "./device";
import { switchPort } from "./device";

/** Where a cable ends: in a port of a machine, which its MAC tells apart, or in a port of a device. */
export const cableEndSchema = z.union([
  z.object({ mac: z.string().min(1).max(40) }).strict(),
  z.object({ device: z.string().min(1), port: z.string().trim().min(1).max(40) }).strict(),
]);
export type CableEnd = z.infer<typeof cableEndSchema>;

export const cableSchema = z.object({
  id: z.string().min(1),
  a: cableEndSchema,
  b: cableEndSchema,
  lengthMetres: z.number().positive().max(100_000).nullable().default(null),
  /** What stands on it; empty for the label that Derrick makes. */
  label: z.string().max(80).default(""),
});
export type Cable = z.infer<typeof cableSchema>;

/** One text for each place in which a cable can be: two cables with one of them are in one hole. */
export const endKey = (end: CableEnd): string =>
  "mac" in end ? `mac ${end.mac.toLowerCase()}` : `${end.device} ${end.port}`;

/** The cables of a site with its devices, as rules look at them. */
export interface Wiring {
  devices: readonly Device[];
  cables: readonly Cable[];
}

/** The device and the port that the cable of a machine's port leads to; null where no cable is planned, or it leads to no device. */
export interface FarPort {
  device: Device;
  name: string;
  /** Null: the port is there, and nobody has said how it is set. */
  port: SwitchPort | null;
  cable: Cable;
}

/** Where the cable in a machine's port leads. Patch panels are gone through, from a port to the other cable in it. */
export function farPort({ devices, cables }: Wiring, mac: string): FarPort | null {
  let from: CableEnd = { mac };
  for (const passed = new Set<string>(); ;) {
    const cable: Cable | undefined = cables.find(
      (c) => !passed.has(c.id) && [c.a, c.b].some((end) => endKey(end) === endKey(from)),
    );
    if (!cable) return null;
    const far: CableEnd = endKey(cable.a) === endKey(from) ? cable.b : cable.a;
    if (!("device" in far)) return null;
    const device = devices.find((d) => d.id === far.device);
    if (!device) return null;
    if (device.kind !== "patch panel")
      return { device, name: far.port, port: switchPort(device, far.port), cable };
    passed.add(cable.id);
    from = far;
  }
}

/** How an end is called, by the names of devices and of machines' ports. */
export type EndNames = (end: CableEnd) => string;

/** The label for each end of a cable: this end first, then where the other is; both name both, so that neither misleads. */
export function cableLabels(cable: Cable, nameOf: EndNames): { atA: string; atB: string } {
  const [a, b] = [nameOf(cable.a), nameOf(cable.b)];
  const mark = cable.label ? `${cable.label}: ` : "";
  return { atA: `${mark}${a} to ${b}`, atB: `${mark}${b} to ${a}` };
}
