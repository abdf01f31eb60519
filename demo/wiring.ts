// The switches, other things and cables of the demo's three sites.
import type { CableEnd, Device } from "@/core/network";

const device = (id: string, kind: Device["kind"], more: object = {}): object => ({
  id,
  name: id,
  kind,
  ...more,
});
const ports = (first: number, last: number, set: object): object[] =>
  Array.from({ length: last - first + 1 }, (_, i) => ({ name: String(first + i), ...set }));

const mac = (address: string): CableEnd => ({ mac: `02:61:${address}` });
const port = (id: string, name: number | string): CableEnd => ({ device: id, port: String(name) });
let count = 0;
const cable = (a: CableEnd, b: CableEnd, lengthMetres: number): object => {
  count += 1;
  return { id: `cable-${count}`, a, b, lengthMetres, label: `C-${String(count).padStart(3, "0")}` };
};

const HOSTS = { mode: "trunk", native: 10, allowed: "20,30" };
const UPLINK = {
  mode: "trunk",
  native: 10,
  allowed: "20,30",
  group: "1",
  lacp: true,
  megabitsPerSecond: 10_000,
};

export const WORKS = {
  devices: [
    device("wrk-rt1", "router", {
      address: "10.61.10.1",
      place: "rack A, 24",
      logIn: "changed",
      portCount: 4,
    }),
    device("wrk-sw1", "switch", {
      ...{ address: "10.61.10.4", place: "rack A, 22", logIn: "changed", portCount: 24, mtu: 9216 },
      ports: [
        ...ports(1, 4, HOSTS),
        ...ports(9, 12, { mode: "access", native: 10 }),
        ...ports(13, 16, { mode: "access", native: 30 }),
        ...ports(23, 24, UPLINK),
      ],
    }),
    device("wrk-sw2", "switch", {
      ...{ address: "10.61.10.5", place: "rack A, 21", logIn: "changed", portCount: 24, mtu: 9216 },
      ports: [...ports(1, 4, HOSTS), ...ports(23, 24, UPLINK)],
    }),
    device("wrk-ps1", "power strip", { place: "rack A, rear left", logIn: "default", portCount: 1 }),
  ],
  cables: [
    cable(mac("0a:00:14:01"), port("wrk-sw1", 1), 2),
    cable(mac("0a:00:14:02"), port("wrk-sw2", 1), 2),
    cable(mac("0a:00:15:01"), port("wrk-sw1", 2), 2),
    cable(mac("0a:00:15:02"), port("wrk-sw2", 2), 2),
    cable(mac("0a:00:16:01"), port("wrk-sw1", 9), 3),
    cable(mac("0a:00:16:02"), port("wrk-sw1", 13), 3),
    cable(mac("0a:00:21:01"), port("wrk-sw1", 10), 1.5),
    cable(port("wrk-ps1", 1), port("wrk-sw1", 11), 1),
    cable(port("wrk-rt1", 1), port("wrk-sw1", 12), 1),
    cable(port("wrk-sw1", 23), port("wrk-sw2", 23), 0.5),
    cable(port("wrk-sw1", 24), port("wrk-sw2", 24), 0.5),
  ],
};

export const THORNHOPE = {
  devices: [
    device("tho-rt1", "router", {
      address: "10.61.20.1",
      place: "cabinet, top",
      logIn: "default",
      portCount: 5,
    }),
  ],
  cables: [
    cable(mac("14:00:00:01"), port("tho-rt1", 2), 1),
    cable(mac("14:00:00:02"), port("tho-rt1", 3), 1),
  ],
};

export const COLD_LANE = {
  devices: [
    device("cl-rt1", "router", {
      address: "10.61.30.1",
      place: "store room",
      logIn: "changed",
      portCount: 4,
    }),
    device("cl-sw1", "switch", {
      ...{ address: "10.61.30.4", place: "shelf, left", logIn: "not asked", portCount: 8 },
      ports: ports(1, 8, { mode: "access" }),
    }),
  ],
  cables: [
    cable(mac("1e:00:00:01"), port("cl-sw1", 3), 2),
    cable(mac("1e:00:00:07"), port("cl-sw1", 4), 2),
    cable(port("cl-rt1", 1), port("cl-sw1", 1), 0.5),
  ],
};
