import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { createClient, type Client } from "@libsql/client";
import { afterAll, describe, expect, it } from "vitest";
import { openDatabase } from "./client";
import { troubleOf } from "./trouble";

const folder = mkdtempSync("/tmp/derrick-trouble-");
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const urlOf = (name: string): string => `file:${join(folder, name)}`;
const opening = (name: string) =>
  openDatabase(urlOf(name), undefined, "src/db/migrations").then(
    () => "opened",
    (e: unknown) => troubleOf(e)?.message ?? String(e),
  );
const caught = (work: Promise<unknown>) =>
  work.then(
    () => null,
    (e: unknown) => troubleOf(new Error("around it", { cause: e })),
  );
const filled = async (name: string): Promise<Client> => {
  const client = createClient({ url: urlOf(name) });
  await client.execute("CREATE TABLE t (x)");
  return client;
};

describe("what SQLite itself says, in words that name what to do", () => {
  it("a full disk", async () => {
    const client = await filled("full.db");
    await client.execute("PRAGMA max_page_count = 3");
    const trouble = await caught(client.execute("INSERT INTO t VALUES (zeroblob(100000))"));
    expect([trouble?.kind, trouble?.message]).toEqual([
      "full",
      expect.stringContaining("The disk of the database is full"),
    ]);
  });

  it("a file that may not be written", async () => {
    const client = await filled("read-only.db");
    await client.execute("PRAGMA query_only = 1");
    const trouble = await caught(client.execute("INSERT INTO t VALUES (1)"));
    expect([trouble?.kind, trouble?.message]).toEqual([
      "read-only",
      expect.stringContaining("Give write permission to the user that runs Derrick"),
    ]);
  });

  it("a file that is no database, at the start", async () => {
    writeFileSync(
      join(folder, "other.db"),
      "this is a text that is longer than the head of a database ".repeat(40),
    );
    expect(await opening("other.db")).toContain("The database file is damaged, so nothing was changed.");
    expect(await opening("other.db")).toContain("npm run restore");
  });

  it("a folder where the file should be, at the start", async () => {
    mkdirSync(join(folder, "folder.db"));
    expect(await opening("folder.db")).toContain("The database file cannot be opened or read");
  });

  it("a program's own failure is none of these", async () => {
    const client = await filled("own.db");
    expect(await caught(client.execute("SELECT nothing FROM nowhere"))).toBeNull();
    expect(troubleOf(new TypeError("x is not a function"))).toBeNull();
    expect(troubleOf(new TypeError("fetch failed"))?.kind).toBe("unreachable");
    expect(troubleOf("a text")).toBeNull();
  });
});
