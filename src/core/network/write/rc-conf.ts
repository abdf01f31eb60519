import type { Problem } from "../../result";
import { netmaskOf } from "../address";
import { HEAD, isIpv6, type HostPlan, type LinkAddress, type LinkPlan, type WrittenFile } from "./host-plan";
import { shellWord } from "./shell-word";

/** rc.conf is read by sh: a name of a variable may have letters, digits and underlines only. */
const variable = (name: string): string => name.replaceAll(/[^A-Za-z0-9_]/g, "_");

/** A system of this kind names what it makes by kind and number. */
function bsdNames(plan: HostPlan): Map<string, string> {
  const stems = { port: "", bond: "lagg", vlan: "vlan", bridge: "bridge" } as const;
  const counts = new Map<string, number>();
  return new Map(
    plan.links.map((l) => {
      if (l.kind === "port") return [l.name, l.name];
      if (l.kind === "vlan") return [l.name, `vlan${l.vlan}`];
      const n = counts.get(l.kind) ?? 0;
      counts.set(l.kind, n + 1);
      return [l.name, `${stems[l.kind]}${n}`];
    }),
  );
}

const addressWords = (address: LinkAddress | null): string =>
  address === null
    ? "up"
    : address.how === "dhcp"
      ? "DHCP"
      : isIpv6(address.address)
        ? "up"
        : `inet ${address.address} netmask ${netmaskOf(address.length)}`;

const PROTOCOL: Record<string, string> = {
  "active-backup": "failover",
  "802.3ad": "lacp",
  "balance-xor": "loadbalance",
  "balance-rr": "roundrobin",
  broadcast: "broadcast",
};

function linkWords(link: LinkPlan, nameOf: (name: string) => string): string {
  const members = (word: string, names: readonly string[]): string =>
    names.map((m) => `${word} ${nameOf(m)}`).join(" ");
  if (link.kind === "bond") return `laggproto ${PROTOCOL[link.mode]} ${members("laggport", link.members)}`;
  if (link.kind === "vlan") return `vlan ${link.vlan} vlandev ${nameOf(link.parent)}`;
  return link.kind === "bridge" ? members("addm", link.members) : "";
}

/** Lines for rc.conf, and the name servers for resolv.conf. */
export function writeRcConf(plan: HostPlan): { files: WrittenFile[]; problems: Problem[] } {
  const names = bsdNames(plan);
  const nameOf = (name: string): string => names.get(name) ?? name;
  const cloned = plan.links.filter((l) => l.kind !== "port").map((l) => nameOf(l.name));
  const gateway = plan.links.flatMap((l) => (l.address?.how === "fixed" && l.address.gateway) || []).at(0);
  const servers = plan.links.flatMap((l) => (l.address?.how === "fixed" ? l.address.nameServers : []));
  const set = (name: string, value: string): string => `${name}=${shellWord(value)}`;
  const lines = [
    set("hostname", [plan.hostName, plan.domain].filter(Boolean).join(".")),
    ...(cloned.length > 0 ? [set("cloned_interfaces", cloned.join(" "))] : []),
    ...plan.links.flatMap((link) => {
      const name = variable(nameOf(link.name));
      const mtu = link.mtu === null ? "" : `mtu ${link.mtu}`;
      const words = [linkWords(link, nameOf), addressWords(link.address), mtu].filter(Boolean).join(" ");
      const six = link.address?.how === "fixed" && isIpv6(link.address.address) ? link.address : null;
      return [
        set(`ifconfig_${name}`, words),
        ...(six ? [set(`ifconfig_${name}_ipv6`, `inet6 ${six.address} prefixlen ${six.length}`)] : []),
      ];
    }),
    ...(gateway ? [set(isIpv6(gateway) ? "ipv6_defaultrouter" : "defaultrouter", gateway)] : []),
  ];
  const resolv = [
    `# ${HEAD(plan)}`,
    ...(plan.domain ? [`search ${plan.domain}`] : []),
    ...servers.map((a) => `nameserver ${a}`),
  ];
  return {
    files: [
      { path: "/etc/rc.conf", text: `# ${HEAD(plan)}\n${lines.join("\n")}\n` },
      ...(servers.length > 0 ? [{ path: "/etc/resolv.conf", text: `${resolv.join("\n")}\n` }] : []),
    ],
    problems: plan.links.flatMap((l) =>
      l.kind === "port" && /^(en|eth|wl|lan)/.test(l.name)
        ? [
            {
              message: `${l.name} is the Linux name of ${l.mac}: replace it with the name that this system gives the port`,
            },
          ]
        : l.kind === "bridge" && l.vlanAware
          ? [{ message: `${l.name} cannot be VLAN-aware here: create a bridge for each VLAN` }]
          : [],
    ),
  };
}
