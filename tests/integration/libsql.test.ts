import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { siteSchema } from "@/core/site";
import { openDatabase, siteRows } from "@/db";
import { buildView, createBuild, issueRevision } from "@/server/builds";
import { saveEdits } from "@/server/sheet-acts";
import { closeDatabase, database } from "@/server/database";
import { importAll } from "@/server/exports";
import { health, knownFailure } from "@/server/health";
import { command, runView, startRun } from "@/server/runs";
import { todayView } from "@/server/today";
import { LibsqlServer } from "../support/libsql-server";
import { exportAll } from "../support/whole";
import { desk } from "../support/desk";

// A database server twenty milliseconds away, with cuts: a stand-in over a file, since no real one is at hand.

const folder = mkdtempSync("/tmp/derrick-libsql-");
const server = new LibsqlServer(join(folder, "served.db"));
const text = readFileSync("demo/marrowby-water.json", "utf8");
let url = "";
afterAll(async () => {
  await closeDatabase();
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

const tripsOf = async <T>(work: () => Promise<T>): Promise<{ value: T; trips: number }> => {
  const before = server.trips;
  const value = await work();
  return { value, trips: server.trips - before };
};
const note = async (key: string) =>
  command(await desk(), "r-wrk-hv1", key, { kind: "note", step: null, text: key });
const keys = async () => (await runView(await desk(), "r-wrk-hv1"))!.log.map((l) => l.key);

beforeAll(async () => {
  url = await server.start();
  process.env.DERRICK_DB_URL = url;
  server.delay = 20;
  // Short, so that what a cut left open is soon out of the way.
  server.idle = 1200;
});

it("reads the demo in with some dozen round trips, and holds what a file holds", async () => {
  await database();
  const { value, trips } = await tripsOf(async () => importAll(await desk(), text, { rebase: false }));
  expect(value.ok).toBe(true);
  expect(trips).toBeLessThan(80);
  const kept = await exportAll();
  await closeDatabase();
  process.env.DERRICK_DB_URL = `file:${join(folder, "local.db")}`;
  await importAll(await desk(), text, { rebase: false });
  const local = await exportAll();
  await closeDatabase();
  process.env.DERRICK_DB_URL = url;
  expect({ ...kept, exportedAt: "" }).toEqual({ ...local, exportedAt: "" });
});

it("answers a build sheet in a few waves of questions", async () => {
  await buildView(await desk(), "b-wrk-hv2");
  const before = server.waves;
  await buildView(await desk(), "b-wrk-hv2");
  expect(server.waves - before).toBeGreaterThan(0);
  expect(server.waves - before).toBeLessThan(13);
});

it("carries the whole path: a sheet, its edits, a revision, a run, notes", async () => {
  const id = await createBuild(await desk(), "m-wrk-st1");
  const saved = await saveEdits(await desk(), id, 1, [
    { path: "handOver.notes", before: "", after: "by wire" },
  ]);
  expect(saved.ok && saved.view.build).toMatchObject({
    version: 2,
    sheet: { handOver: { notes: "by wire" } },
  });
  const stale = await saveEdits(await desk(), id, 1, [{ path: "handOver.notes", before: "", after: "late" }]);
  expect(!stale.ok && stale.stale?.view.build.version).toBe(2);
  const { version } = (await buildView(await desk(), "b-wrk-st1"))!.build;
  expect((await issueRevision(await desk(), "b-wrk-st1", version)).ok).toBe(true);
  const starts = await Promise.all(
    [1, 2, 3].map(async () => startRun(await desk(), "b-wrk-st1", version + 1)),
  );
  expect(starts.filter((s) => s.ok)).toHaveLength(1);
  await Promise.all(["note-wire-1", "note-wire-2", "note-wire-1"].map(note));
  expect((await keys()).filter((k) => k.startsWith("note-wire"))).toEqual(["note-wire-1", "note-wire-2"]);
  expect((await todayView(await desk())).running.length).toBe(2);
});

describe("when the line is bad", () => {
  const at = "2026-11-26T02:14:05.000Z";
  const site = (name: string) => siteSchema.parse({ schemaVersion: 2, name });
  /** Where an answer never comes, it is waited for shortly; elsewhere as long as it takes on a slow machine. */
  const open = (callMilliseconds = 10_000) =>
    openDatabase(url, undefined, "src/db/migrations", { callMilliseconds });
  const failing = (work: Promise<unknown>) =>
    work.then(
      () => "saved",
      (e: unknown) => knownFailure(e)?.words ?? String(e),
    );

  it("a write that is never answered ends in words, and those behind it go through", async () => {
    const opened = await open(1500);
    const save = (id: string) =>
      opened.write((tx) => siteRows.insert(tx, id, site(id), { at, by: "J. Pell" }));
    server.next = ["silence"];
    const all = await Promise.all(["s-1", "s-2", "s-3"].map((id) => failing(save(id))));
    expect(all[0]).toContain("The database server does not respond");
    expect(all.slice(1)).toEqual(["saved", "saved"]);
    expect((await siteRows.all(opened.db)).map((s) => s.id)).not.toContain("s-1");
    await opened.close();
  });

  it.each([0, 1, 2, 3])(
    "a cut at request %i of a write loses the whole write or nothing, and the next is good",
    async (nth) => {
      const opened = await open();
      const [first, second] = [`s-cut-${nth}-a`, `s-cut-${nth}-b`];
      const both = () =>
        opened.write(async (tx) => {
          await siteRows.insert(tx, first, site(first), { at, by: "J. Pell" });
          await siteRows.one(tx, first);
          await siteRows.insert(tx, second, site(second), { at, by: "J. Pell" });
        });
      server.next = [...Array<undefined>(nth), "cut"] as never;
      const said = await failing(both());
      server.next = [];
      const there = (await siteRows.all(opened.db))
        .map((s) => s.id)
        .filter((id) => [first, second].includes(id));
      expect([0, 2]).toContain(there.length);
      if (said === "saved") expect(there).toHaveLength(2);
      expect(
        await failing(
          opened.write((tx) => siteRows.insert(tx, `s-after-${nth}`, site("after"), { at, by: "J. Pell" })),
        ),
      ).toBe("saved");
      await opened.close();
    },
  );

  it("the server away is told by health, and it is well again when the server is", async () => {
    const port = Number(new URL(url).port);
    await server.stop();
    expect((await failing(note("note-away-1"))).slice(0, 38)).toBe("The database server does not respond, ");
    const sick = await health();
    expect(!sick.ok && sick.problems[0]?.message).toContain("The database server does not respond");
    await server.start(port);
    expect(await health()).toEqual({ ok: true, value: null });
    expect((await note("note-away-2")).ok).toBe(true);
    expect((await keys()).filter((k) => k.startsWith("note-away"))).toEqual(["note-away-2"]);
  });
});
