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

const TYPE = { port: "ethernet", bond: "bond", vlan: "vlan", bridge: "bridge" } as const;

/** The bond or bridge that a link belongs to. */
const masterOf = (plan: HostPlan, { name }: LinkPlan) =>
  plan.links.find((l) => (l.kind === "bond" || l.kind === "bridge") && l.members.includes(name));

function addressSections(address: LinkAddress | null, domain: string): string[][] {
  const off = ["method=disabled"];
  if (address === null)
    return [
      ["[ipv4]", ...off],
      ["[ipv6]", ...off],
    ];
  if (address.how === "dhcp")
    return [
      ["[ipv4]", "method=auto", "dhcp-client-id=mac"],
      ["[ipv6]", "method=link-local"],
    ];
  const own = [
    "method=manual",
    `address1=${withLength(address)}${address.gateway ? `,${address.gateway}` : ""}`,
  ];
  const dns = (six: boolean): string[] => {
    const servers = address.nameServers.filter((a) => isIpv6(a) === six);
    return servers.length === 0
      ? []
      : [`dns=${servers.join(";")};`, ...(domain ? [`dns-search=${domain};`] : [])];
  };
  const six = isIpv6(address.address);
  return [
    ["[ipv4]", ...(six ? off : own), ...(six ? [] : dns(false))],
    ["[ipv6]", ...(six ? own : ["method=link-local"]), ...(six ? dns(true) : [])],
  ];
}

function kindSection(link: LinkPlan): string[][] {
  if (link.kind === "port")
    return [["[ethernet]", `mac-address=${link.mac}`, ...(link.mtu === null ? [] : [`mtu=${link.mtu}`])]];
  const ethernet = link.mtu === null ? [] : [["[ethernet]", `mtu=${link.mtu}`]];
  if (link.kind === "vlan") return [...ethernet, ["[vlan]", `id=${link.vlan}`, `parent=${link.parent}`]];
  if (link.kind === "bridge")
    return [...ethernet, ["[bridge]", "stp=false", ...(link.vlanAware ? ["vlan-filtering=true"] : [])]];
  const hash = link.mode === "802.3ad" || link.mode === "balance-xor";
  return [
    ...ethernet,
    ["[bond]", "miimon=100", `mode=${link.mode}`, ...(hash ? [`xmit_hash_policy=${link.hash}`] : [])],
  ];
}

function keyfile(plan: HostPlan, link: LinkPlan): WrittenFile {
  const master = masterOf(plan, link);
  const isMember = master !== undefined;
  const sections = [
    [
      ...["[connection]", `id=${link.name}`, `type=${TYPE[link.kind]}`, `interface-name=${link.name}`],
      ...(isMember ? [`master=${master.name}`, `slave-type=${master.kind}`] : []),
    ],
    ...kindSection(link),
    ...(isMember ? [] : addressSections(link.address, plan.domain)),
  ];
  return {
    path: `/etc/NetworkManager/system-connections/${link.name}.nmconnection`,
    text: `# ${HEAD(plan)}\n${sections.map((s) => s.join("\n")).join("\n\n")}\n`,
  };
}

/** Key files for NetworkManager, one for each connection; they are read by root only. */
export const writeKeyfiles = (plan: HostPlan): { files: WrittenFile[]; problems: Problem[] } => ({
  files: [...linkFiles(plan), ...plan.links.map((link) => keyfile(plan, link))],

  problems: [],
});
