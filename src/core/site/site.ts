import { z } from "zod";
import { defineDocument, valueAt } from "../document";
import { isTimeZone, namePatternProblem } from "../identity";
import { ROLES, type Typed } from "../machine";
import { cableSchema, deviceSchema, isAddress, segmentSchema, sourceProblem } from "../network";
import { parametersSchema } from "../parameter";
import { dayIn } from "../units";

/** An address of packages or of a proxy: one that holds a password is not kept. */
const source = z
  .string()
  .max(300)
  .superRefine((text, context) => {
    const problem = sourceProblem(text);
    if (problem) context.addIssue({ code: "custom", message: problem });
  });

/** A place with machines: its networks, its usual answers, and the link by which remote consoles reach it. */
export const siteSchema = z.object({
  schemaVersion: z.literal(2),
  name: z.string().trim().min(1, "a site needs a name"),
  room: z.string().default(""),
  timeZone: z
    .string()
    .refine(isTimeZone, "is not a time zone of the IANA list; examples: Europe/London, UTC")
    .default("UTC"),
  locale: z.string().default("en_GB.UTF-8"),
  keyboard: z.string().default("gb"),
  domain: z.string().default(""),
  /** The school that this site follows for server addresses. */
  addressSchool: z.enum(["fixed", "reserved"]).default("fixed"),
  segments: z.array(segmentSchema).default([]),
  /** Things that are no machines of Derrick: switches, controllers, printers. */
  devices: z.array(deviceSchema).max(2000).default([]),
  cables: z.array(cableSchema).max(5000).default([]),
  link: z
    .object({
      bitsPerSecond: z.number().positive(),
      /** Null where nobody typed it. */
      roundTripSeconds: z.number().positive().nullable().default(null),
    })
    .nullable()
    .default(null),
  /** Circuits with the load that the site's own electrician allows on each. */
  circuits: z
    .array(z.object({ name: z.string().trim().min(1), limitWatts: z.number().positive() }))
    .default([]),
  tariff: z
    .object({ perKilowattHour: z.number().positive(), currency: z.string().trim().min(1).max(8) })
    .nullable()
    .default(null),
  /** By which proxy packages are fetched, and where those of a family are taken from; without a password. */
  proxy: source.default(""),
  sources: z
    .array(
      z.object({ family: z.string().trim().min(1, "enter an OS family by its key").max(80), url: source }),
    )
    .max(100)
    .default([]),
  /** Whether Derrick's boot service answers machines of this site. */
  networkBoot: z.enum(["off", "on"]).default("off"),
  /** Values that commands and the words of a kernel may name at this site. */
  parameters: parametersSchema.default([]),
  /** How hosts are called at this site, for machines of a role or for all of them: "wrk-hv#", "tho-@". */
  naming: z
    .array(
      z.object({
        role: z.enum(ROLES).nullable().default(null),
        pattern: z
          .string()
          .max(80)
          .superRefine((pattern, context) => {
            const problem = namePatternProblem(pattern);
            if (problem) context.addIssue({ code: "custom", message: problem });
          }),
      }),
    )
    .max(50)
    .default([]),
  /** How firmware is set at this site, for machines of a role or for all of them. */
  firmware: z
    .array(
      z.object({
        role: z.enum(ROLES).nullable().default(null),
        /** Key of a setting that Derrick knows. */
        setting: z.string().max(40),
        value: z.string().max(80),
        why: z.string().max(200).default(""),
      }),
    )
    .max(200)
    .default([]),
  notes: z.string().default(""),
});

export type Site = z.infer<typeof siteSchema>;

/** In the first version there were only addresses, with what has them. What was no address stands in the name. */
function devicesOf(occupied: unknown): object[] {
  const rows: unknown[] = Array.isArray(occupied) ? occupied : [];
  return rows.map((row, i) => {
    const [written, name] = [String(valueAt(row, "address") ?? ""), String(valueAt(row, "what") ?? "")];
    return isAddress(written)
      ? { id: `device-${i + 1}`, name: name.trim() || "unnamed", address: written }
      : { id: `device-${i + 1}`, name: `${name} ${written}`.trim() || "unnamed" };
  });
}

export const siteDocument = defineDocument({
  ...{ kind: "site", version: 2, schema: siteSchema },
  upgrades: {
    1: ({ occupied, ...site }) => ({ ...site, schemaVersion: 2, devices: devicesOf(occupied) }),
  },
});

/** How a site wants a setting on a machine of a role: what is said of the role goes before what is said of all. */
export const firmwareRule = (site: Site | null, role: Typed["role"], setting: string) => {
  const rules = (site?.firmware ?? []).filter((r) => r.setting === setting && r.value.trim() !== "");
  return rules.find((r) => r.role !== null && r.role === role) ?? rules.find((r) => r.role === null) ?? null;
};

/** The day that it is at a site; without one, in UTC. A date that is due is due there, whatever the day elsewhere. */
export const dayAt = (site: Site | null, iso: string): string => dayIn(iso, site?.timeZone ?? "UTC");

/** The earliest day that it is at any of some sites: what is over on it is over at all of them. */
export const dayEverywhere = (sites: readonly Site[], iso: string): string =>
  sites.map((s) => dayAt(s, iso)).sort()[0] ?? dayAt(null, iso);

export const emptySite = (name: string): Site => siteSchema.parse({ schemaVersion: 2, name });
