import { fail, ok, type Result } from "../../../result";
import type { Port } from "../../facts/facts";
import { cleanText, plural, type Importer, type Reading } from "./importer";

type Address = Port["addresses"][number];

interface Interface {
  name: string;
  mtu: number | null;
  lines: string[];
}

/** Blocks of `ifconfig -a`: a head line at the margin, indented lines under it. */
function interfacesOf(text: string): Interface[] {
  const all: Interface[] = [];
  for (const line of text.split(/\r?\n/)) {
    const head = /^(\S+): flags=/.exec(line);
    const mtu = /\bmtu (\d+)/.exec(line)?.[1];
    if (head) all.push({ name: head[1] ?? "", mtu: mtu ? Number(mtu) : null, lines: [] });
    else if (/^\s/.test(line)) all.at(-1)?.lines.push(line.trim());
  }
  return all;
}

const value = (i: Interface, key: string): string | null =>
  i.lines.find((l) => l.startsWith(`${key} `))?.slice(key.length + 1) ?? null;

/** A mask as ifconfig prints it, 0xffffff00, as a prefix length. */
const lengthOf = (mask: string): number => [...Number(mask).toString(2)].filter((bit) => bit === "1").length;

const addressesOf = (i: Interface): Address[] =>
  i.lines.flatMap((line): Address[] => {
    const four = /^inet (\d+\.\d+\.\d+\.\d+) netmask (0x[0-9a-f]{8})/.exec(line);
    if (four)
      return [
        {
          family: "ipv4",
          address: four[1] ?? "",
          prefixLength: lengthOf(four[2] ?? "0"),
          scope: "global",
          dynamic: false,
        },
      ];
    const six = /^inet6 ([0-9a-f:]+)(%\S+)? prefixlen (\d+)/.exec(line);
    return six
      ? [
          {
            family: "ipv6",
            address: six[1] ?? "",
            prefixLength: Number(six[3]),
            scope: six[2] ? "link" : "global",
            dynamic: /\bautoconf\b/.test(line),
          },
        ]
      : [];
  });

const SOFTWARE = /^(lo|bridge|lagg|vlan|tap|tun|epair|gif|wg|pflog|pfsync|enc)\d*$|\./;

/** `ifconfig -a`: ports with their link and addresses, and what they are members of. */
export const ifconfig: Importer = {
  tool: "ifconfig",
  command: "ifconfig -a",
  recognises: (text) => /^\S+: flags=[0-9a-f]+<[A-Z0-9_,]*>.* mtu \d+/m.test(text.slice(0, 400)),
  parse(text): Result<Reading> {
    const all = interfacesOf(text);
    if (all.length === 0) return fail({ message: "ifconfig lists no interface", line: 1 });
    const hardware = all.filter((i) => !SOFTWARE.test(i.name) && value(i, "ether"));
    const owners = new Map(
      all.flatMap((o) =>
        o.lines.flatMap((l): [string, string][] => {
          const member = /^(?:member|laggport): (\S+)/.exec(l)?.[1];
          return member ? [[member, o.name]] : [];
        }),
      ),
    );
    const ports = hardware.map((i) => {
      const status = value(i, "status:");
      return {
        mac: (value(i, "hwaddr") ?? value(i, "ether") ?? "").toLowerCase(),
        seenAs: i.name,
        kind: /IEEE 802\.11/.test(value(i, "media:") ?? "") ? ("wireless" as const) : ("ethernet" as const),
        link:
          status === "active" || status === "associated"
            ? ("up" as const)
            : status === "no carrier"
              ? ("down" as const)
              : ("unknown" as const),
        mtu: i.mtu,
        memberOf: owners.get(i.name) ?? null,
        addresses: addressesOf(i),
      };
    });
    const addresses = all
      .filter((i) => !/^lo\d/.test(i.name))
      .flatMap((i) =>
        addressesOf(i)
          .filter((a) => a.scope === "global")
          .map(({ address, prefixLength, dynamic }) => ({
            interface: i.name,
            address,
            prefixLength,
            dynamic,
          })),
      );
    return ok({
      facts: { ports, system: { addresses } },
      understood: `${plural(ports.length, "port")}, ${ports.filter((p) => p.link === "up").length} with link`,
      ignored: all.filter((i) => !hardware.includes(i)).map((i) => `${i.name}: virtual interface`),
      complete: { ports: true },
    });
  },
};

/** `netstat -rn -f inet`: the default gateway. */
export const netstat: Importer = {
  tool: "netstat",
  command: "netstat -rn -f inet",
  recognises: (text) => /^Routing tables/m.test(text.slice(0, 200)),
  parse(text): Result<Reading> {
    const gateway = cleanText(/^default\s+(\S+)/m.exec(text)?.[1]);
    return ok({
      facts: { system: { gateway } },
      understood: gateway ? `default gateway ${gateway}` : "no default gateway",
      ignored: [],
    });
  },
};
