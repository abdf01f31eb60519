import { keysOf } from "../../text";
import { stringify } from "yaml";
import type { Problem } from "../../result";
import {
  HEAD,
  isIpv6,
  withLength,
  type HostPlan,
  type LinkAddress,
  type LinkPlan,
  type WrittenFile,
} from "./host-plan";

type Node = Record<string, unknown>;

/**
 * How the way out is said. cloud-init up to 22.4 ends with a traceback on a route to "default" wherever it writes for anything
 * but netplan (seen), and knows the older keys in all of them.
 */
type Gateways = "routes" | "keys";

function gatewayNode(gateway: string, gateways: Gateways): Node {
  if (gateways === "routes") return { routes: [{ to: "default", via: gateway }] };
  return isIpv6(gateway) ? { gateway6: gateway } : { gateway4: gateway };
}

/** A machine is known to its DHCP server by its MAC: firmware and installer tell it, and so must the system. */
function addressNode(address: LinkAddress | null, domain: string, gateways: Gateways): Node {
  if (address === null) return { dhcp4: false, dhcp6: false, "accept-ra": false };
  if (address.how === "dhcp") return { dhcp4: true, "dhcp-identifier": "mac" };
  const { gateway, nameServers } = address;
  return {
    ...{ dhcp4: false, dhcp6: false, "accept-ra": false, addresses: [withLength(address)] },
    ...(gateway && gatewayNode(gateway, gateways)),
    ...(nameServers.length > 0 && {
      nameservers: { addresses: [...nameServers], ...(domain && { search: [domain] }) },
    }),
  };
}

function linkNode(link: LinkPlan, domain: string, gateways: Gateways): Node {
  const rest = {
    ...(link.mtu !== null && { mtu: link.mtu }),
    ...addressNode(link.address, domain, gateways),
  };
  if (link.kind === "port") return { match: { macaddress: link.mac }, "set-name": link.name, ...rest };
  if (link.kind === "vlan") return { id: link.vlan, link: link.parent, ...rest };
  if (link.kind === "bridge")
    return { interfaces: link.members, parameters: { stp: false, "forward-delay": 0 }, ...rest };
  const hash = link.mode === "802.3ad" || link.mode === "balance-xor";
  return {
    interfaces: link.members,
    parameters: {
      ...{ mode: link.mode, "mii-monitor-interval": 100 },
      ...(hash && { "transmit-hash-policy": link.hash }),
      ...(link.mode === "802.3ad" && { "lacp-rate": "fast" }),
    },
    ...rest,
  };
}

const GROUPS = { port: "ethernets", bond: "bonds", vlan: "vlans", bridge: "bridges" } as const;

/** The network as netplan's version 2 has it, as a tree; installers take the same. */
export function netplanTree(plan: HostPlan, gateways: Gateways = "routes"): { network: Node } {
  const groups = keysOf(GROUPS).flatMap((kind): [string, Node][] => {
    const links = plan.links.filter((l) => l.kind === kind);
    if (links.length === 0) return [];
    return [
      [GROUPS[kind], Object.fromEntries(links.map((l) => [l.name, linkNode(l, plan.domain, gateways)]))],
    ];
  });
  return { network: { version: 2, renderer: "networkd", ...Object.fromEntries(groups) } };
}

/** A netplan file in version 2 of its format. What it cannot say comes back as a problem. */
export function writeNetplan(plan: HostPlan): { files: WrittenFile[]; problems: Problem[] } {
  const tree = netplanTree(plan);
  const aware = plan.links.filter((l) => l.kind === "bridge" && l.vlanAware);
  return {
    files: [
      { path: "/etc/netplan/50-derrick.yaml", text: `# ${HEAD(plan)}\n${stringify(tree, { lineWidth: 0 })}` },
    ],
    problems: aware.map((l) => ({
      message: `this format does not support the VLAN-aware bridge ${l.name}: enable it manually, or choose another format`,
    })),
  };
}
