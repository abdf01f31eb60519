import type { CommandKind, NetworkProfile } from "../../image";
import { unseenTexts } from "../../document";
import { fail, ok, type Problem, type Result } from "../../result";
import { factsOf } from "../../machine";
import { isAddress, netmaskOf, prefixLengthOf } from "../address";
import type { PlannedOn } from "../ground";
import { segmentOf } from "../ground";
import { buildOrder, isMac, type Interface } from "../interface";
import { shellWord } from "./shell-word";

type Words = Readonly<Record<string, string>>;

/** The lines of a tool, and what it has no line for. */
interface Told {
  lines: string[];
  missing: CommandKind[];
}

/** Fills a template; each word is one word of the shell. One that begins with a dash would be an option, so nothing is written. */
const filled = (template: string, words: Words): string =>
  template.replace(/\{(\w+)\}/g, (_, name: string) => shellWord(words[name] ?? ""));

function teller(commands: NetworkProfile["commands"]) {
  const told: Told = { lines: [], missing: [] };
  const tell = (kind: CommandKind, words: Words): void => {
    const template = commands[kind];
    if (template) told.lines.push(filled(template, words));
    else if (!told.missing.includes(kind)) told.missing.push(kind);
  };
  return { told, tell };
}

/** How each kind of interface is made, in the order in which its lines are given. */
function tellInterface(ground: PlannedOn, one: Interface, tell: ReturnType<typeof teller>["tell"]): void {
  const { name } = one;
  const ports = factsOf(ground)?.ports ?? [];
  const on = one.on.map((o) => (isMac(o) ? (ports.find((p) => p.mac === o)?.seenAs ?? o) : o));
  const vlanOf = (id: string | null): number | null =>
    ground.site?.segments.find((s) => s.id === id)?.vlan ?? null;
  if (one.kind === "bond") {
    tell("bond", { name, mode: one.mode });
    for (const port of on) tell("bondPort", { name, port });
  }
  if (one.kind === "vlan") tell("vlan", { name, parent: on[0] ?? "", vlan: String(one.vlan) });
  if (one.kind === "bridge") {
    const vlans = (ground.site?.segments ?? []).flatMap((s) => s.vlan ?? []).sort((a, b) => a - b);
    tell("bridge", { name });
    if (one.vlanAware) tell("bridgeAware", { name, vlans: vlans.join(",") || "2-4094" });
    for (const port of on) tell("bridgePort", { name, port });
  }
  if (one.kind === "virtual switch") {
    tell("switch", { name });
    for (const port of on) tell("uplink", { name, port });
    for (const { name: group, segment } of one.groups) {
      tell("group", { name, group });
      const vlan = vlanOf(segment);
      if (vlan !== null) tell("groupVlan", { group, vlan: String(vlan) });
    }
  }
  if (one.mtu !== null) tell("mtu", { name, mtu: String(one.mtu) });
}

/** On a virtual switch the address stands on the group for management; elsewhere on the interface itself. */
function addressPlace(ground: PlannedOn): string {
  const { carrier, interfaces, port } = ground.sheet.network;
  const one = interfaces.find((i) => i.name === carrier);
  if (one?.kind === "virtual switch")
    return one.groups.find((g) => g.purpose === "management")?.name ?? one.name;
  return carrier ?? factsOf(ground)?.ports.find((p) => p.mac === port)?.seenAs ?? "";
}

function tellAddress(ground: PlannedOn, tell: ReturnType<typeof teller>["tell"]): void {
  const { school, address, gateway, nameServers } = ground.sheet.network;
  const name = addressPlace(ground);
  const length = prefixLengthOf(segmentOf(ground)?.prefix ?? "") ?? 0;
  if (school !== "fixed") return tell("dynamic", { name });
  tell("address", {
    name,
    address,
    length: String(length),
    mask: address.includes(":") ? String(length) : netmaskOf(length),
  });
  if (gateway) tell("gateway", { gateway });
  if (nameServers.length > 0) tell("names", { servers: nameServers.join(",") });
}

/** Every name that a line would carry; one with a dash first would be read as an option. */
const namesIn = (interfaces: readonly Interface[]): string[] =>
  interfaces.flatMap((i) => [i.name, ...(i.kind === "virtual switch" ? i.groups.map((g) => g.name) : [])]);

/** What is to be made, as lines of the family's own tool; null where it has none. */
export function writeCommands(
  ground: PlannedOn,
  { commands }: NetworkProfile,
): Result<{ lines: string[]; problems: Problem[] }> | null {
  if (Object.keys(commands).length === 0) return null;
  const { interfaces, school, address, gateway, nameServers } = ground.sheet.network;
  const bad = namesIn(interfaces).find((n) => n.trim() === "" || /^-|\p{Cc}/u.test(n));
  if (bad !== undefined)
    return fail({ message: `"${bad.slice(0, 40)}" is not a valid name: choose another` });
  const addresses = [address, ...(gateway ? [gateway] : []), ...nameServers];
  if (school === "fixed" && (!segmentOf(ground) || !addresses.every(isAddress)))
    return fail({
      message: "address, network, gateway or DNS servers are missing or invalid",
    });
  const { told, tell } = teller(commands);
  for (const one of buildOrder(interfaces)) if (one.kind !== "port") tellInterface(ground, one, tell);
  tellAddress(ground, tell);
  if (unseenTexts(told.lines).length > 0)
    return fail({ message: "a name, or a line of the profile, is not one line of plain text" });
  return ok({
    lines: told.lines,
    problems: told.missing.map((kind) => ({
      message: `its tool has no command for this (${COMMAND_NAMES[kind]}): do it manually`,
    })),
  });
}

const COMMAND_NAMES: Record<CommandKind, string> = {
  save: "saving the old state",
  restore: "restoring the old state",
  bond: "a bond",
  bondPort: "a port of a bond",
  bridge: "a bridge",
  bridgeAware: "a VLAN-aware bridge",
  bridgePort: "a port of a bridge",
  vlan: "a VLAN",
  switch: "a virtual switch",
  uplink: "an uplink",
  mtu: "an MTU",
  group: "a port group",
  groupVlan: "the VLAN of a port group",
  address: "a static address",
  dynamic: "an address by DHCP",
  gateway: "the gateway",
  names: "DNS servers",
};
