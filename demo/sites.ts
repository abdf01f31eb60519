// The three sites of the demo, and which machine stands where.
import { siteSchema } from "@/core/site";
import type { MachineDocument } from "@/core/machine";
import { coldLaneBackup, coldLaneWorkstation, thornhopeA, thornhopeB } from "./stations";
import { COLD_LANE, THORNHOPE, WORKS } from "./wiring";
import { wrkHv1, wrkHv2, wrkSt1, wrkTm1 } from "./works";

const site = (id: string, document: object) => ({
  id,
  document: siteSchema.parse({
    schemaVersion: 2,
    timeZone: "Europe/London",
    locale: "en_GB.UTF-8",
    keyboard: "gb",
    domain: "marrowby.example",
    tariff: { perKilowattHour: 0.29, currency: "£" },
    ...document,
  }),
});

export const sites = [
  site("s-works", {
    name: "Works",
    room: "Control building, rack A, 24U",
    circuits: [{ name: "A1", limitWatts: 1500 }],
    link: { bitsPerSecond: 12e6, roundTripSeconds: 0.038 },
    segments: [
      {
        id: "works-mgmt",
        name: "Works management",
        purpose: "management",
        vlan: 10,
        prefix: "10.61.10.0/24",
        gateway: "10.61.10.1",
        nameServers: ["10.61.10.2", "10.61.10.3"],
        dhcp: [{ from: "10.61.10.100", to: "10.61.10.179" }],
        reservations: [{ mac: "02:61:0a:00:00:09", address: "10.61.10.9", name: "rack A power strip" }],
      },
      {
        id: "works-store",
        name: "Works storage",
        purpose: "storage",
        vlan: 30,
        prefix: "10.61.11.0/24",
        gateway: null,
        mtu: 9000,
      },
      {
        id: "works-guests",
        name: "Works guests",
        purpose: "guests",
        vlan: 20,
        prefix: "10.61.12.0/24",
        gateway: "10.61.12.1",
        nameServers: ["10.61.10.2", "10.61.10.3"],
        dhcp: [{ from: "10.61.12.128", to: "10.61.12.223" }],
      },
    ],
    proxy: "http://10.61.10.8:3128",
    networkBoot: "on",
    parameters: [{ name: "collector", value: "https://metrics.marrowby.example/" }],
    sources: [{ family: "lowland-server", url: "http://mirror.marrowby.example/lowland/7/" }],
    naming: [
      { role: "hypervisor", pattern: "wrk-hv#" },
      { role: "storage", pattern: "wrk-st#" },
      { role: "database", pattern: "wrk-tm#" },
    ],
    firmware: [
      { role: null, setting: "powerLoss", value: "on", why: "no staff in the building at night" },
      {
        role: "hypervisor",
        setting: "sriov",
        value: "on",
        why: "guests of the control network use separate ports",
      },
      { role: null, setting: "fans", value: "quiet", why: "the rack is next to the control desk" },
    ],
    ...WORKS,
  }),
  site("s-thornhope", {
    name: "Thornhope",
    room: "Pumping station, wall cabinet",
    ...THORNHOPE,
    naming: [{ role: null, pattern: "tho-@" }],
    circuits: [{ name: "cabinet", limitWatts: 400 }],
    addressSchool: "reserved",
    segments: [
      {
        id: "tho-lan",
        name: "Thornhope station",
        purpose: "management",
        prefix: "10.61.20.0/26",
        gateway: "10.61.20.1",
        nameServers: ["10.61.20.1"],
        dhcp: [{ from: "10.61.20.32", to: "10.61.20.55" }],
        reservations: [
          { mac: "02:61:14:00:00:01", address: "10.61.20.11", name: "tho-a" },
          { mac: "02:61:14:00:00:02", address: "10.61.20.12", name: "tho-b" },
        ],
      },
    ],
  }),
  site("s-coldlane", {
    name: "Cold Lane",
    room: "Office, store room shelf",
    ...COLD_LANE,
    naming: [{ role: "backup", pattern: "cl-bk#" }],
    circuits: [{ name: "office", limitWatts: 2000 }],
    segments: [
      {
        id: "cl-lan",
        name: "Cold Lane office",
        purpose: "management",
        prefix: "10.61.30.0/24",
        gateway: "10.61.30.1",
        nameServers: ["10.61.30.1"],
        dhcp: [{ from: "10.61.30.50", to: "10.61.30.200" }],
      },
    ],
  }),
];

export const machines: { id: string; siteId: string; name: string; document: MachineDocument }[] = [
  { id: "m-wrk-hv1", siteId: "s-works", name: "wrk-hv1", document: wrkHv1 },
  { id: "m-wrk-hv2", siteId: "s-works", name: "wrk-hv2", document: wrkHv2 },
  { id: "m-wrk-st1", siteId: "s-works", name: "wrk-st1", document: wrkSt1 },
  { id: "m-wrk-tm1", siteId: "s-works", name: "wrk-tm1", document: wrkTm1 },
  { id: "m-tho-a", siteId: "s-thornhope", name: "tho-a", document: thornhopeA },
  { id: "m-tho-b", siteId: "s-thornhope", name: "tho-b", document: thornhopeB },
  { id: "m-cl-bk1", siteId: "s-coldlane", name: "cl-bk1", document: coldLaneBackup },
  { id: "m-cl-ws1", siteId: "s-coldlane", name: "cl-ws1", document: coldLaneWorkstation },
];
