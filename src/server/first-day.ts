import type { NamedText } from "@/core/machine";
import { buildRows, machineRows, runRows, siteRows } from "@/db";
import type { Answer } from "@/contract";
import { createBuild } from "./builds";
import type { Desk } from "./desk";
import { createMachine } from "./imports";
import { createSite } from "./sites";

/** Whether nothing is here yet: no machine and no sheet. */
export const isFirstDay = async ({ db }: Desk): Promise<boolean> =>
  !(await machineRows.any(db)) && !(await buildRows.any(db));

/** Whether no build was ever carried out here. */
export const nothingWasBuilt = async ({ db }: Desk): Promise<boolean> => !(await runRows.any(db));

/**
 * The first machine with its sheet, from what its tools printed or by its name alone. The place where it stands is made
 * along with it, as the machine was found there; it can be named later. Gives the id of the sheet.
 */
export async function beginFirst(desk: Desk, name: string, texts: NamedText[]): Promise<Answer<string>> {
  const [known] = await siteRows.all(desk.db);
  const site = known ? ({ ok: true, value: known.id } as const) : await createSite(desk, "First site", texts);
  if (!site.ok) return site;
  const machine = await createMachine(desk, site.value, name, texts);
  return machine.ok ? { ...machine, value: await createBuild(desk, machine.value) } : machine;
}
