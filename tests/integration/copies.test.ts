import { sql } from "drizzle-orm";
import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { spawn, spawnSync } from "node:child_process";
import { join } from "node:path";
import { createClient } from "@libsql/client";
import { afterAll, expect, it } from "vitest";
import { backUp, openDatabase, restore, siteRows } from "@/db";
import { siteSchema } from "@/core/site";

const folder = mkdtempSync("/tmp/derrick-copies-");
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const at = "2026-11-26T02:14:05.000Z";
const site = siteSchema.parse({ schemaVersion: 2, name: "Works" });
const urlOf = (name: string): string => `file:${join(folder, name)}`;
const open = (name: string) => openDatabase(urlOf(name), undefined, "src/db/migrations");

async function withSite(name: string, id = "s-1") {
  const opened = await open(name);
  await opened.write((tx) => siteRows.insert(tx, id, site, { at, by: "J. Pell" }));
  return opened;
}

/** What a person has who copied the one file and nothing beside it. */
async function sitesIn(file: string): Promise<string[]> {
  const client = createClient({ url: `file:${file}` });
  const { rows } = await client.execute("SELECT id FROM sites ORDER BY id");
  client.close();
  return rows.map((r) => String(r.id));
}

it("the one file of a stopped Derrick holds everything", async () => {
  await (await withSite("stopped.db")).close();
  copyFileSync(join(folder, "stopped.db"), join(folder, "stopped-copy.db"));
  expect(await sitesIn(join(folder, "stopped-copy.db"))).toEqual(["s-1"]);
});

it("the one file of a running Derrick holds everything, two seconds after the last save", async () => {
  const running = await withSite("running.db");
  await new Promise((r) => setTimeout(r, 2200));
  copyFileSync(join(folder, "running.db"), join(folder, "running-copy.db"));
  expect(await sitesIn(join(folder, "running-copy.db"))).toEqual(["s-1"]);
  await running.close();
});

it("a backup is made while Derrick runs, is never written over another file, and comes back", async () => {
  const running = await withSite("live.db", "s-live");
  const file = join(folder, "backup.db");
  expect(await backUp(urlOf("live.db"), file)).toBeGreaterThan(4096);
  await expect(backUp(urlOf("live.db"), file)).rejects.toThrow("exists already and is not overwritten");
  await expect(restore(urlOf("live.db"), file)).rejects.toThrow(
    "in use, so nothing was changed. Stop Derrick first",
  );
  expect((await siteRows.all(running.db)).map((s) => s.id)).toEqual(["s-live"]);
  await running.close();
  copyFileSync(join(folder, "stopped-copy.db"), join(folder, "other.db"));
  expect(restoreInProcess("other.db", file)).toContain("The former database is kept as");
  expect(await sitesIn(join(folder, "other.db"))).toEqual(["s-live"]);
  const former = readdirSync(folder).find((f) => f.startsWith("other.db.before-restore-"))!;
  expect(await sitesIn(join(folder, former))).toEqual(["s-1"]);
});

/** As a person does it: the command, in a process of its own. */
function restoreInProcess(name: string, file: string): string {
  const done = spawnSync("npm", ["run", "-s", "restore", "--", file], {
    env: { ...process.env, DERRICK_DB_URL: urlOf(name) },
    encoding: "utf8",
  });
  return done.stdout + done.stderr;
}

