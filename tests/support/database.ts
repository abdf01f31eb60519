import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll } from "vitest";

/** A database file of its own for one test file; server code opens it on first use. */
export function ownDatabase(): { url: string; folder: string } {
  const folder = mkdtempSync(join(tmpdir(), "derrick-"));
  const url = `file:${folder}/test.db`;
  process.env.DERRICK_DB_URL = url;
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  return { url, folder };
}
