import type { Problem } from "../../result";
import {
  HEAD,
  withLength,
  type HostPlan,
  type LinkAddress,
  type LinkPlan,
  type WrittenFile,
} from "./host-plan";

type Section = readonly [name: string, ...lines: (string | false | null)[]];

/** Sections of an INI file; what is false or null is left out. Values are names, numbers and addresses that were checked. */
const ini = (head: string, sections: readonly (Section | false)[]): string =>
  [
    `# ${head}`,
    ...sections.flatMap((section) => {
      if (!section) return [];
      const [name, ...lines] = section;
      return ["", `[${name}]`, ...lines.filter((l) => l !== false && l !== null)];
    }),
    "",
  ].join("\n");

const addressLines = (address: LinkAddress | null, domain: string): string[] => {
  if (address === null) return ["DHCP=no", "IPv6AcceptRA=no"];
  if (address.how === "dhcp") return ["DHCP=ipv4"];
  return [
    ...["DHCP=no", "IPv6AcceptRA=no", `Address=${withLength(address)}`],
    ...(address.gateway ? [`Gateway=${address.gateway}`] : []),
    ...address.nameServers.map((a) => `DNS=${a}`),
    ...(domain && address.nameServers.length > 0 ? [`Domains=${domain}`] : []),
  ];
};

/** What a link belongs to, and the VLANs that stand on it. */
function above(plan: HostPlan, { name }: LinkPlan): string[] {
  return plan.links.flatMap((l) => {
    if (l.kind === "vlan") return l.parent === name ? [`VLAN=${l.name}`] : [];
    if (l.kind === "port") return [];
    return l.members.includes(name) ? [`${l.kind === "bond" ? "Bond" : "Bridge"}=${l.name}`] : [];
  });
}

const bridgeOf = (plan: HostPlan, name: string) =>
  plan.links.find((l) => l.kind === "bridge" && l.members.includes(name));

function netdev(plan: HostPlan, link: LinkPlan): WrittenFile[] {
  if (link.kind === "port") return [];
  const hash = link.kind === "bond" && (link.mode === "802.3ad" || link.mode === "balance-xor");
  return [
    {
      path: `/etc/systemd/network/20-${link.name}.netdev`,
      text: ini(HEAD(plan), [
        ["NetDev", `Name=${link.name}`, `Kind=${link.kind}`, link.mtu !== null && `MTUBytes=${link.mtu}`],
        link.kind === "bond" && [
          ...(["Bond", `Mode=${link.mode}`, "MIIMonitorSec=100ms"] as const),
          hash && `TransmitHashPolicy=${link.hash}`,
          link.mode === "802.3ad" && "LACPTransmitRate=fast",
        ],
        link.kind === "vlan" && ["VLAN", `Id=${link.vlan}`],
        link.kind === "bridge" && [
          ...(["Bridge", "STP=no", "ForwardDelaySec=0"] as const),
          link.vlanAware && "VLANFiltering=yes",
        ],
      ]),
    },
  ];
}

function network(plan: HostPlan, link: LinkPlan): WrittenFile {
  const bridge = bridgeOf(plan, link.name);
  const vlans = bridge?.kind === "bridge" && bridge.vlanAware ? bridge.vlans.split(" ").filter(Boolean) : [];
  return {
    path: `/etc/systemd/network/30-${link.name}.network`,
    text: ini(HEAD(plan), [
      ["Match", `Name=${link.name}`],
      link.mtu !== null && ["Link", `MTUBytes=${link.mtu}`],
      ["Network", ...above(plan, link), ...addressLines(link.address, plan.domain)],
      // The DHCP server knows the machine by its MAC, as it met it in the firmware and in the installer.
      link.address?.how === "dhcp" && ["DHCPv4", "ClientIdentifier=mac"],
      vlans.length > 0 && ["BridgeVLAN", "PVID=1", "EgressUntagged=1", ...vlans.map((v) => `VLAN=${v}`)],
    ]),
  };
}

/** A file that gives a port its name by its MAC, whatever the firmware tells of its place. */
export const linkFile = (plan: HostPlan, link: LinkPlan & { kind: "port" }): WrittenFile => ({
  path: `/etc/systemd/network/10-${link.name}.link`,
  text: ini(HEAD(plan), [
    ["Match", `PermanentMACAddress=${link.mac}`],
    ["Link", `Name=${link.name}`],
  ]),
});

export const linkFiles = (plan: HostPlan): WrittenFile[] =>
  plan.links.flatMap((l) => (l.kind === "port" ? [linkFile(plan, l)] : []));

/** Files for systemd-networkd: names by MAC, devices, and what stands on each. */
export const writeNetworkd = (plan: HostPlan): { files: WrittenFile[]; problems: Problem[] } => ({
  files: [
    ...linkFiles(plan),
    ...plan.links.flatMap((l) => netdev(plan, l)),
    ...plan.links.map((l) => network(plan, l)),
  ],
  problems: [],
});
