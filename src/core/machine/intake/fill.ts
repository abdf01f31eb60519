import type { ListedMachine } from "./csv";
import { ROLES, typedSchema, type Expected, type MachineDocument, type Typed } from "../facts/document";
import type { Facts } from "../facts/facts";
import { typeFact } from "../document/by-hand";

type Port = Facts["ports"][number];

/** A document filled from a list, and the names of what was filled. */
export interface Filled {
  document: MachineDocument;
  fills: string[];
}

/**
 * Lays a row of a list over a machine. A list never overwrites what was read or typed: it fills what is empty, and marks it
 * as typed from that file.
 */
export function fillFromList(
  document: MachineDocument,
  row: ListedMachine,
  from: string,
  at: string,
): Filled {
  const fills: string[] = [];
  /** The listed value where there is a gap, and null otherwise. */
  const gap = <T>(name: string, has: T | null | undefined, listed: T | null): T | null => {
    if (listed === null || (has !== null && has !== undefined && has !== "")) return null;
    fills.push(name);
    return listed;
  };
  const { facts, typed } = document;
  const chassis = Object.fromEntries(
    (["maker", "model", "serial", "assetTag"] as const)
      .map((k) => [k, gap(k, facts.chassis?.[k], row[k])] as const)
      .filter(([, v]) => v !== null),
  );
  const address = gap("controller", facts.controller?.address, row.controller);
  const named = Object.keys(chassis).length > 0 ? typeFact(document, "chassis", chassis, at, from) : document;
  const next = address ? typeFact(named, "controller", { present: true, address }, at, from) : named;
  const part: Partial<Typed> = {
    place: gap("place", typed.place, row.place) ?? typed.place,
    role: gap("role", typed.role, ROLES.find((r) => r === row.role?.toLowerCase()) ?? null) ?? typed.role,
    expected: gap("expected", typed.expected, expectedOf(row, from)) ?? typed.expected,
  };
  const ports = facts.ports.length > 0 ? null : gap("ports", null, row.macs.length > 0 ? row.macs : null);
  const notes = gap("notes", next.notes, row.notes) ?? next.notes;
  const whole = { ...next, typed: typedSchema.parse({ ...typed, ...part }), notes };
  return { document: ports ? withPorts(whole, ports, from, at) : whole, fills };
}

/** Cores and memory of a list are what somebody wrote down: they are expected, not observed. */
const expectedOf = ({ cores, memoryBytes }: ListedMachine, from: string): Expected | null =>
  cores === null && memoryBytes === null
    ? null
    : { from, cores, memoryBytes, model: null, serial: null, memoryModules: null, ports: null, drives: [] };

/** Ports of which nothing is known but their addresses. */
function withPorts(
  document: MachineDocument,
  macs: readonly string[],
  from: string,
  at: string,
): MachineDocument {
  const port = (mac: string, i: number): Port => ({
    ...{ mac, seenAs: `port ${i + 1}`, otherNames: [], kind: "ethernet", link: "unknown" },
    ...{ speedMegabits: null, maxMegabits: null, pci: null, driver: null, mtu: null, memberOf: null },
    addresses: [],
  });
  const told = Object.fromEntries(macs.map((mac) => [`ports.${mac}.mac`, { tool: "typed", from, at }]));
  return {
    ...document,
    facts: { ...document.facts, ports: macs.map(port) },
    sources: { ...document.sources, ...told },
  };
}
