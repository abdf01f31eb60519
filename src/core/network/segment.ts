import { z } from "zod";
import { contains, isAddress, parsePrefix } from "./address";
import { mtuSchema } from "./device";

const address = z.string().refine(isAddress, { message: "not an IPv4 or IPv6 address" });

/** One network of a site: prefix, gateway, name servers, and the ranges that its DHCP server hands out by itself. */
export const segmentSchema = z
  .object({
    id: z.string().min(1),
    name: z.string().min(1),
    purpose: z.enum(["management", "uplink", "storage", "guests", "isolated lab"]),
    vlan: z.number().int().min(1).max(4094).nullable().default(null),
    prefix: z
      .string()
      .refine((p) => parsePrefix(p) !== null, { message: "enter a subnet, for example 10.61.10.0/24" }),
    gateway: address.nullable().default(null),
    nameServers: z.array(address).default([]),
    mtu: mtuSchema.nullable().default(null),
    dhcp: z.array(z.object({ from: address, to: address })).default([]),
    /** From which servers get their addresses here; null: from all that is free. */
    servers: z.object({ from: address, to: address }).nullable().default(null),
    reservations: z.array(z.object({ mac: z.string(), address, name: z.string() })).default([]),
  })
  .refine((s) => s.gateway === null || contains(s.prefix, s.gateway), {
    message: "the gateway is outside the subnet",
    path: ["gateway"],
  })
  .refine((s) => s.dhcp.every((r) => contains(s.prefix, r.from) && contains(s.prefix, r.to)), {
    message: "a DHCP range is outside the subnet",
    path: ["dhcp"],
  })
  .refine((s) => !s.servers || (contains(s.prefix, s.servers.from) && contains(s.prefix, s.servers.to)), {
    message: "the range for servers is outside the subnet",
    path: ["servers"],
  });

export type Segment = z.infer<typeof segmentSchema>;
