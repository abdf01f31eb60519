import { isOneOf, keysOf } from "../../text";
import { z } from "zod";

/** Formats of network files that Derrick writes, under the names that administrators call them by. */
export const NETWORK_FORMATS = ["netplan", "systemd-networkd", "interfaces", "key files", "rc.conf"] as const;
export type NetworkFormat = (typeof NETWORK_FORMATS)[number];

/** What the lines of a tool may name; each is filled in as one word of a shell, whatever it is. */
export const COMMAND_WORDS = {
  save: ["file"],
  restore: ["file"],
  bond: ["name", "mode"],
  bondPort: ["name", "port"],
  bridge: ["name"],
  bridgeAware: ["name", "vlans"],
  bridgePort: ["name", "port"],
  vlan: ["name", "parent", "vlan"],
  switch: ["name"],
  uplink: ["name", "port"],
  mtu: ["name", "mtu"],
  group: ["name", "group"],
  groupVlan: ["group", "vlan"],
  address: ["name", "address", "length", "mask"],
  dynamic: ["name"],
  gateway: ["gateway"],
  names: ["servers"],
} as const;
export type CommandKind = keyof typeof COMMAND_WORDS;

const line = (kind: CommandKind) =>
  z
    .string()
    .min(1)
    .max(200)
    .refine((text) => !/[\r\n]/.test(text), "must be one line")
    .refine(
      (text) => [...text.matchAll(/\{(\w+)\}/g)].every(([, word]) => isOneOf(COMMAND_WORDS[kind], word)),
      `may contain ${COMMAND_WORDS[kind].map((w) => `{${w}}`).join(", ")}`,
    )
    .optional();

const kinds = keysOf(COMMAND_WORDS);

/** How the network of this family is written down: the files that it reads, the usual first, and the lines of its own tool. */
export const networkProfileSchema = z
  .object({
    files: z.array(z.enum(NETWORK_FORMATS)).default([]),
    commands: z
      .object(
        Object.fromEntries(kinds.map((k) => [k, line(k)])) as Record<CommandKind, ReturnType<typeof line>>,
      )
      .strict()
      .default({}),
  })
  .strict();
export type NetworkProfile = z.infer<typeof networkProfileSchema>;
