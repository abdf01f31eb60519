import { visibleDrives } from "../facts/describe";
import type { Drive } from "../facts/drive";
import type { Facts, Port } from "../facts/facts";

/** The port that a cable is in; else the first that could have one. */
export const likelyPort = ({ ports }: Facts): Port | undefined =>
  ports.find((p) => p.link === "up" && p.kind === "ethernet") ?? ports.find((p) => p.kind === "ethernet");

/** An address that a machine had when it was read, and whether a server had lent it. */
export interface OwnAddress {
  address: string;
  prefixLength: number;
  dynamic: boolean;
}

/** Under which address the machine was reached by its likely port, or by the bridge or bond that the port belongs to. */
export function ownAddress(facts: Facts): OwnAddress | null {
  const port = likelyPort(facts);
  if (!port) return null;
  const own = port.addresses.find((a) => a.scope === "global" && a.family === "ipv4");
  if (own) return own;
  return (
    (facts.system?.addresses ?? []).find(
      (a) => (a.interface === port.memberOf || a.interface === port.seenAs) && !a.address.includes(":"),
    ) ?? null
  );
}

/** The drive that a system can only go on: the one that the machine has. Sticks, cards and volumes of a network are none. */
export function onlyDrive(facts: Facts): Drive | null {
  const fixed = visibleDrives(facts).filter(
    (d) => !d.removable && d.san === null && !["usb", "card", "virtual"].includes(d.media) && d.sizeBytes > 0,
  );
  return fixed.length === 1 ? (fixed[0] ?? null) : null;
}
