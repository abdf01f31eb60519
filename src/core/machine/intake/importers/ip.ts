import { z } from "zod";
import { ok, type Result } from "../../../result";
import type { Facts, Port } from "../../facts/facts";
import { cleanText, parseShaped, type Importer, type Observed, type Reading } from "./importer";

const addressSchema = z.object({
  family: z.enum(["inet", "inet6"]).or(z.string()),
  local: z.string().optional(),
  prefixlen: z.number().optional(),
  scope: z.string().optional(),
  dynamic: z.boolean().optional(),
});

const linkSchema = z.object({
  ifname: z.string(),
  link_type: z.string().optional(),
  address: z.string().optional(),
  permaddr: z.string().optional(),
  operstate: z.string().optional(),
  flags: z.array(z.string()).default([]),
  mtu: z.number().optional(),
  link: z.string().nullish(),
  master: z.string().nullish(),
  parentbus: z.string().optional(),
  parentdev: z.string().optional(),
  altnames: z.array(z.string()).optional(),
  linkinfo: z
    .object({
      info_kind: z.string().optional(),
      info_slave_data: z.object({ perm_hwaddr: z.string().optional() }).optional(),
    })
    .optional(),
  addr_info: z.array(addressSchema).optional(),
});
type Link = z.infer<typeof linkSchema>;

const VIRTUAL_NAME = /^(lo|br|bond|team|dummy|docker|veth|virbr|tap|tun|wg|vlan|ifb)\d*|[.@]/;

/** Why an interface is no port of the machine; null when it is one. */
function whyNoPort(link: Link): string | null {
  if (link.link_type !== "ether") return `link type ${link.link_type ?? "not reported"}`;
  if (link.linkinfo?.info_kind && !link.parentdev) return `a ${link.linkinfo.info_kind} (virtual interface)`;
  if (link.link) return `virtual, on ${link.link}`;
  if (link.flags.includes("MASTER")) return "a bond";
  if (!link.parentdev && VIRTUAL_NAME.test(link.ifname)) return "has the name of a virtual interface";
  return link.address ? null : "has no MAC address";
}

function toPort(link: Link): Partial<Port> & { mac: string } {
  return {
    // A port in a bond shows the bond's MAC; its own stands elsewhere.
    mac: (link.permaddr ?? link.linkinfo?.info_slave_data?.perm_hwaddr ?? link.address ?? "").toLowerCase(),
    seenAs: link.ifname,
    otherNames: link.altnames ?? [],
    kind: /^(wl|wlan)/.test(link.ifname) ? "wireless" : "ethernet",
    link: link.operstate === "UP" ? "up" : link.operstate === "DOWN" ? "down" : "unknown",
    pci: link.parentbus === "pci" ? (link.parentdev?.replace(/^0000:/, "") ?? null) : null,
    mtu: link.mtu ?? null,
    memberOf: link.master ?? null,
    addresses: link.addr_info?.flatMap((a) =>
      a.local === undefined || a.prefixlen === undefined
        ? []
        : [
            {
              family: a.family === "inet6" ? ("ipv6" as const) : ("ipv4" as const),
              address: a.local,
              prefixLength: a.prefixlen,
              scope: a.scope ?? "unknown",
              dynamic: a.dynamic ?? false,
            },
          ],
    ),
  };
}

/** Addresses of every interface, bonds and bridges too: where a system answers is not always a bare port. */
function addressesOf(links: Link[]): NonNullable<Facts["system"]>["addresses"] {
  return links.flatMap((link) =>
    (link.addr_info ?? []).flatMap((a) =>
      a.local !== undefined && a.prefixlen !== undefined && a.scope === "global"
        ? [
            {
              interface: link.ifname,
              address: a.local,
              prefixLength: a.prefixlen,
              dynamic: a.dynamic ?? false,
            },
          ]
        : [],
    ),
  );
}

function parseLinks(text: string, tool: string): Result<Reading> {
  const parsed = parseShaped(text, z.array(linkSchema), tool);
  if (!parsed.ok) return parsed;
  const reasons = parsed.value.map((link) => ({ link, why: whyNoPort(link) }));
  const ports = reasons.filter((r) => r.why === null).map((r) => toPort(r.link));
  return ok({
    facts: {
      ports,
      ...(text.includes('"addr_info"') && { system: { addresses: addressesOf(parsed.value) } }),
    },
    understood: `${ports.length} ${ports.length === 1 ? "port" : "ports"}, ${ports.filter((p) => p.link === "up").length} with link`,
    ignored: reasons.filter((r) => r.why !== null).map((r) => `${r.link.ifname}: ${r.why}`),
    complete: { ports: true },
  });
}

const startsLikeLinks = (text: string): boolean => /^\s*\[\s*\{[^{}]*"ifname"\s*:/.test(text.slice(0, 4000));

/** `ip -j address`: ports with their addresses. */
export const ipAddress: Importer = {
  tool: "ip address",
  command: "ip -j address",
  recognises: (text) => startsLikeLinks(text) && text.includes('"addr_info"'),
  parse: (text) => parseLinks(text, "ip address"),
};

/** `ip -j link`, better with -d: PCI place, permanent MAC, and what is made in software. */
export const ipLink: Importer = {
  tool: "ip link",
  command: "ip -j -d link",
  recognises: (text) => startsLikeLinks(text) && !text.includes('"addr_info"'),
  parse: (text) => parseLinks(text, "ip link"),
};

const routeSchema = z.object({ dst: z.string(), gateway: z.string().optional(), dev: z.string().optional() });

/** `ip -j route`: the default gateway; all else follows from the addresses. */
export const ipRoute: Importer = {
  tool: "ip route",
  command: "ip -j route",
  recognises: (text) => /^\s*\[\s*(\{[^{}]*"dst"\s*:|\]\s*$)/.test(text.slice(0, 4000)),
  parse(text): Result<Reading> {
    const parsed = parseShaped(text, z.array(routeSchema), "ip route");
    if (!parsed.ok) return parsed;
    const gateway = cleanText(parsed.value.find((r) => r.dst === "default")?.gateway);
    const facts: Observed = { system: { gateway } };
    return ok({
      facts,
      understood: gateway ? `default gateway ${gateway}` : "no default gateway",
      ignored: [],
    });
  },
};
