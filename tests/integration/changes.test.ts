import { readFileSync } from "node:fs";
import { beforeAll, describe, expect, it } from "vitest";
import { buildRows, changeRows, driveRows, imageRows, machineRows, siteRows, type Change } from "@/db";
import { createBuild, issueRevision } from "@/server/builds";
import { importAll } from "@/server/exports";
import { listen, type News } from "@/server/feed";
import { createMachine, takeOver } from "@/server/imports";
import { machineView } from "@/server/machines";
import { command } from "@/server/runs";
import { saveEdits, undoSave } from "@/server/sheet-acts";
import { siteView } from "@/server/sites";
import { captures } from "../support/formats";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";
import { MACHINE, SITE } from "@/server/written";
import { write } from "../support/written";

ownDatabase();
const AT = "2026-11-24T09:30:00.000Z";

beforeAll(async () => {
  const text = readFileSync("demo/marrowby-water.json", "utf8");
  await importAll(await desk("the archive"), text, { rebase: false });
});

const newest = async (kind: "build" | "machine" | "site" | "run", id: string) =>
  (await changeRows.of((await desk()).db, kind, id))[0]!;

describe("every write adds its row", () => {
  it("with who and when, as the desk says, and with what differs", async () => {
    const at = await desk("M. Arkle", AT);
    const { machine } = (await machineView(at, "m-wrk-hv1"))!;
    await write(at, MACHINE, machine.id, machine.version, { "typed.place": "row 4" });
    expect(await newest("machine", machine.id)).toMatchObject({
      ...{ at: AT, by: "M. Arkle", version: machine.version + 1 },
      edits: [{ path: "typed.place", before: machine.document.typed.place, after: "row 4" }],
    });
    const { site, version } = (await siteView(at, "s-works"))!;
    await write(at, SITE, "s-works", version, { room: "cellar" });
    expect((await newest("site", "s-works")).edits).toEqual([
      { path: "room", before: site.room, after: "cellar" },
    ]);
    await command(at, "r-wrk-hv1", "note-feed-1", { kind: "note", step: null, text: "t" });
    expect(await newest("run", "r-wrk-hv1")).toMatchObject({ by: "M. Arkle", at: AT });
  });

  it("and none for what was refused, or is the same as before", async () => {
    const { db } = await desk();
    const before = await changeRows.last(db);
    expect((await write(await desk(), MACHINE, "m-wrk-hv1", 1, { notes: "stale" })).ok).toBe(false);
    const id = "b-wrk-hv2";
    expect((await saveEdits(await desk(), id, 99, [])).ok).toBe(false);
    expect(await changeRows.last(db)).toBe(before);
  });

  it("keeps of a value that is very long how long it was", async () => {
    const { machine } = (await machineView(await desk(), "m-wrk-hv1"))!;
    await write(await desk(), MACHINE, machine.id, machine.version, { notes: "x".repeat(9000) });
    expect((await newest("machine", machine.id)).edits).toEqual([
      { path: "notes", before: machine.document.notes, after: { characters: 9002 } },
    ]);
  });

  it("so that the last row of each document tells the version that stands", async () => {
    const at = await desk();
    const id = await createBuild(at, "m-wrk-hv1");
    await saveEdits(at, id, 1, [{ path: "subject", before: "", after: "one" }]);
    await saveEdits(at, id, 2, [{ path: "machine.id", before: "m-wrk-hv1", after: "m-tho-b" }]);
    await undoSave(at, id, 3);
    await issueRevision(at, id, 4);
    const texts = captures("server-uefi-2socket");
    const made = await createMachine(at, "s-works", "feed-1", texts.slice(0, 3));
    if (!made.ok) throw new Error("nothing");
    await takeOver(at, made.value, 1, texts);
    const kinds = { site: siteRows, machine: machineRows, image: imageRows, build: buildRows } as const;
    for (const [kind, rows] of Object.entries(kinds))
      for (const row of await rows.all(at.db))
        expect((await changeRows.of(at.db, kind as "site", row.id))[0]?.version, `${kind} ${row.id}`).toBe(
          row.version,
        );
    for (const row of await driveRows.all(at.db))
      expect((await changeRows.of(at.db, "drive", row.key))[0]?.version, row.key).toBe(row.version);
    expect((await changeRows.of(at.db, "build", id)).map((c) => c.version)).toEqual([5, 4, 3, 2, 1]);
  });
});

describe("whoever listens", () => {
  it("is told what is written, once, in order, and no more when it has stopped", async () => {
    const heard: Change[] = [];
    const stop = await listen((news: News) => {
      if (news.event === "changes") heard.push(...news.changes);
    });
    const id = await createBuild(await desk(), null);
    for (let version = 1; version <= 5; version += 1)
      await saveEdits(await desk("M. Arkle"), id, version, [
        { path: "subject", before: "", after: `subject ${version}` },
      ]);
    await expect.poll(() => heard.length).toBe(6);
    expect(heard.map((c) => [c.kind, c.id, c.version])).toEqual(
      [1, 2, 3, 4, 5, 6].map((version) => ["build", id, version]),
    );
    expect(heard.map((c) => c.seq)).toEqual(heard.map((_, i) => heard[0]!.seq + i));
    stop();
    await saveEdits(await desk(), id, 6, [{ path: "subject", before: "", after: "unheard" }]);
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(heard).toHaveLength(6);
  });

  it("is told to look at everything where too much was written at once", async () => {
    const events: string[] = [];
    const stop = await listen((news) => events.push(news.event));
    const { write } = await desk();
    await write(async (tx) => {
      for (let i = 0; i < 260; i += 1)
        await changeRows.add(tx, "site", "s-works", i, { at: AT, by: "J. Pell" });
    });
    await expect.poll(() => events).toContain("much");
    expect(events).not.toContain("changes");
    stop();
  });
});
