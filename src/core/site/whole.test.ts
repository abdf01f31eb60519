import { describe, expect, it } from "vitest";
import { seeded } from "../../../tests/support/random";
import { addressClaim, macClaim, nameClaim, type Claim } from "../claims";
import {
  judgeSite,
  rejudgeInPlace,
  SITE_MESSAGES,
  siteClaims,
  siteFindings,
  siteSchema,
  type Site,
  type SiteClaim,
} from ".";

const segment = (id: string, prefix: string, more: object = {}) => ({
  ...{ id, name: id, purpose: "management", prefix, ...more },
});
const site = (more: object = {}): Site =>
  siteSchema.parse({
    ...{ schemaVersion: 2, name: "Works" },
    segments: [segment("mgmt", "10.61.10.0/24", { dhcp: [{ from: "10.61.10.100", to: "10.61.10.179" }] })],
    ...more,
  });
const held = (
  claims: readonly Claim[],
  owner: SiteClaim["owner"],
  ownerId: string,
  more: Partial<SiteClaim> = {},
): SiteClaim[] =>
  claims.map((c) => ({
    ...c,
    owner,
    ownerId,
    name: ownerId,
    machineId: owner === "machine" ? ownerId : null,
    ...more,
  }));
const ofSite = (more: object = {}): SiteClaim[] => held(siteClaims(site(more)), "site", "Works");
const machine = (id: string, ...claims: Claim[][]): SiteClaim[] => held(claims.flat(), "machine", id);
const sheet = (machineId: string, ...claims: Claim[][]): SiteClaim[] =>
  held(claims.flat(), "build", `B of ${machineId}`, { machineId });
const says = (claims: readonly SiteClaim[]): string[] =>
  siteFindings(judgeSite(claims)).map((f) => `${f.severity} ${f.code}: ${f.says}`);
const MAC = "02:61:0a:00:14:01";
const reserved = (address: string, mac = MAC) => ({ mac, address, name: "strip" });
const withReservations = (...reservations: object[]) => ({
  segments: [{ ...site().segments[0], reservations }],
});
const thing = (name: string, more: object = {}) => ({ id: name, name, ...more });
const cable = (id: string, port: string) => ({
  id,
  a: { mac: `02:00:00:00:00:0${id}` },
  b: { device: "sw1", port },
});

