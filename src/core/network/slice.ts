import { z } from "zod";
import { isHostKey } from "./host-key";
import { interfaceSchema } from "./interface";
import { serviceSchema } from "./service";

const word = z.string().max(400).default("");

/** By which port, in which segment and under which address the machine is reached, and what stands on its ports. */
export const networkSlice = z.object({
  port: z.string().nullable().default(null),
  segment: z.string().nullable().default(null),
  school: z.enum(["fixed", "reserved", "dynamic"]).default("fixed"),
  address: word,
  gateway: word,
  nameServers: z.array(z.string()).default([]),
  /** For "dynamic now, fixed later": the day by which it is fixed. */
  fixedBy: z.iso.date().nullable().default(null),
  /** The interface that has the management address, by its name; null for the port itself. */
  carrier: z.string().nullable().default(null),
  interfaces: z.array(interfaceSchema).max(64).default([]),
  services: z.array(serviceSchema).max(64).default([]),
  /** Public host keys, kind and base64, as the console printed them; what is no such key is not kept. */
  hostKeys: z.array(z.string().max(1000).refine(isHostKey, "is not a public host key")).max(8).default([]),
});
export type NetworkSlice = z.infer<typeof networkSlice>;
