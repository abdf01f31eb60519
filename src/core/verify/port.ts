import type { Facts } from "../machine";
import { addressKey } from "../network";
import { differs, notSeen, seen, type Seen } from "./seen";

/**
 * Whether the planned port is there, has link, and carries the planned address itself or through the bridge or bond that
 * it belongs to.
 */
export function lookAtPort({ mac, address }: { mac: string; address: string }, facts: Facts): Seen {
  if (facts.ports.length === 0) return notSeen();
  const port = facts.ports.find((p) => p.mac === mac);
  if (!port) return differs(`missing; found ${facts.ports.map((p) => p.mac).join(", ")}`);
  if (port.link === "down") return differs(`${port.seenAs}: no link`);
  const link = port.link === "up" ? "link up" : "link not reported";
  const verdict = (words: string): Seen =>
    port.link === "up"
      ? seen(`${port.seenAs}, ${words}, ${link}`, true)
      : notSeen(`${port.seenAs}, ${words}, ${link}`);
  if (address === "") return verdict(mac);
  const same = (a: { address: string }): boolean => addressKey(a.address) === addressKey(address);
  if (port.addresses.some(same)) return verdict(`has ${address}`);
  const other = facts.ports.find((p) => p.mac !== mac && p.addresses.some(same));
  if (other) return differs(`${address} is on ${other.seenAs} ${other.mac}, not on ${port.seenAs}`);
  const on = facts.system?.addresses?.find(same)?.interface;
  if (!on)
    return facts.system?.addresses ? differs(`${port.seenAs}, ${link}, without ${address}`) : notSeen();
  if (on === port.seenAs) return verdict(`has ${address}`);
  // "bond0.30" is a VLAN on bond0, whose own port this may be.
  const below = on.split(/[.@]/)[0]!;
  if (port.memberOf === on || below === port.seenAs || below === port.memberOf)
    return verdict(`has ${address} through ${on}`);
  const members = facts.ports.filter((p) => p.memberOf === on);
  return members.length > 0
    ? differs(
        `${address} is on ${on} over ${members.map((p) => p.seenAs).join(", ")}, not over ${port.seenAs}`,
      )
    : notSeen(`${address} is on ${on}; its member ports were not collected`);
}
