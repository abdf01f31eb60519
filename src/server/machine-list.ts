import type { Answer } from "@/contract";
import { emptyMachine, fillFromList, parseMachineList, type MachineDocument } from "@/core/machine";
import type { Problem } from "@/core/result";
import { openLineOf } from "@/core/text";
import { emptySite } from "@/core/site";
import { machineRows, siteRows } from "@/db";
import { no, yes } from "./answer";
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
  /** A last line that has no end, and is not taken; null where there is none. */
  openLine: number | null;
}

interface Planned extends Omit<ListPreview["rows"][number], "fills"> {
  fills: string[];
  id: string | null;
  document: MachineDocument;
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
        .map((r) => ({ message: `${r.name} has no site; fill in the column "site"`, line: r.line })),
    };
  const planned = list.value.map((row): Planned => {
    const known =
      machines.find((m) => row.serial && m.document.facts.chassis?.serial === row.serial) ??
      machines.find((m) => m.name === row.name && m.siteId === siteId.get(row.site.toLowerCase()));
    const { document, fills } = fillFromList(known?.document ?? emptyMachine(), row, from, at);
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
    openLine: openLineOf(text),
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
  return done.added + done.filled === 0 ? no("The list has nothing new.") : yes(done);
}
