// What makes the rules about interfaces, cables and doors speak.
import type { BuildChanges } from "./builds";
import { MAC } from "./builds";

const SECOND = "02:61:0a:00:00:15";
const port = (mac: string, seenAs: string, more: object = {}) => ({
  ...{
    mac,
    seenAs,
    kind: "ethernet" as const,
    link: "up" as const,
    speedMegabits: null,
    maxMegabits: null,
    mtu: null,
  },
  ...{ otherNames: [], pci: null, driver: null, memberOf: null, addresses: [], ...more },
});
const TWO = { ports: [port(MAC, "eno1"), port(SECOND, "eno2", { driver: "other" })] };
const of = (kind: string, name: string, on: string[], more: object = {}) => ({
  ...{ kind, name, on, segment: null, address: "", mtu: null, ...more },
});
const bond = (more: object = {}) =>
  of("bond", "bond0", [MAC, SECOND], { mode: "802.3ad", hash: "layer2", ...more });
const SEGMENT = {
  ...{ id: "mgmt", name: "Works management", purpose: "management" as const, prefix: "10.61.10.0/24" },
  ...{
    gateway: "10.61.10.1",
    nameServers: ["10.61.10.2"],
    reservations: [],
    servers: null,
    mtu: null,
    vlan: 10,
  },
  dhcp: [{ from: "10.61.10.100", to: "10.61.10.199" }],
};
const STORE = {
  ...{ ...SEGMENT, id: "store", name: "Works storage", purpose: "storage" as const, prefix: "10.61.11.0/24" },
  ...{ gateway: null, nameServers: [], dhcp: [], vlan: 30 },
};
type SwitchPorts = {
  name: string;
  mode?: "access" | "trunk";
  native?: number | null;
  allowed?: string;
  group?: string;
  lacp?: boolean;
}[];
const device = (id: string, ports: SwitchPorts, mtu: number | null = null) => ({
  ...{
    id,
    name: id,
    kind: "switch" as const,
    address: "",
    place: "",
    logIn: "changed" as const,
    portCount: 8,
    mtu,
  },
  ports: ports.map((p) => ({
    mode: "access" as const,
    native: 10,
    allowed: "",
    group: "",
    lacp: true,
    megabitsPerSecond: null,
    ...p,
  })),
});
const cable = (mac: string, id: string, name: string) => ({
  ...{ id: `${mac} ${id}`, a: { mac }, b: { device: id, port: name }, lengthMetres: null, label: "" },
});
/** A site with a switch whose first ports are set like this, and both ports of the machine in it. */
const wired = (
  ports: SwitchPorts,
  sheet: Record<string, unknown>,
  more: { mtu?: number; second?: string } = {},
): BuildChanges => ({
  facts: TWO,
  sheet,
  site: {
    segments: [SEGMENT, STORE],
    devices: [device("sw1", ports, more.mtu ?? null), device("sw2", ports)],
    cables: [cable(MAC, "sw1", "1"), cable(SECOND, more.second ?? "sw1", "2")],
  },
});
const PLAIN: SwitchPorts = [{ name: "1" }, { name: "2" }];
const service = (more: object = {}) => ({
  ...{
    name: "SSH",
    protocol: "tcp",
    port: 22,
    from: ["outside"],
    manages: false,
    logIn: "key",
    why: "visits",
  },
  ...{ until: "2026-12-01", hardened: { on: "2026-11-19", how: "tried from outside" } },
  insteadOf: Object.fromEntries(
    ["at its console", "by its controller", "inside the site", "VPN or overlay", "relay in front"].map(
      (w) => [w, "no"],
    ),
  ),
  ...more,
});
const doors = (more: object): BuildChanges => ({ sheet: { "network.services": [service(more)] } });
const stands = (...interfaces: object[]): BuildChanges => ({
  facts: TWO,
  sheet: { "network.interfaces": interfaces },
});

const GUESTS = { purpose: "guests", segment: "mgmt" };
const virtual = (...groups: object[]) => of("virtual switch", "switch0", [MAC], { groups });

