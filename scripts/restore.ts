// npm run restore -- FILE: puts a copy in the place of the database, which is kept beside it. Derrick must be stopped.
import { mkdirSync } from "node:fs";
import { dirname, resolve } from "node:path";
import { pathOf, restore } from "@/db";
import { readEnvironment } from "@/server/environment";

const [file] = process.argv.slice(2);
try {
  if (!file) throw new Error("Name the copy to put back: npm run restore -- /path/to/derrick-backup.db");
  const { DERRICK_DB_URL: url } = readEnvironment();
  mkdirSync(dirname(pathOf(url)), { recursive: true });
  const former = await restore(url, resolve(file));
  console.log(`${url} is now what ${resolve(file)} holds.`);
  if (former) console.log(`The former database is kept as ${former}.`);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exitCode = 1;
}