const FIRING: [code: keyof typeof SITE_MESSAGES, says: RegExp, claims: SiteClaim[]][] = [
  [
    "site.address-twice",
    /^stop .*10\.61\.10\.20 is in use by a and B of b/,
    [...ofSite(), ...machine("a", addressClaim("10.61.10.20")), ...sheet("b", addressClaim("10.61.10.20"))],
  ],
  [
    "site.address-outside",
    /10\.61\.99\.4 of printer is in none of the networks of the site/,
    ofSite({ devices: [thing("printer", { address: "10.61.99.4" })] }),
  ],
  [
    "site.address-in-range",
    /10\.61\.10\.122 of B of b is in the DHCP range of mgmt/,
    [...ofSite(), ...sheet("b", addressClaim("10.61.10.122"))],
  ],
  [
    "site.reserved-otherwise",
    /and planned for a/,
    [...ofSite(withReservations(reserved("10.61.10.20"))), ...machine("a", addressClaim("10.61.10.20"))],
  ],
  [
    "site.mac-twice",
    /The MAC 02:61:0a:00:14:01 is that of a and b/,
    [...machine("a", [macClaim(MAC)]), ...machine("b", [macClaim(MAC)])],
  ],
  [
    "site.reservations",
    /several reservations: 10\.61\.10\.8, 10\.61\.10\.9/,
    ofSite(withReservations(reserved("10.61.10.8"), reserved("10.61.10.9"))),
  ],
  [
    "site.name-twice",
    /The name hv1 is that of a and b/,
    [...machine("a", nameClaim("HV1")), ...machine("b", nameClaim("hv1"))],
  ],
  [
    "site.port-twice",
    /sw1 port 3 has 2 cables/,
    ofSite({ devices: [thing("sw1")], cables: [cable("1", "3"), cable("2", "3")] }),
  ],
  [
    "site.vlan-twice",
    /VLAN 10 is that of a and b/,
    ofSite({
      segments: [
        segment("a", "10.1.0.0/24", { vlan: 10 }),
        segment("b", "10.2.0.0/24", { vlan: 10 }),
        segment("c", "fd61::/64", { vlan: 10 }),
      ],
    }),
  ],
  [
    "site.prefix-overlap",
    /^stop .*a \(10\.1\.0\.0 to 10\.1\.0\.255\) overlaps b \(10\.1\.0\.128/,
    ofSite({ segments: [segment("a", "10.1.0.0/24"), segment("b", "10.1.0.128/25")] }),
  ],
  [
    "site.prefix-overlap",
    /^caution .*overlaps LAN of Thornhope \(10\.61\.10\.0/,
    [
      ...ofSite(),
      ...held(
        [
          {
            kind: "prefix",
            key: siteClaims(site())
              .find((c) => c.kind === "prefix")!
              .key.replace("mgmt", "LAN"),
          },
        ],
        "site",
        "Thornhope",
        { elsewhere: true },
      ),
    ],
  ],
  [
    "site.range-overlap",
    /The range in mgmt .* overlaps mgmt/,
    ofSite({
      segments: [
        segment("mgmt", "10.61.10.0/24", {
          dhcp: [
            { from: "10.61.10.10", to: "10.61.10.20" },
            { from: "10.61.10.20", to: "10.61.10.30" },
          ],
        }),
      ],
    }),
  ],
  [
    "site.default-log-in",
    /sw1 still uses its factory login/,
    ofSite({ devices: [thing("sw1", { logIn: "default" })] }),
  ],
];

describe("a whole site", () => {
  it.each(FIRING)("%s says %s", (code, expected, claims) =>
    expect(
      says(claims)
        .filter((s) => s.includes(code))
        .join("\n"),
    ).toMatch(expected),
  );
  it("every rule fires above", () =>
    expect([...new Set(FIRING.map(([code]) => code))].sort()).toEqual(Object.keys(SITE_MESSAGES).sort()));

  it.each<[string, SiteClaim[]]>([
    [
      "a machine and the sheet for it have one address",
      [...ofSite(), ...machine("a", addressClaim("10.61.10.20")), ...sheet("a", addressClaim("10.61.10.20"))],
    ],
    [
      "what was lent to a machine lies in the range",
      [...ofSite(), ...machine("a", addressClaim("10.61.10.150"))],
    ],
    [
      "a reservation inside the range is for that card",
      [
        ...ofSite(withReservations(reserved("10.61.10.150"))),
        ...machine("a", [macClaim(MAC)]),
        ...sheet("a", addressClaim("10.61.10.150")),
      ],
    ],
    [
      "bridges inside machines have the same address",
      [...ofSite(), ...machine("a", addressClaim("172.17.0.1")), ...machine("b", addressClaim("172.17.0.1"))],
    ],
    [
      "a patch panel has two cables in a port",
      ofSite({
        devices: [thing("sw1", { kind: "patch panel" })],
        cables: [cable("1", "3"), cable("2", "3")],
      }),
    ],
    ["two MACs of one machine", machine("a", [macClaim(MAC)], [macClaim("02:61:0a:00:14:02")])],
  ])("is silent where %s", (_, claims) => expect(says(claims)).toEqual([]));

  it("is the same after changes one by one as judged anew", () => {
    const random = seeded(13);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
    const addresses = ["10.61.10.20", "10.61.10.150", "10.61.10.8", "10.61.99.1", "fd61::2"];
    const macs = [MAC, "02:61:0a:00:14:02"];
    const some = {
      site: () =>
        ofSite({
          ...withReservations(reserved(pick(addresses.slice(0, 3)), pick(macs))),
          devices: [thing("sw1", { address: pick(addresses), logIn: pick(["default", "changed"]) })],
        }),
      machine: (id: string) =>
        machine(id, addressClaim(pick(addresses)), [macClaim(pick(macs))], nameClaim(pick(["x", "y"]))),
    };
    let now = [...some.site(), ...["a", "b", "c"].flatMap(some.machine)];
    const judgement = judgeSite(now);
    for (let i = 0; i < 300; i += 1) {
      const owner = pick(["Works", "a", "b", "c"]);
      const removed = now.filter((c) => c.ownerId === owner);
      const added = random() < 0.15 ? [] : owner === "Works" ? some.site() : some.machine(owner);
      rejudgeInPlace(judgement, { removed, added });
      now = [...now.filter((c) => c.ownerId !== owner), ...added];
      const line = (f: { key: string; says: string }): string => f.key.split(" ").slice(0, 2).join(" ");
      const anew = siteFindings(judgeSite(now));
      expect(siteFindings(judgement).map(line), `change ${i}`).toEqual(anew.map(line));
    }
  });
});
