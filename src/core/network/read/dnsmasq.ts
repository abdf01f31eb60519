import { isAddress } from "../address";
import { isMac } from "../interface";
import { linesOf, readLines, type NetworkReader, type NetworkRow } from "./row";

const plain = (mac: string): string => mac.toLowerCase().replaceAll("-", ":");

/** "dhcp-host=02:..,10.61.10.9,strip,12h": parts in any order, told apart by what they look like. */
function host(parts: readonly string[], line: number): NetworkRow[] | string {
  const macs = parts.filter((p) => isMac(plain(p))).map(plain);
  const addresses = parts.map((p) => p.replace(/^\[(.*)\]$/, "$1")).filter(isAddress);
  const name = parts.find(
    (p) =>
      /^[A-Za-z\d][A-Za-z\d.-]*$/.test(p) &&
      !isMac(plain(p)) &&
      !isAddress(p) &&
      !/^(\d+[smhdw]?|infinite|ignore)$/.test(p),
  );
  if (addresses.length === 0) return "no address is reserved here, so nothing is imported";
  if (macs.length === 0) return "the reservation has no MAC";
  return macs.flatMap((mac) =>
    addresses.map((address): NetworkRow => ({ kind: "reservation", line, mac, address, name: name ?? "" })),
  );
}

function range(parts: readonly string[], line: number): NetworkRow[] | string {
  const addresses = parts.filter(isAddress);
  if (parts.includes("static")) return [];
  const [from, to] = addresses;
  return from !== undefined && to !== undefined
    ? [{ kind: "range", line, from, to }]
    : "the range has no first and last address";
}

const RANGE_OR_HOST = /^\s*(?:--)?(dhcp-host|dhcp-range)\s*=/;

/** A configuration of dnsmasq; what is not about reservations, ranges and names is passed over. */
export const DNSMASQ: NetworkReader = {
  format: "dnsmasq configuration",
  recognises: (text) =>
    linesOf(text, "#").some((l) => RANGE_OR_HOST.test(l.text) || /^address=\//.test(l.text)),
  read: (text) =>
    readLines(text, "#", (_, line, own) => {
      const [, name = "", value = ""] = /^(?:--)?([a-z\d-]+)\s*=\s*(.*)$/.exec(own) ?? [];
      const parts = value
        .split(",")
        .map((p) => p.trim())
        .filter((p) => p !== "" && !/^(set|tag|id|net):/.test(p));
      if (name === "dhcp-host") return host(parts, line);
      if (name === "dhcp-range") return range(parts, line);
      const [, hostName = "", address = ""] = /^\/([^/]+)\/(.+)$/.exec(value) ?? [];
      return name === "address" && isAddress(address)
        ? [{ kind: "host", line, address, name: hostName }]
        : [];
    }),
};

/** The file of leases: end, MAC, address, name or "*", client id. Only what is lent for good is a reservation. */
export const DNSMASQ_LEASES: NetworkReader = {
  format: "dnsmasq leases",
  recognises: (text) => /^\d+ (?:[\da-f]{2}:){5}[\da-f]{2} [\d.a-f:]+ \S+/m.test(text.slice(0, 4096)),
  read: (text) =>
    readLines(text, "#", ([ends = "", mac = "", address = "", name = ""], line) => {
      if (ends === "duid") return [];
      if (!isMac(mac) || !isAddress(address)) return "a lease is: end, MAC, address, name";
      return ends === "0"
        ? [{ kind: "reservation", line, mac: mac.toLowerCase(), address, name: name === "*" ? "" : name }]
        : [{ kind: "seen", line, address, mac: mac.toLowerCase() }];
    }),
};
