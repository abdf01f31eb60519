import {
  emptyMachine,
  parseMachineList,
  ROLES,
  typeFact,
  typedSchema,
  type ListedMachine,
  type MachineDocument,
} from "@/core/machine";
import type { Problem } from "@/core/result";
import { emptySite } from "@/core/site";
import { machineRows, siteRows } from "@/db";
import { no, yes, type Answer } from "./answer";
import type { Desk } from "./desk";

/** What a list would do, row by row, before anything is done. */
export interface ListPreview {
  rows: {
    line: number;
    name: string;
    site: string;
    does: "new machine" | "fills in" | "nothing new";
    fills: string[];
  }[];
  newSites: string[];
  warnings: Problem[];
}

interface Planned extends Omit<ListPreview["rows"][number], "fills"> {
  fills: string[];
  id: string | null;
  document: MachineDocument;
}

/**
 * Lays a row over a machine's document. A list never overwrites what was read or typed: it fills what is empty, and
 * marks it as typed from that file.
 */
function fill(
  row: ListedMachine,
  document: MachineDocument,
  from: string,
  at: string,
): { document: MachineDocument; fills: string[] } {
  const { facts, typed } = document;
  const fills: string[] = [];
  const gap = <T>(name: string, has: T | null | undefined, value: T | null): T | null => {
    if (value === null || (has !== null && has !== undefined && has !== "")) return null;
    fills.push(name);
    return value;
  };
  const chassis = Object.fromEntries(
    (["maker", "model", "serial", "assetTag"] as const)
      .map((k) => [k, gap(k, facts.chassis?.[k], row[k])] as const)
      .filter(([, v]) => v !== null),
  );
  let next = typeFact(document, "chassis", chassis, at, from);
  const address = gap("controller", facts.controller?.address, row.controller);
  if (address) next = typeFact(next, "controller", { present: true, address }, at, from);
  const role = ROLES.find((r) => r === row.role?.toLowerCase()) ?? null;
  const part = {
    place: gap("place", typed.place, row.place) ?? typed.place,
    role: gap("role", typed.role, role) ?? typed.role,
    expected: typed.expected,
  };
  // Cores and memory of a list are what somebody wrote down: they are expected, not observed.
  if ((row.cores !== null || row.memoryBytes !== null) && typed.expected === null) {
    fills.push("expected");
    part.expected = {
      from,
      model: null,
      serial: null,
      cores: row.cores,
      memoryBytes: row.memoryBytes,
      memoryModules: null,
      ports: null,
      drives: [],
    };
  }
  const ports = row.macs.filter((mac) => !facts.ports.some((p) => p.mac === mac));
  if (ports.length > 0 && facts.ports.length === 0) {
    fills.push("ports");
    next.facts.ports = ports.map((mac, i) => ({
      mac,
      seenAs: `port ${i + 1}`,
      otherNames: [],
      kind: "ethernet",
      link: "unknown",
      speedMegabits: null,
      maxMegabits: null,
      pci: null,
      driver: null,
      mtu: null,
      memberOf: null,
      addresses: [],
    }));
    for (const mac of ports) next.sources[`ports.${mac}.mac`] = { tool: "typed", from, at };
  }
  const notes = gap("notes", next.notes, row.notes) ?? next.notes;
  return { document: { ...next, typed: typedSchema.parse({ ...typed, ...part }), notes }, fills };
}

async function planList(
  desk: Desk,
  text: string,
  from: string,
): Promise<Answer<{ planned: Planned[]; newSites: string[]; warnings: Problem[] }>> {
  const list = parseMachineList(text);
  if (!list.ok) return { ok: false, problems: list.problems };
  const { db } = desk;
  const [machines, sites] = await Promise.all([machineRows.all(db), siteRows.all(db)]);
  const siteId = new Map(sites.map((s) => [s.site.name.toLowerCase(), s.id]));
  const at = desk.now();
  const nowhere = list.value.filter((r) => r.site === "");
  if (nowhere.length > 0)
    return {
      ok: false,
      problems: nowhere
        .slice(0, 10)
        .map((r) => ({ message: `${r.name} has no site; fill the column "site"`, line: r.line })),
    };
  const planned = list.value.map((row): Planned => {
    const known =
      machines.find((m) => row.serial && m.document.facts.chassis?.serial === row.serial) ??
      machines.find((m) => m.name === row.name && m.siteId === siteId.get(row.site.toLowerCase()));
    const { document, fills } = fill(row, known?.document ?? emptyMachine(), from, at);
    return {
      line: row.line,
      name: known?.name ?? row.name,
      site: row.site,
      id: known?.id ?? null,
      document,
      fills,
      does: !known ? "new machine" : fills.length > 0 ? "fills in" : "nothing new",
    };
  });
  const newSites = [...new Set(list.value.map((r) => r.site).filter((s) => !siteId.has(s.toLowerCase())))];
  return yes({ planned, newSites, warnings: list.warnings });
}

export async function previewList(desk: Desk, text: string, from: string): Promise<Answer<ListPreview>> {
  const plan = await planList(desk, text, from);
  if (!plan.ok) return plan;
  const { planned, newSites, warnings } = plan.value;
  return yes({
    rows: planned.map(({ line, name, site, does, fills }) => ({ line, name, site, does, fills })),
    newSites,
    warnings,
  });
}

/** Takes a list over: new sites, new machines, gaps filled. Everything in one transaction. */
export async function takeList(
  desk: Desk,
  text: string,
  from: string,
): Promise<Answer<{ added: number; filled: number }>> {
  const plan = await planList(desk, text, from);
  if (!plan.ok) return plan;
  const { planned, newSites } = plan.value;
  const { db, write } = desk;
  const stamp = desk.stamp();
  const siteIds = new Map((await siteRows.all(db)).map((s) => [s.site.name.toLowerCase(), s.id]));
  const done = await write(async (tx) => {
    for (const name of newSites) {
      const id = desk.newId("s");
      await siteRows.insert(tx, id, emptySite(name), stamp);
      siteIds.set(name.toLowerCase(), id);
    }
    let [added, filled] = [0, 0];
    for (const row of planned) {
      if (row.id === null) {
        await machineRows.insert(
          tx,
          desk.newId("m"),
          siteIds.get(row.site.toLowerCase()) ?? "",
          row.name,
          row.document,
          stamp,
        );
        added += 1;
      } else if (row.fills.length > 0) {
        const known = await machineRows.one(tx, row.id);
        if (known && (await machineRows.update(tx, { ...known, document: row.document }, stamp))) filled += 1;
      }
    }
    return { added, filled };
  });
  return done.added + done.filled === 0 ? no("Nothing in this list is new.") : yes(done);
}
