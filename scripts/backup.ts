// npm run backup -- FILE: copies the database into a new file, while Derrick runs or not.
import { resolve } from "node:path";
import { backUp } from "@/db";
import { readEnvironment } from "@/server/environment";

const [file] = process.argv.slice(2);
try {
  if (!file) throw new Error("Name the file to write: npm run backup -- /path/to/derrick-backup.db");
  const { DERRICK_DB_URL: url } = readEnvironment();
  const size = await backUp(url, resolve(file));
  console.log(`Saved ${url} to ${resolve(file)}: ${(size / 1e6).toFixed(1)} MB, verified.`);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exitCode = 1;
}
