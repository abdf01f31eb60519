// Plans of networks that reach every branch of the writers, and strings that no file may run.
import type { HostPlan, LinkPlan, SitePlan } from "@/core/network";
import { segmentSchema } from "@/core/network";

const MACS = ["02:61:0a:00:14:01", "02:61:0a:00:14:02", "02:61:0a:00:14:03"];
const none = { mtu: null, address: null };
const port = (i: number, more: Partial<LinkPlan> = {}): LinkPlan =>
  ({ kind: "port", name: `eno${i + 1}`, mac: MACS[i]!, ...none, ...more }) as LinkPlan;
const fixed = (address: string, length: number, gateway: string | null, nameServers: string[] = []) =>
  ({ address: { how: "fixed", address, length, gateway, nameServers } }) as const;
const V4 = fixed("10.61.10.20", 24, "10.61.10.1", ["10.61.10.2", "10.61.10.3"]);
const V6 = fixed("fd61:7a1e::20", 64, "fd61:7a1e::1", ["fd61:7a1e::2"]);
const bond = (mode: string, more: object = {}): LinkPlan =>
  ({
    kind: "bond",
    name: "bond0",
    members: ["eno1", "eno2"],
    mode,
    hash: "layer3+4",
    ...none,
    ...more,
  }) as LinkPlan;
const vlan = (id: number, parent: string, more: object = {}): LinkPlan =>
  ({ kind: "vlan", name: `${parent}.${id}`, parent, vlan: id, ...none, ...more }) as LinkPlan;
const bridge = (members: string[], more: object = {}): LinkPlan =>
  ({
    kind: "bridge",
    name: "br0",
    members,
    vlanAware: false,
    vlans: "10 20 30",
    ...none,
    ...more,
  }) as LinkPlan;
const host = (...links: LinkPlan[]): HostPlan => ({ hostName: "wrk-hv1", domain: "marrowby.example", links });

export const HOST_PLANS: Record<string, HostPlan> = {
  "a fixed address": host(port(0, V4)),
  "an address by DHCP, no domain": { ...host(port(0, { address: { how: "dhcp" } })), domain: "" },
  IPv6: host(port(0, V6)),
  "no gateway and no names": host(port(0, fixed("10.61.11.9", 24, null))),
  "a second port for storage": host(port(0, V4), port(1, { ...fixed("10.61.11.9", 24, null), mtu: 9000 })),
  ...Object.fromEntries(
    ["active-backup", "802.3ad", "balance-xor", "balance-rr", "broadcast"].map((mode) => [
      `a bond, ${mode}`,
      host(port(0), port(1), bond(mode, V4)),
    ]),
  ),
  "a VLAN on a bond below a bridge": host(
    ...[port(0, { mtu: 9000 }), port(1, { mtu: 9000 }), bond("802.3ad", { mtu: 9000 })],
    ...[
      vlan(30, "bond0", { ...fixed("10.61.11.9", 24, null), mtu: 9000 }),
      vlan(20, "bond0"),
      bridge(["bond0.20"], V4),
    ],
  ),
  "a VLAN-aware bridge": host(port(0), bridge(["eno1"], { ...V4, vlanAware: true })),
  "a bridge of nothing": host(port(0, V4), bridge([])),
};

/** What must never become a part of a file that is read: line ends, quotes, commands, options. */
export const HOSTILE = [
  ...[
    "a\nb",
    "a\r\nroot ALL",
    'x"; reboot; "',
    "x'; reboot; '",
    "$(reboot)",
    "`reboot`",
    "-rf",
    "--help",
    "${HOME}",
  ],
  ...[
    "a\u0000b",
    "a\u2028b",
    "#",
    ";",
    "{",
    "}",
    "\\",
    "%s",
    "=1+1",
    "Ünïted Räck",
    "…",
    "",
    " ",
    "a".repeat(300),
    "../../etc/passwd",
  ],
];

const segments = [
  segmentSchema.parse({
    ...{ id: "mgmt", name: "Works management", purpose: "management", vlan: 10, prefix: "10.61.10.0/24" },
    ...{
      gateway: "10.61.10.1",
      nameServers: ["10.61.10.2"],
      dhcp: [{ from: "10.61.10.100", to: "10.61.10.179" }],
    },
    reservations: [{ mac: "02:61:0a:00:00:09", address: "10.61.10.9", name: "rack A power strip" }],
  }),
  segmentSchema.parse({
    id: "store",
    name: "Storage",
    purpose: "storage",
    prefix: "10.61.11.0/26",
    reservations: [{ mac: "02:61:0a:00:00:0a", address: "10.61.11.9", name: "shelf" }],
  }),
  segmentSchema.parse({
    id: "six",
    name: "Six",
    purpose: "management",
    prefix: "fd61:7a1e::/64",
    nameServers: ["fd61:7a1e::2", "10.61.10.2"],
    dhcp: [{ from: "fd61:7a1e::100", to: "fd61:7a1e::1ff" }],
    reservations: [{ mac: "02:61:0a:00:00:09", address: "fd61:7a1e::9", name: "rack A power strip" }],
  }),
  segmentSchema.parse({
    id: "wide",
    name: "Wide",
    purpose: "guests",
    prefix: "fd61:7a1f::/56",
    reservations: [{ mac: "02:61:0a:00:00:0d", address: "fd61:7a1f::d", name: "lamp" }],
  }),
];

export const SITE_PLAN: SitePlan = {
  ...{ name: "Works", domain: "marrowby.example", segments },
  hosts: [
    { name: "wrk-hv1", address: "10.61.10.20", mac: null },
    { name: "wrk-hv1", address: "fd61:7a1e::20", mac: null },
    { name: "wrk-tm1", address: "10.61.10.40", mac: "02:61:0a:00:21:01" },
    { name: "rack A power strip", address: "10.61.10.9", mac: "02:61:0a:00:00:09" },
    { name: "ns", address: "10.61.10.2", mac: null },
  ],
};

/** The same site, with a hostile text wherever a person types one. */
export const hostileSite = (text: string): SitePlan => ({
  ...{ name: text, domain: "marrowby.example" },
  segments: segments.map((s) => ({
    ...{ ...s, name: text, reservations: s.reservations.map((r) => ({ ...r, name: text })) },
  })),
  hosts: SITE_PLAN.hosts.map((h, i) => (i < 3 ? { ...h, name: text } : h)),
});
