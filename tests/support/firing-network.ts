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
  ["network.interface", "stop", /its name is no name/, stands(of("port", "lan one", [MAC]))],
  [
    "network.interface",
    "stop",
    /another one has the same name/,
    stands(of("vlan", "v0", [MAC], { vlan: 1 }), of("vlan", "v0", [MAC], { vlan: 2 })),
  ],
  [
    "network.interface",
    "stop",
    /it stands on itself/,
    stands(of("bridge", "br0", ["br0"], { vlanAware: false })),
  ],
  [
    "network.interface",
    "stop",
    /it stands on bond9, which is not there/,
    stands(of("vlan", "v0", ["bond9"], { vlan: 1 })),
  ],
  ["network.interface", "stop", /it stands on nothing/, stands(of("port", "lan0", []))],
  ["network.interface", "stop", /it has no VLAN number/, stands(of("vlan", "v0", [MAC], { vlan: null }))],
  ["network.carrier", "stop", /no interface br9 any more/, { sheet: { "network.carrier": "br9" } }],
  [
    "network.carrier",
    "stop",
    /lan1 does not go through/,
    {
      facts: TWO,
      sheet: { "network.carrier": "lan1", "network.interfaces": [of("port", "lan1", [SECOND])] },
    },
  ],
  ["network.carrier", "stop", /the port belongs to bond0/, stands(bond())],
  [
    "network.interface",
    "stop",
    /its network is not at the site any more/,
    stands(virtual({ name: "a", purpose: "guests", segment: "sold" })),
  ],
  ["network.group", "stop", /port group 1 on switch0 has no name/, stands(virtual({ name: "", ...GUESTS }))],
  [
    "network.headless",
    "stop",
    /only the DHCP server knows where it is/,
    { facts: { controller: { present: false } as never }, sheet: { "network.school": "dynamic" } },
  ],
  [
    "network.group",
    "stop",
    /has the name of another one/,
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
    /port group a for management is in another network/,
    wired(PLAIN, {
      "network.carrier": "switch0",
      "network.interfaces": [virtual({ name: "a", purpose: "management", segment: "store" })],
    }),
  ],
  [
    "network.port-twice",
    "stop",
    /belongs to bond0 and br0/,
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
    /bond0.30 has an MTU of 9000, and bond0 below it passes 1500/,
    stands(bond(), of("vlan", "bond0.30", ["bond0"], { vlan: 30, mtu: 9000 })),
  ],
  ...(
    [
      ["10.61.11", "store", /it is not an address/],
      ["10.61.11.9", null, /no segment is chosen/],
      ["10.61.10.9", "store", /outside 10.61.11.0\/24/],
      ["10.61.11.0", "store", /network or broadcast/],
      ["10.61.10.20", "mgmt", /it is the management address/],
      ["10.61.10.150", "mgmt", /DHCP hands it out/],
      ["10.61.10.1", "mgmt", /it belongs to the gateway/],
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
    /br0 carries the management address/,
    {
      sheet: {
        "network.carrier": "br0",
        "network.interfaces": [of("bridge", "br0", [MAC], { vlanAware: true })],
      },
    },
  ],
  [
    "network.vlan-path",
    "stop",
    /sw1 port 1 \(access, native 40\) does not let it through/,
    wired([{ name: "1", native: 40 }], {}),
  ],
  [
    "network.vlan-path",
    "stop",
    /sends it with a tag, which/,
    wired([{ name: "1", mode: "trunk", native: null, allowed: "10" }], {}),
  ],
  [
    "network.vlan-path",
    "stop",
    /without a tag, while the machine sends a tag/,
    wired(PLAIN, { "network.carrier": "v", "network.interfaces": [of("vlan", "v", [MAC], { vlan: 10 })] }),
  ],
  [
    "network.vlan-tag",
    "stop",
    /which is VLAN 10, and is sent with the tag of VLAN 11/,
    wired(PLAIN, { "network.carrier": "v", "network.interfaces": [of("vlan", "v", [MAC], { vlan: 11 })] }),
  ],
  [
    "network.mtu-path",
    "stop",
    /lan1 has an MTU of 9000, and sw1 passes 1500/,
    wired(
      [{ name: "2", native: 30 }],
      { "network.interfaces": [of("port", "lan1", [SECOND], { segment: "store", mtu: 9000 })] },
      { mtu: 1500 },
    ),
  ],
  [
    "network.bond-group",
    "caution",
    /there is no group of all/,
    wired(PLAIN, { "network.interfaces": [bond()] }),
  ],
  [
    "network.bond-group",
    "stop",
    /in several groups/,
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
    /a group that it does not ask for/,
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
    /LACP on one side, simply on/,
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
    /when this switch is down, both ports are/,
    wired(PLAIN, { "network.interfaces": [bond({ mode: "active-backup" })] }),
  ],
  [
    "network.bond-switches",
    "caution",
    /a group of one switch cannot span two/,
    wired(PLAIN, { "network.interfaces": [bond()] }, { second: "sw2" }),
  ],
  [
    "network.shared-port",
    "caution",
    /store0 and management address both go by/,
    wired([{ name: "1", mode: "trunk", native: 10, allowed: "30" }], {
      "network.interfaces": [of("vlan", "store0", [MAC], { vlan: 30, segment: "store" })],
    }),
  ],
  [
    "network.which-port",
    "caution",
    /look alike from outside, and all have a link/,
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
    /the links were not read/,
    { facts: { ports: [port(MAC, "eno1", { link: "unknown" }), port(SECOND, "eno2", { link: "unknown" })] } },
  ],
  [
    "network.unreached-names",
    "caution",
    /the segment is isolated/,
    {
      site: { segments: [{ ...SEGMENT, purpose: "isolated lab" }] },
      sheet: { "network.nameServers": ["10.61.99.1"] },
    },
  ],
  [
    "network.unreached-names",
    "caution",
    /no gateway is given/,
    {
      site: { segments: [{ ...SEGMENT, purpose: "isolated lab" }] },
      sheet: { "network.nameServers": ["10.61.99.1"], "network.gateway": "" },
    },
  ],
  ["network.door", "stop", /nobody has said why$|nobody has said why\./, doors({ why: " " })],
  ["network.door", "stop", /no day is set/, doors({ until: null })],
  ["network.door", "stop", /to be closed on 2026-11-01/, doors({ until: "2026-11-01" })],
  [
    "network.door",
    "stop",
    /why "by its controller" will not do/,
    doors({ insteadOf: { "at its console": "far away" } }),
  ],
  ["network.door-unproven", "stop", /it takes passwords/, doors({ manages: true, logIn: "password" })],
  ["network.door-unproven", "stop", /it asks for no log-in/, doors({ manages: true, logIn: "none" })],
  [
    "network.door-unproven",
    "stop",
    /how one logs in was not told/,
    doors({ manages: true, logIn: "not told" }),
  ],
  ["network.door-unproven", "stop", /nothing was tried against it/, doors({ hardened: null })],
  ["network.door-manages", "caution", /gives power over the machine/, doors({ manages: true })],
];
