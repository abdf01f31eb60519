import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll } from "vitest";
import { closeDatabase } from "@/server/database";
import { LibsqlServer } from "./libsql-server";

/**
 * A database file of its own for one test file; server code opens it on first use. With DERRICK_TEST_DELAY set, it reaches
 * the file through the stand-in for a database server, each round trip so many milliseconds long; `url` is the file then
 * too, for looking at it from outside.
 */
export function ownDatabase(): { url: string; folder: string } {
  const folder = mkdtempSync(join(tmpdir(), "derrick-"));
  const url = `file:${folder}/test.db`;
  process.env.DERRICK_DB_URL = url;
  const delay = process.env.DERRICK_TEST_DELAY;
  if (delay !== undefined) serve(`${folder}/test.db`, Number(delay));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  return { url, folder };
}

function serve(file: string, delay: number): void {
  const server = new LibsqlServer(file);
  server.delay = delay;
  beforeAll(async () => {
    process.env.DERRICK_DB_URL = await server.start();
  });
  afterAll(async () => {
    await closeDatabase();
    await server.stop();
  });
}
