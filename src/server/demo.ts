import { mkdtemp, readFile, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openDatabase, refreshProjections, type Database } from "@/db";
import { deskOver, type Desk } from "./desk";
import { readEnvironment } from "./environment";
import { importAll } from "./exports";
import { LookOnlyError } from "./look-only";
import { addShippedProfiles } from "./profiles";

interface Demo extends Database {
  folder: string;
}

// Next loads server code in several bundles; the demo is opened once for all of them.
const shared = globalThis as { derrickDemo?: Promise<Demo> };

/** The demo's data in a database of its own, in a folder that goes with it; its times are moved to now. */
async function open(): Promise<Demo> {
  const { migrationsFolder, demoFile } = readEnvironment();
  const folder = await mkdtemp(join(tmpdir(), "derrick-demo-"));
  const opened = await openDatabase(`file:${join(folder, "demo.db")}`, undefined, migrationsFolder);
  const desk = deskOver(opened, "Derrick");
  await addShippedProfiles(desk);
  const loaded = await importAll(desk, await readFile(demoFile, "utf8"), { rebase: true });
  if (!loaded.ok) throw new Error(`The demo data cannot be loaded: ${loaded.problems[0]?.message}`);
  await refreshProjections(opened);
  return { ...opened, folder };
}

function demo(): Promise<Demo> {
  shared.derrickDemo ??= open().catch((error: unknown) => {
    delete shared.derrickDemo;
    throw error;
  });
  return shared.derrickDemo;
}

/** A desk at which the demo's data can be looked at, and nothing be written. */
export async function demoDesk(actor: string): Promise<Desk> {
  const refuse = () => Promise.reject(new LookOnlyError());
  return { ...deskOver(await demo(), actor), write: refuse };
}

/** Closes the demo's data and removes them; who still looks opens them anew. */
export async function closeDemo(): Promise<void> {
  const opened = shared.derrickDemo;
  delete shared.derrickDemo;
  const last = await opened?.catch(() => null);
  await last?.close();
  if (last) await rm(last.folder, { recursive: true, force: true });
}
