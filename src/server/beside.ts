import { dirname, join } from "node:path";
import { readEnvironment } from "./environment";

/** Where a file of this server lies that is in no copy of the database: in the database's folder. */
export function besideDatabase(name: string): string {
  const { DERRICK_DB_URL: url } = readEnvironment();
  return join(url.startsWith("file:") ? dirname(url.slice("file:".length)) : ".derrick", name);
}
