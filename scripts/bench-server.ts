// How long the server's use cases take beside 500 machines with 200 builds, and beside 2,000 and 5,000 with 1,000.
import { mkdirSync, rmSync } from "node:fs";
import { resolve } from "node:path";
import { buildView, listBuilds } from "@/server/builds";
import { saveEdits } from "@/server/sheet-acts";
import { notesWithMachines } from "@/server/compat";
import { closeDatabase } from "@/server/database";
import { importAll } from "@/server/exports";
import { find } from "@/server/find";
import { listMachines, machineView } from "@/server/machines";
import { addShippedProfiles } from "@/server/profiles";
import { siteCheck } from "@/server/site-check";
import { todayView } from "@/server/today";
import { large } from "./large";
import { desk } from "../tests/support/desk";

const SHEET = "b-wrk-hv2";
const folder = resolve(".derrick/bench");
mkdirSync(folder, { recursive: true });

/** The median and the 95th of a hundred of calls, after ten that warm up. */
async function time(name: string, aim: string, work: () => Promise<unknown>): Promise<void> {
  const runs: number[] = [];
  for (let i = 0; i < 40; i += 1) {
    const start = performance.now();
    await work();
    if (i >= 10) runs.push(performance.now() - start);
  }
  runs.sort((a, b) => a - b);
  const at = (share: number) => `${(runs[Math.floor(runs.length * share)] ?? 0).toFixed(1)} ms`;
  console.log(
    `${name.padEnd(62)} median ${at(0.5).padStart(10)}   p95 ${at(0.95).padStart(10)}   target ${aim}`,
  );
}

let note = 0;
/** A change of one field, as a person's next key press. */
async function save(): Promise<void> {
  const { version, sheet } = (await buildView(await desk(), SHEET))!.build;
  const start = performance.now();
  const { notes } = sheet.handOver;
  const edit = { path: "handOver.notes", before: notes, after: `note ${(note += 1)}` };
  const answer = await saveEdits(await desk(), SHEET, version, [edit]);
  if (!answer.ok) throw new Error(answer.problems[0]?.message);
  saves.push(performance.now() - start);
}
let saves: number[] = [];

async function on(machines: number, builds: number): Promise<void> {
  const file = `${folder}/bench-${machines}.db`;
  for (const end of ["", "-wal", "-shm"]) rmSync(file + end, { force: true });
  process.env.DERRICK_DB_URL = `file:${file}`;
  const loaded = await importAll(await desk(), JSON.stringify(large(machines, builds)), { rebase: false });
  if (!loaded.ok) throw new Error(loaded.problems[0]?.message);
  await addShippedProfiles(await desk());
  // The import is written into the one file meanwhile.
  await new Promise((resolve) => setTimeout(resolve, 4000));
  console.log(`\nWith ${machines} machines and ${builds} builds`);
  await time("build sheet", "25 ms", async () => buildView(await desk(), SHEET));
  saves = [];
  for (let i = 0; i < 40; i += 1) await save();
  saves = saves.slice(10).sort((a, b) => a - b);
  console.log(
    `${"save of one field".padEnd(62)} median ${`${saves[15]!.toFixed(1)} ms`.padStart(10)}   p95 ${`${saves[28]!.toFixed(1)} ms`.padStart(10)}   target 25 ms`,
  );
  await time("Today", "20 ms", async () => todayView(await desk()));
  await time("find with a sheet open", "10 ms", async () => find(await desk(), "bench-77", SHEET));
  await time("find with a dialog of the keys", "50 ms", async () => find(await desk(), "bnech-77", SHEET));
  await time("list of machines", "30 ms", async () => listMachines(await desk()));
  await time("list of builds", "30 ms", async () => listBuilds(await desk()));
  await time("one machine", "30 ms", async () => machineView(await desk(), "m-wrk-hv2"));
  await time("compatibility", "30 ms", async () => notesWithMachines(await desk()));
  const checks: number[] = [];
  for (let i = 0; i < 10; i += 1) {
    await save();
    const start = performance.now();
    await siteCheck(await desk(), "s-works");
    checks.push(performance.now() - start);
  }
  // The first reads all claims of the site; the others what has changed since.
  const [first, ...more] = checks;
  console.log(
    `${"check of the whole site, first and after an edit".padEnd(62)} median ${`${first!.toFixed(1)} ms`.padStart(10)}   then ${`${more.sort((a, b) => a - b)[4]!.toFixed(1)} ms`.padStart(9)}   target 200, 16 ms`,
  );
  await closeDatabase();
}

await on(500, 200);
await on(2000, 1000);
await on(5000, 1000);
