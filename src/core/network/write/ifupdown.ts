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
import { linkFiles } from "./networkd";

const method = (address: LinkAddress | null): string =>
  address === null
    ? "inet manual"
    : address.how === "dhcp"
      ? "inet dhcp"
      : `${isIpv6(address.address) ? "inet6" : "inet"} static`;

const addressOptions = (address: LinkAddress | null, domain: string): string[] =>
  address?.how === "fixed"
    ? [
        `address ${withLength(address)}`,
        ...(address.gateway ? [`gateway ${address.gateway}`] : []),
        ...(address.nameServers.length > 0 ? [`dns-nameservers ${address.nameServers.join(" ")}`] : []),
        ...(domain && address.nameServers.length > 0 ? [`dns-search ${domain}`] : []),
      ]
    : [];

function kindOptions(plan: HostPlan, link: LinkPlan): string[] {
  if (link.kind === "vlan") return [`vlan-raw-device ${link.parent}`, `vlan-id ${link.vlan}`];
  if (link.kind === "bond") {
    const hash = link.mode === "802.3ad" || link.mode === "balance-xor";
    return [
      ...[`bond-slaves ${link.members.join(" ")}`, `bond-mode ${link.mode}`, "bond-miimon 100"],
      ...(hash ? [`bond-xmit-hash-policy ${link.hash}`] : []),
    ];
  }
  if (link.kind === "bridge")
    return [
      ...[`bridge-ports ${link.members.join(" ") || "none"}`, "bridge-stp off", "bridge-fd 0"],
      ...(link.vlanAware
        ? ["bridge-vlan-aware yes", ...(link.vlans ? [`bridge-vids ${link.vlans}`] : [])]
        : []),
    ];
  const bond = plan.links.find((l) => l.kind === "bond" && l.members.includes(link.name));
  return bond ? [`bond-master ${bond.name}`] : [];
}

/** /etc/network/interfaces, with the files that give the ports their names by MAC. */
export function writeIfupdown(plan: HostPlan): { files: WrittenFile[]; problems: Problem[] } {
  const stanzas = plan.links.map((link) =>
    [
      `auto ${link.name}`,
      `iface ${link.name} ${method(link.address)}`,
      ...[
        ...addressOptions(link.address, plan.domain),
        ...kindOptions(plan, link),
        ...(link.mtu === null ? [] : [`mtu ${link.mtu}`]),
      ].map((option) => `    ${option}`),
    ].join("\n"),
  );
  const aware = plan.links.filter((l) => l.kind === "bridge" && l.vlanAware);
  const text = [`# ${HEAD(plan)}`, "auto lo\niface lo inet loopback", ...stanzas].join("\n\n");
  return {
    files: [...linkFiles(plan), { path: "/etc/network/interfaces", text: `${text}\n` }],
    problems: aware.map((l) => ({
      message: `${l.name} is VLAN-aware: version 2 of these tools supports that, version 1 ignores it`,
    })),
  };
}
