import { z } from "zod";
import { isAddress } from "./address";
import { holdsVlan, isVlanList } from "./vlans";

export const DEVICE_KINDS = [
  "switch",
  "router",
  "access point",
  "patch panel",
  "power strip",
  "controller",
  "printer",
  "other",
] as const;

/** What is known of the log-in that a device came with: "not asked" is no answer, and is never taken for one. */
export const LOG_INS = ["not asked", "default", "changed", "none"] as const;

/** The largest IP packet that goes through unbroken, in bytes: 576 is the least that RFC 791 asks for, 9216 the most in use. */
export const mtuSchema = z.number().int().min(576).max(9216);
const vlan = z.number().int().min(1).max(4094);

/** How a port of a switch treats frames. A port that nobody has described is not in the list. */
export const switchPortSchema = z.object({
  name: z.string().trim().min(1).max(40),
  mode: z.enum(["access", "trunk"]).default("access"),
  /** The VLAN of frames without a tag. Null: frames without a tag stay in the switch's one network, or are dropped on a trunk. */
  native: vlan.nullable().default(null),
  /** The VLANs whose tagged frames go through a trunk, as "20,30-39"; empty on an access port. */
  allowed: z.string().refine(isVlanList, "enter VLANs, for example 20, 30-39").default(""),
  /** The aggregation group that the port belongs to; empty for none. */
  group: z.string().trim().max(40).default(""),
  /** Whether the group is agreed with the other side (LACP, IEEE 802.1AX), or is simply switched on. */
  lacp: z.boolean().default(true),
  megabitsPerSecond: z.number().int().positive().nullable().default(null),
});
export type SwitchPort = z.infer<typeof switchPortSchema>;

/** A thing of a site that is no machine of Derrick: a switch, a router, a power strip, a printer. */
export const deviceSchema = z.object({
  id: z.string().min(1),
  name: z.string().trim().min(1, "enter a name"),
  kind: z.enum(DEVICE_KINDS).default("other"),
  address: z
    .string()
    .refine((a) => a === "" || isAddress(a), "not an IPv4 or IPv6 address")
    .default(""),
  place: z.string().max(80).default(""),
  logIn: z.enum(LOG_INS).default("not asked"),
  /** How many ports it has, named from 1; 0 where nobody counted them, or for a thing that has none. */
  portCount: z.number().int().min(0).max(512).default(0),
  mtu: mtuSchema.nullable().default(null),
  ports: z.array(switchPortSchema).default([]),
});
export type Device = z.infer<typeof deviceSchema>;

/** The names of all its ports: those that are counted, and those that are described under other names. */
export function portNames({ portCount, ports }: Pick<Device, "portCount" | "ports">): string[] {
  const counted = Array.from({ length: portCount }, (_, i) => String(i + 1));
  return [...counted, ...ports.map((p) => p.name).filter((name) => !counted.includes(name))];
}

export const switchPort = (device: Pick<Device, "ports">, name: string): SwitchPort | null =>
  device.ports.find((p) => p.name === name) ?? null;

/** How frames of a VLAN leave a port towards what hangs on it; null where they do not. Null asks for the network without VLANs. */
export function carries(port: SwitchPort, wanted: number | null): "untagged" | "tagged" | null {
  if (port.native === wanted) return port.mode === "trunk" && wanted === null ? null : "untagged";
  return port.mode === "trunk" && wanted !== null && holdsVlan(port.allowed, wanted) ? "tagged" : null;
}
