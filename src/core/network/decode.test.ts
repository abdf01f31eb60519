import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  addressSortKey,
  decodeAddress,
  linkLocalAddress,
  macIn,
  prefixWords,
  segmentSchema,
  slaacAddress,
} from ".";

const MAC = "02:61:0a:00:15:01";
const segment = segmentSchema.parse({
  ...{ id: "mgmt", name: "Works management", purpose: "management", prefix: "10.61.10.0/24" },
  gateway: "10.61.10.1",
  dhcp: [{ from: "10.61.10.100", to: "10.61.10.179" }],
  reservations: [{ mac: MAC, address: "10.61.10.40", name: "printer" }],
});
const six = segmentSchema.parse({
  ...{ id: "six", name: "Works six", purpose: "guests", prefix: "fd61:a::/64", gateway: "fd61:a::1" },
});
const taken = new Map(
  [
    ["10.61.10.22", "wrk-hv2"],
    ["10.61.10.122", "wrk-hv9"],
    ["fd61:a::22", "wrk-hv2"],
  ].map(([address, who]) => [addressSortKey(address!)!, who!]),
);
const places = [segment, six].map((s) => ({ site: "Works", siteId: "s-works", segment: s, taken }));
const ask = (text: string) =>
  decodeAddress(text, places, (mac) => (mac === MAC ? "port eno1 of wrk-hv2" : null))?.says.slice(1) ?? null;
const at = "Works, Works management (10.61.10.0/24): ";

describe("an address seen on a console is explained", () => {
  it.each([
    ["10.61.10.0", `${at}the network address, not usable by a machine.`],
    ["10.61.10.1/24", `${at}planned, the gateway.`],
    ["10.61.10.22", `${at}planned, wrk-hv2.`],
    ["10.61.10.40", `${at}planned, DHCP reservation for printer.`],
    ["10.61.10.101", `${at}in a DHCP range, so it can be assigned to any machine.`],
    ["10.61.10.122", `${at}planned, wrk-hv9, but inside a DHCP range.`],
    ["10.61.10.200", `${at}not in use by any plan.`],
    ["fd61:a:0::1", "Works, Works six (fd61:a::/64): planned, the gateway."],
    ["FD61:A::22", "Works, Works six (fd61:a::/64): planned, wrk-hv2."],
    ["fd61:a::77", "Works, Works six (fd61:a::/64): not in use by any plan."],
    ["192.168.1.1", "It is in no network of any site."],
    [`${linkLocalAddress(MAC)}%eno1`, `Derived from the MAC ${MAC}, port eno1 of wrk-hv2.`],
  ])("%s", (address, says) => expect(ask(address)).toEqual([says]));

  it.each([
    ["169.254.7.9", "no answer", /VLAN and DHCP server/],
    ["fe80::1", "link local", /it works on its own link only/],
    ["100.64.3.4", "shared", /behind the NAT of a provider/],
    ["192.0.2.7", "example", /Type: reserved for documentation: not usable\./],
    ["198.18.0.1", "measuring", /Type: reserved for benchmarks: not usable otherwise\./],
    ["0.0.0.0", "unspecified", /Type: unspecified, no address is assigned\./],
    ["255.255.255.255", "broadcast", /Type: broadcast, all machines of a network at once\./],
    ["ff02::1", "multicast", /Type: multicast, a group of listeners, not a machine\./],
    ["::ffff:10.61.10.1", "IPv4 in IPv6", /an IPv4 address written as an IPv6 address/],
    ["240.0.0.1", "special", /not usable by a machine/],
    ["9.9.9.9", "public", /reachable from everywhere/],
  ])("%s is told by its kind", (address, kind, says) => {
    const decoded = decodeAddress(address, places, () => null)!;
    expect([decoded.kind, decoded.says[0]]).toEqual([kind, expect.stringMatching(says)]);
  });

  it.each(["wrk-hv2", "10.61.10", "10.61.010.1", "10.61.10.256", "", "fe80::1::2", "$(reboot)"])(
    "%j is none",
    (text) => expect(ask(text)).toBeNull(),
  );
});

it("an address that was made of a MAC gives it back, in any network, and no other does", () => {
  const mac = fc
    .uint8Array({ minLength: 6, maxLength: 6 })
    .map((bytes) => [...bytes].map((b) => b.toString(16).padStart(2, "0")).join(":"));
  fc.assert(
    fc.property(mac, (m) => {
      expect(macIn(slaacAddress("fd61:a::/64", m)!)).toBe(m);
    }),
  );
  expect([macIn("fd61:a::1"), macIn("10.61.10.1"), slaacAddress("fd61:a::/48", MAC)]).toEqual([
    null,
    null,
    null,
  ]);
});

it.each([
  ["10.61.10.0/24", "254 hosts, 10.61.10.1 to 10.61.10.254, mask 255.255.255.0"],
  ["10.61.10.6/31", "2 hosts, 10.61.10.6 to 10.61.10.7, mask 255.255.255.254"],
  ["10.61.10.6/32", "one host, 10.61.10.6, mask 255.255.255.255"],
  ["10.0.0.0/8", "16,777,214 hosts, 10.0.0.1 to 10.255.255.254, mask 255.0.0.0"],
  ["fd61:a::/64", "one network of /64, fd61:a::/64 to fd61:a::ffff:ffff:ffff:ffff"],
  ["fd61:a::/56", "256 networks of /64, fd61:a::/56 to fd61:a:0:ff:ffff:ffff:ffff:ffff"],
  ["fd61:a::/112", "part of one network of /64, fd61:a::/112 to fd61:a::ffff"],
  ["10.61.10.0", null],
])("says what %s holds", (prefix, words) => expect(prefixWords(prefix)).toBe(words));
