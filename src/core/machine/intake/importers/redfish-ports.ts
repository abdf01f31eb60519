import { cleanText, type Observed } from "./importer";
import type { Resource } from "./redfish-schema";

/** Dotted mask to prefix length; a mask with holes is none. */
function prefixOf(mask: string | null | undefined): number {
  const bits = (mask ?? "")
    .split(".")
    .map((n) => Number(n).toString(2).padStart(8, "0"))
    .join("");
  return /^1*0*$/.test(bits) && bits.length === 32 ? bits.replace(/0/g, "").length : 32;
}

/** Ports of the system; those of its managers tell the address of the controller. */
export function interfaceFacts(list: Resource[]): Observed {
  const ofManager = (r: Resource): boolean => /\/Managers\//.test(r["@odata.id"] ?? "");
  const own = list.filter((r) => !ofManager(r) && (r.PermanentMACAddress || r.MACAddress));
  const address = list
    .filter(ofManager)
    .flatMap((r) => r.IPv4Addresses ?? [])
    .find((a) => a.Address)?.Address;
  return {
    ports: own.map((r) => ({
      mac: (r.PermanentMACAddress ?? r.MACAddress ?? "").toLowerCase(),
      ...(r.LinkStatus && { link: r.LinkStatus === "LinkUp" ? ("up" as const) : ("down" as const) }),
      speedMegabits: r.SpeedMbps || null,
      otherNames: cleanText(r.Id) ? [cleanText(r.Id) ?? ""] : undefined,
      addresses: (r.IPv4Addresses ?? []).some((a) => a.Address)
        ? (r.IPv4Addresses ?? []).flatMap((a) =>
            a.Address
              ? [
                  {
                    family: "ipv4" as const,
                    address: a.Address,
                    prefixLength: prefixOf(a.SubnetMask),
                    scope: "global",
                    dynamic: a.AddressOrigin === "DHCP",
                  },
                ]
              : [],
          )
        : undefined,
    })),
    ...(cleanText(address) && { controller: { present: true, address: cleanText(address) } }),
  };
}
