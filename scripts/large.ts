// A large installation for benches: the demo data with copies of its first machine and of one sheet.
import { readFileSync } from "node:fs";
import type { Export } from "@/core/record";

const hex = (value: number): string => (value & 255).toString(16).padStart(2, "0");

/**
 * The demo data with copies up to a number of machines, builds and images; each copy has its own serial, MACs, names and
 * address.
 */
export function large(machines: number, builds: number, images = 0): Export {
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
  const [image] = demo.images;
  for (let i = demo.images.length; image && i < images; i += 1) {
    const name = `image ${i}`;
    const value = i.toString(16).padStart(64, "0");
    demo.images.push({
      id: `i-bench-${i}`,
      document: {
        ...image.document,
        ...{ name, version: `9.0.${i}`, fileName: `bench-${i}.iso`, sizeBytes: image.document.sizeBytes + i },
        ...{ published: { algorithm: "sha256", value }, computed: null, inside: null },
      },
    });
  }
  return demo;
}

/** The demo data with a sheet (b-wrk-hv2) of at least so many findings: a note on each of as many parts of its machine. */
export function crowded(findings: number): Export {
  const demo = JSON.parse(readFileSync("demo/marrowby-water.json", "utf8")) as Export;
  const machine = demo.machines.find((m) => m.id === "m-wrk-hv2");
  const note = demo.compatNotes[0]?.note;
  if (!machine || !note) throw new Error("the demo data lacks what this bench copies");
  for (let i = 0; i < findings; i += 1) {
    const ids = `f0c0:${(0x1000 + i).toString(16)}`;
    const name = `bench part ${i}`;
    machine.document.facts.usb.push({ ids, name });
    const own: typeof note = {
      ...note,
      subject: { kind: "usb", value: ids, name },
      verdict: "works with a condition",
      condition: "in a port of the rear only",
      trials: [],
    };
    demo.compatNotes.push({ id: `n-bench-${i}`, note: own });
  }
  return demo;
}
