// A large installation for benches: the demo data with copies of its first machine and of one sheet.
import { readFileSync } from "node:fs";
import type { Export } from "@/core/record";

const hex = (value: number): string => (value & 255).toString(16).padStart(2, "0");

/** The demo data with copies up to a number of machines and builds; each copy has its own serial, MACs, names and address. */
export function large(machines: number, builds: number): Export {
  const demo = JSON.parse(readFileSync("demo/marrowby-water.json", "utf8")) as Export;
  const machine = demo.machines[0];
  const sheet = demo.builds.find((b) => b.id === "b-wrk-hv2");
  if (!machine || !sheet) throw new Error("the demo data lacks what this bench copies");
  for (let i = demo.machines.length; i < machines; i += 1) {
    const { facts, typed } = machine.document;
    demo.machines.push({
      ...machine,
      id: `m-bench-${i}`,
      name: `bench-${i}`,
      document: {
        ...machine.document,
        facts: {
          ...facts,
          chassis: { ...facts.chassis, serial: `BENCH${i}` },
          drives: facts.drives.map((d) => ({
            ...d,
            id: `${d.id}-${i}`,
            serial: `${d.serial}-${i}`,
            wwn: null,
          })),
          system: { ...facts.system, hostName: `bench-${i}`, addresses: [] },
          controller: { ...facts.controller, address: `10.77.${i >> 8}.${i & 255}` },
          ports: facts.ports.map((p, n) => ({ ...p, mac: `02:77:${hex(i >> 8)}:${hex(i)}:00:0${n}` })),
        },
        // Some twenty machines hang on one circuit.
        typed: {
          ...typed,
          dates: i % 50 === 0 ? typed.dates : [],
          circuit: `row ${i % Math.ceil(machines / 20)}`,
        },
      },
    } as Export["machines"][number]);
  }
  for (let i = demo.builds.length; i < builds; i += 1) {
    const own = {
      ...sheet.sheet,
      machine: { id: `m-bench-${10 + i}` },
      answers: { ...sheet.sheet.answers, hostName: `bench-${i}` },
      network: { ...sheet.sheet.network, address: `10.61.${12 + (i >> 8)}.${i & 255}` },
    };
    demo.builds.push({ ...sheet, id: `b-bench-${i}`, number: `B-${1000 + i}`, sheet: own, history: [] });
  }
  return demo;
}
