// How long a whole site takes: its check over claims, one edit in it, and the files of all its machines.
import { judgeSite, rejudgeInPlace, siteClaims, siteFindings, siteSchema, type SiteClaim } from "@/core/site";
import {
  hostPlan,
  NETWORK_WRITERS,
  writeDnsmasq,
  writeHosts,
  writeKea,
  writeReverseZones,
  writeSshConfig,
  writeZone,
  type HostPlan,
  type SitePlan,
} from "@/core/network";
import { addressClaim, macClaim, nameClaim } from "@/core/claims";
import { HOST_PLANS } from "../tests/support/network-plans";
import { aBuild } from "../tests/support/builds";
import { line, timed } from "./bench-line";

const MACHINES = 2000;
const address = (i: number): string => `10.61.${Math.floor(i / 250)}.${(i % 250) + 2}`;
const mac = (i: number, port: number): string =>
  [2, 0x61, i >> 16, (i >> 8) & 255, i & 255, port].map((n) => n.toString(16).padStart(2, "0")).join(":");

const site = siteSchema.parse({
  ...{ schemaVersion: 2, name: "Large", domain: "marrowby.example" },
  segments: Array.from({ length: 20 }, (_, i) => ({
    ...{ id: `s${i}`, name: `Network ${i}`, purpose: "management", vlan: 10 + i, prefix: `10.61.${i}.0/24` },
    ...{
      gateway: `10.61.${i}.1`,
      nameServers: ["10.61.0.2"],
      dhcp: [{ from: `10.61.${i}.253`, to: `10.61.${i}.254` }],
    },
    reservations: Array.from({ length: 50 }, (_, r) => ({
      mac: mac(9000 + i * 50 + r, 0),
      address: `10.61.${i}.${200 + r}`,
      name: `thing ${r}`,
    })),
  })),
  devices: Array.from({ length: 30 }, (_, i) => ({
    id: `sw${i}`,
    name: `sw-${i}`,
    kind: "switch",
    portCount: 48,
    logIn: "changed",
  })),
});

/** What a machine of the site claims, with the sheet for it. */
const ofMachine = (i: number, at = address(i)): SiteClaim[] =>
  [addressClaim(at), nameClaim(`host-${i}`), [0, 1, 2, 3].map((p) => macClaim(mac(i, p)))]
    .flat()
    .map((c) => ({
      ...{ ...c, owner: "machine", ownerId: `m${i}`, name: `host-${i}`, machineId: `m${i}` },
    }));
const claims: SiteClaim[] = [
  ...siteClaims(site).map((c) => ({
    ...c,
    owner: "site" as const,
    ownerId: "s",
    name: "Large",
    machineId: null,
  })),
  ...Array.from({ length: MACHINES }, (_, i) => ofMachine(i)).flat(),
];

line(
  `check of a whole site of ${MACHINES} machines, ${claims.length} claims`,
  "200 ms",
  timed(() => siteFindings(judgeSite(claims)), 20),
);
const judgement = judgeSite(claims);
let turn = 0;
line(
  "one edit in it",
  "16 ms",
  timed(() => {
    turn += 1;
    const [old, next] = [
      ofMachine(7, turn % 2 ? address(7) : address(8)),
      ofMachine(7, turn % 2 ? address(8) : address(7)),
    ];
    rejudgeInPlace(judgement, { removed: old, added: next });
    siteFindings(judgement);
  }, 100),
);

const plan: SitePlan = {
  ...{ name: site.name, domain: site.domain, segments: site.segments },
  hosts: Array.from({ length: MACHINES }, (_, i) => ({
    name: `host-${i}`,
    address: address(i),
    mac: i % 2 ? mac(i, 0) : null,
  })),
};
line(
  `files of a site with ${MACHINES} machines`,
  "1000 ms",
  timed(() => {
    for (const write of [writeDnsmasq, writeKea, writeHosts, writeSshConfig]) write(plan);
    writeZone(plan, 1);
    writeReverseZones(plan, 1);
  }, 10),
);
const hosts: HostPlan[] = Object.values(HOST_PLANS);
line(
  `files of ${MACHINES} machines, each in its format`,
  "1000 ms",
  timed(() => {
    const writers = Object.values(NETWORK_WRITERS);
    for (let i = 0; i < MACHINES; i += 1) writers[i % writers.length]!(hosts[i % hosts.length]!);
  }, 5),
);
const ground = aBuild();
line(
  "the plan of one machine's network",
  "1 ms",
  timed(() => hostPlan(ground, { hostName: "a", domain: "b.example" }), 200),
);