export const NETWORK_FIRING: [code: string, severity: string, says: RegExp, changes: BuildChanges][] = [
  ["network.interface", "stop", /its name is not an interface name/, stands(of("port", "lan one", [MAC]))],
  [
    "network.interface",
    "stop",
    /another interface has the same name/,
    stands(of("vlan", "v0", [MAC], { vlan: 1 }), of("vlan", "v0", [MAC], { vlan: 2 })),
  ],
  [
    "network.interface",
    "stop",
    /its parent interfaces form a loop/,
    stands(of("bridge", "br0", ["br0"], { vlanAware: false })),
  ],
  [
    "network.interface",
    "stop",
    /its parent interface bond9 does not exist/,
    stands(of("vlan", "v0", ["bond9"], { vlan: 1 })),
  ],
  ["network.interface", "stop", /it has no parent interface/, stands(of("port", "lan0", []))],
  ["network.interface", "stop", /it has no VLAN number/, stands(of("vlan", "v0", [MAC], { vlan: null }))],
  ["network.carrier", "stop", /interface br9 no longer exists/, { sheet: { "network.carrier": "br9" } }],
  [
    "network.carrier",
    "stop",
    /lan1 does not use the chosen port 02:61:0a:00:00:14/,
    {
      facts: TWO,
      sheet: { "network.carrier": "lan1", "network.interfaces": [of("port", "lan1", [SECOND])] },
    },
  ],
  ["network.carrier", "stop", /the port is a member of bond0/, stands(bond())],
  [
    "network.interface",
    "stop",
    /its network no longer exists at the site/,
    stands(virtual({ name: "a", purpose: "guests", segment: "sold" })),
  ],
  ["network.group", "stop", /port group 1 on switch0 has no name/, stands(virtual({ name: "", ...GUESTS }))],
  [
    "network.headless",
    "stop",
    /only the DHCP server knows the address/,
    { facts: { controller: { present: false } as never }, sheet: { "network.school": "dynamic" } },
  ],
  [
    "network.group",
    "stop",
    /has the same name as another port group/,
    stands(virtual({ name: "a", ...GUESTS }, { name: "a", ...GUESTS })),
  ],
  [
    "network.group",
    "caution",
    /a on switch0 has no network/,
    stands(virtual({ name: "a", ...GUESTS, segment: null })),
  ],
  [
    "network.carrier",
    "stop",
    /switch0 has no port group for management/,
    { sheet: { "network.carrier": "switch0", "network.interfaces": [virtual({ name: "a", ...GUESTS })] } },
  ],
  [
    "network.carrier",
    "stop",
    /the management port group a is in another network than the address/,
    wired(PLAIN, {
      "network.carrier": "switch0",
      "network.interfaces": [virtual({ name: "a", purpose: "management", segment: "store" })],
    }),
  ],
  [
    "network.port-twice",
    "stop",
    /02:61:0a:00:00:14 is a member of bond0 and br0/,
    stands(bond(), of("bridge", "br0", [MAC], { vlanAware: false })),
  ],
  ["network.bond", "caution", /bond0 has one port/, stands(bond({ on: [SECOND] }))],
  [
    "network.bond",
    "stop",
    /has the wireless port wlan0/,
    { wirelessToo: true, sheet: { "network.interfaces": [bond({ on: [MAC, "02:61:0a:00:00:99"] })] } },
  ],
  [
    "network.mtu-below",
    "stop",
    /MTU 9000/,
    stands(bond(), of("vlan", "bond0.30", ["bond0"], { vlan: 30, mtu: 9000 })),
  ],
  ...(
    [
      ["10.61.11", "store", /not an IP address/],
      ["10.61.11.9", null, /no network is chosen/],
      ["10.61.10.9", "store", /outside 10.61.11.0\/24/],
      ["10.61.11.0", "store", /network or broadcast/],
      ["10.61.10.20", "mgmt", /it is the management address/],
      ["10.61.10.150", "mgmt", /it is in a DHCP range/],
      ["10.61.10.1", "mgmt", /it is in use by the gateway/],
    ] as const
  ).map(([address, segment, says]): (typeof NETWORK_FIRING)[number] => [
    "network.other-address",
    "stop",
    says,
    wired(PLAIN, { "network.interfaces": [of("port", "lan1", [SECOND], { address, segment })] }),
  ]),
  [
    "network.vlan-aware",
    "caution",
    /br0 has the management address and filters frames by VLAN/,
    {
      sheet: {
        "network.carrier": "br0",
        "network.interfaces": [of("bridge", "br0", [MAC], { vlanAware: true })],
      },
    },
  ],
  ["network.vlan-path", "stop", /native 40\) does not allow it/, wired([{ name: "1", native: 40 }], {})],
  [
    "network.vlan-path",
    "stop",
    /allowed 10\) sends it tagged/,
    wired([{ name: "1", mode: "trunk", native: null, allowed: "10" }], {}),
  ],
  [
    "network.vlan-path",
    "stop",
    /and the machine expects it tagged/,
    wired(PLAIN, { "network.carrier": "v", "network.interfaces": [of("vlan", "v", [MAC], { vlan: 10 })] }),
  ],
  [
    "network.vlan-tag",
    "stop",
    /which is VLAN 10, and is sent with tag VLAN 11/,
    wired(PLAIN, { "network.carrier": "v", "network.interfaces": [of("vlan", "v", [MAC], { vlan: 11 })] }),
  ],
  [
    "network.mtu-path",
    "stop",
    /MTU 9000/,
    wired(
      [{ name: "2", native: 30 }],
      { "network.interfaces": [of("port", "lan1", [SECOND], { segment: "store", mtu: 9000 })] },
      { mtu: 1500 },
    ),
  ],
  [
    "network.bond-group",
    "caution",
    /sw1 port 2\) there is no LAG of all of them/,
    wired(PLAIN, { "network.interfaces": [bond()] }),
  ],
  [
    "network.bond-group",
    "stop",
    /sw1 port 2\) they are in several LAGs/,
    wired(
      [
        { name: "1", group: "1" },
        { name: "2", group: "2" },
      ],
      { "network.interfaces": [bond()] },
    ),
  ],
  [
    "network.bond-group",
    "stop",
    /sw1 port 2\) there is a LAG that the bond does not use/,
    wired(
      [
        { name: "1", group: "1" },
        { name: "2", group: "1" },
      ],
      { "network.interfaces": [bond({ mode: "active-backup" })] },
    ),
  ],
  [
    "network.bond-group",
    "stop",
    /LACP on one side, static LAG/,
    wired(
      [
        { name: "1", group: "1" },
        { name: "2", group: "1" },
      ],
      { "network.interfaces": [bond({ mode: "balance-xor" })] },
    ),
  ],
  [
    "network.bond-switches",
    "caution",
    /if this switch fails, both ports fail/,
    wired(PLAIN, { "network.interfaces": [bond({ mode: "active-backup" })] }),
  ],
  [
    "network.bond-switches",
    "caution",
    /a LAG cannot span two switches/,
    wired(PLAIN, { "network.interfaces": [bond()] }, { second: "sw2" }),
  ],
  [
    "network.shared-port",
    "caution",
    /store0 and management address both use only 02:61:0a:00:00:14/,
    wired([{ name: "1", mode: "trunk", native: 10, allowed: "30" }], {
      "network.interfaces": [of("vlan", "store0", [MAC], { vlan: 30, segment: "store" })],
    }),
  ],
  [
    "network.which-port",
    "caution",
    /and all have a link/,
    { facts: { ports: [port(MAC, "eno1"), port(SECOND, "eno2")] } },
  ],
  [
    "network.which-port",
    "caution",
    /and none has a link/,
    { facts: { ports: [port(MAC, "eno1", { link: "down" }), port(SECOND, "eno2", { link: "down" })] } },
  ],
  [
    "network.which-port",
    "caution",
    /and their link states were not collected/,
    { facts: { ports: [port(MAC, "eno1", { link: "unknown" }), port(SECOND, "eno2", { link: "unknown" })] } },
  ],
  [
    "network.unreached-names",
    "caution",
    /the network is isolated/,
    {
      site: { segments: [{ ...SEGMENT, purpose: "isolated lab" }] },
      sheet: { "network.nameServers": ["10.61.99.1"] },
    },
  ],
  [
    "network.unreached-names",
    "caution",
    /no gateway is set/,
    {
      site: { segments: [{ ...SEGMENT, purpose: "isolated lab" }] },
      sheet: { "network.nameServers": ["10.61.99.1"], "network.gateway": "" },
    },
  ],
  ["network.door", "stop", /no reason is recorded$|no reason is recorded\./, doors({ why: " " })],
  ["network.door", "stop", /no end date/, doors({ until: null })],
  ["network.door", "stop", /and the end date 1 Nov 2026 has passed/, doors({ until: "2026-11-01" })],
  [
    "network.door",
    "stop",
    /and no reason is recorded why "management controller" is not sufficient/,
    doors({ insteadOf: { "at its console": "far away" } }),
  ],
  ["network.door-unproven", "stop", /it accepts passwords/, doors({ manages: true, logIn: "password" })],
  ["network.door-unproven", "stop", /it requires no login/, doors({ manages: true, logIn: "none" })],
  [
    "network.door-unproven",
    "stop",
    /its login method is unspecified/,
    doors({ manages: true, logIn: "not told" }),
  ],
  [
    "network.door-unproven",
    "stop",
    /SSH, 22\/tcp is reachable from outside, and no test before opening is recorded/,
    doors({ hardened: null }),
  ],
  ["network.door-manages", "caution", /management access/, doors({ manages: true })],
];