it("nothing that is damaged, foreign or absent takes the place of the database", async () => {
  await (await withSite("kept.db")).close();
  writeFileSync(
    join(folder, "text.db"),
    "this is no database, only a text that is long enough to look at".repeat(40),
  );
  const foreign = createClient({ url: urlOf("foreign.db") });
  await foreign.execute("CREATE TABLE sites_of_others (id)");
  foreign.close();
  const bytes = readFileSync(join(folder, "stopped-copy.db"));
  bytes.fill(0xa5, 4096 * 3, 4096 * 30);
  writeFileSync(join(folder, "spoilt.db"), bytes);
  const refused = async (name: string) =>
    restore(urlOf("kept.db"), join(folder, name)).then(
      () => "restored",
      (e: Error) => e.message.replace(folder, ""),
    );
  expect(await refused("text.db")).toBe(
    "/text.db is damaged or not a database, so it cannot be used as a backup.",
  );
  expect(await refused("foreign.db")).toBe("/foreign.db is a database, but not one of Derrick.");
  expect(await refused("spoilt.db")).toContain("/spoilt.db is damaged");
  expect(await refused("nowhere.db")).toBe("There is no file /nowhere.db.");
  expect(await sitesIn(join(folder, "kept.db"))).toEqual(["s-1"]);
});

it("the database as it was is kept before its tables are changed", async () => {
  const old = join(folder, "migrations");
  const { cpSync } = await import("node:fs");
  cpSync("src/db/migrations", old, { recursive: true });
  const journal = JSON.parse(readFileSync(join(old, "meta/_journal.json"), "utf8")) as { entries: unknown[] };
  writeFileSync(
    join(old, "meta/_journal.json"),
    JSON.stringify({ ...journal, entries: journal.entries.slice(0, -1) }),
  );
  const before = await openDatabase(urlOf("older.db"), undefined, old);
  expect(before.upgradedFrom).toBeNull();
  // As the Derrick of those tables wrote it: what came later is not there.
  await before.db.run(
    sql`INSERT INTO sites (id, name, document, updated_at) VALUES ('s-1', 'Works', ${JSON.stringify(site)}, ${at})`,
  );
  await before.close();
  const after = await open("older.db");
  expect(after.upgradedFrom).toMatch(/older\.db\.before-upgrade-\d{4}-\d\d-\d\dT\d\d-\d\d-\d\d$/);
  expect(await sitesIn(after.upgradedFrom!)).toEqual(["s-1"]);
  await after.close();
  const again = await open("older.db");
  expect(again.upgradedFrom).toBeNull();
  await again.close();
});

const HOLD = `
  import { createClient } from "@libsql/client";
  const client = createClient({ url: process.argv[1] });
  const held = await client.transaction("write");
  console.log("held");
  setTimeout(async () => { await held.rollback(); process.exit(0); }, Number(process.argv[2]));
`;

it("a foreign lock delays saves and stops nothing else", async () => {
  const opened = await withSite("locked.db");
  const holder = spawn(process.execPath, ["--input-type=module", "-e", HOLD, urlOf("locked.db"), "4000"]);
  await new Promise((r) => holder.stdout.once("data", r));
  let held = true;
  holder.once("exit", () => (held = false));
  const writes = Array.from({ length: 40 }, (_, i) =>
    opened.write((tx) =>
      siteRows.insert(tx, `s-w${i}`, { ...site, name: `Works ${i}` }, { at, by: "J. Pell" }),
    ),
  );
  for (let i = 0; i < 20; i += 1) {
    await opened.probe();
    await new Promise((r) => setTimeout(r, 20));
  }
  // Twenty questions were asked and answered while the other program still held the file.
  expect(held).toBe(true);
  await Promise.all(writes);
  expect((await siteRows.all(opened.db)).length).toBe(41);
  await opened.close();
});

it("a lock that does not end is told, and the next save goes through when it is gone", async () => {
  const opened = await openDatabase(urlOf("long.db"), undefined, "src/db/migrations", {
    lockedMilliseconds: 300,
  });
  const holder = spawn(process.execPath, ["--input-type=module", "-e", HOLD, urlOf("long.db"), "1500"]);
  await new Promise((r) => holder.stdout.once("data", r));
  const over = new Promise((r) => holder.once("exit", r));
  const save = () => opened.write((tx) => siteRows.insert(tx, "s-1", site, { at, by: "J. Pell" }));
  await expect(save()).rejects.toThrow("Another program has locked the database file");
  await over;
  await save();
  expect(existsSync(join(folder, "long.db"))).toBe(true);
  await opened.close();
});
