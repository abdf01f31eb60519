import { z } from "zod";

/** Everywhere beyond the site; the other ends of a service are its segments. */
export const OUTSIDE = "outside";

/** Ways to reach a machine from elsewhere, the least exposed first. What comes later is considered after what comes before. */
export const WAYS_IN = [
  "at its console",
  "by its controller",
  "inside the site",
  "VPN or overlay",
  "relay in front",
] as const;
export type WayIn = (typeof WAYS_IN)[number];

/** Services that administrators open by name: their port, and whether they manage the machine. */
export const KNOWN_SERVICES = [
  { name: "SSH", port: 22, protocol: "tcp", manages: true },
  { name: "web console", port: 443, protocol: "tcp", manages: true },
  { name: "web page", port: 443, protocol: "tcp", manages: false },
  { name: "remote desktop", port: 3389, protocol: "tcp", manages: true },
  { name: "file share", port: 445, protocol: "tcp", manages: false },
  { name: "NFS", port: 2049, protocol: "tcp", manages: false },
  { name: "iSCSI", port: 3260, protocol: "tcp", manages: false },
  { name: "metrics", port: 9100, protocol: "tcp", manages: false },
  { name: "time", port: 123, protocol: "udp", manages: false },
] as const;

/** A service that this machine answers with, and who may reach it. */
export const serviceSchema = z.object({
  name: z.string().trim().max(60),
  protocol: z.enum(["tcp", "udp"]).default("tcp"),
  port: z.number().int().min(1).max(65_535),
  /** Who may reach it: ids of segments, and "outside". */
  from: z.array(z.string()).default([]),
  /** It gives power over the machine: a shell, a console, its settings. */
  manages: z.boolean().default(false),
  logIn: z.enum(["not told", "none", "password", "key"]).default("not told"),
  why: z.string().max(200).default(""),
  /** The day on which it is closed to the outside again. */
  until: z.iso.date().nullable().default(null),
  /** For each way that is less exposed, why it will not do; a way without a word was not considered. */
  insteadOf: z.partialRecord(z.enum(WAYS_IN), z.string().max(200)).default({}),
  /** What was tried against it before it was opened, and on which day. */
  hardened: z
    .object({ on: z.iso.date(), how: z.string().max(200) })
    .nullable()
    .default(null),
});
export type Service = z.infer<typeof serviceSchema>;

export const isOpenOutside = (service: Service): boolean => service.from.includes(OUTSIDE);

/** "SSH, 22/tcp". */
export const serviceWords = ({ name, port, protocol }: Pick<Service, "name" | "port" | "protocol">): string =>
  `${name || "service"}, ${port}/${protocol}`;

/** The ways, in order of exposure, of which nobody has said why they will not do. */
export const waysNotConsidered = ({ insteadOf }: Service): WayIn[] =>
  WAYS_IN.filter((way) => (insteadOf[way] ?? "").trim() === "");
