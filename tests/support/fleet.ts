import { readFileSync } from "node:fs";
import type { Client } from "../../simulators/netboot-client/machine";

/** The demo's telemetry host: a sheet that is ready to be armed. */
export const TELEMETRY = {
  build: "b-wrk-tm1",
  machine: "m-wrk-tm1",
  name: "wrk-tm1",
  mac: "02:61:0a:00:21:01",
  serial: "OST7K2M21",
};

export interface FleetMember extends Client {
  build: string;
}

interface Exported {
  machines: { id: string; name: string }[];
  builds: { id: string }[];
  runs: unknown[];
  drives: unknown[];
}

const two = (n: number): string => String(n).padStart(2, "0");

/**
 * An export with so many hosts like the telemetry host, each with its own serial, addresses and drives, and an issued sheet; and
 * the machines as they start over the network.
 */
export function fleetOf(count: number): { text: string; members: FleetMember[] } {
  const demo = JSON.parse(readFileSync("demo/marrowby-water.json", "utf8")) as Exported;
  const copies = Array.from({ length: count }, (_, i) => {
    const of = <T>(value: T): T =>
      JSON.parse(
        JSON.stringify(value)
          .replaceAll("OST7K2M21", `OST7F0${two(i)}`)
          .replaceAll("SLW96000", `SLW9${two(i)}00`)
          .replaceAll("02:61:0a:00:21:", `02:61:0b:00:${two(i)}:`)
          .replaceAll("wrk-tm1", `wrk-tm${two(i)}`)
          .replaceAll("10.61.10.40", `10.61.10.${40 + i}`)
          .replaceAll("10.61.10.221", `10.61.10.${180 + i}`)
          .replaceAll("B-0045", `B-1${two(i)}0`)
          .replaceAll("rack A, unit 16", ""),
      ) as T;
    return {
      machine: of(demo.machines.find((m) => m.id === TELEMETRY.machine)!),
      build: of(demo.builds.find((b) => b.id === TELEMETRY.build)!),
      member: {
        ...{ name: `wrk-tm${two(i)}`, mac: `02:61:0b:00:${two(i)}:01`, serial: `OST7F0${two(i)}` },
        ...{ uuid: "", maker: "Ostler", model: "R114", fault: null, build: `b-wrk-tm${two(i)}` },
        firmware: (["bios", "uefi", "uefi over http"] as const)[i % 3]!,
      },
    };
  });
  const text = JSON.stringify({
    ...demo,
    machines: copies.map((c) => c.machine),
    builds: copies.map((c) => c.build),
    ...{ runs: [], drives: [], readings: [], pictures: [], transfers: [], times: [] },
  });
  return { text, members: copies.map((c) => c.member) };
}
