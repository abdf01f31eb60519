import { readFileSync } from "node:fs";
import { createClient } from "@libsql/client";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { notesWithMachines } from "@/server/compat";
import { buildView, createBuild, listBuilds } from "@/server/builds";
import { saveEdits } from "@/server/sheet-acts";
import { damagedCount, damagedDocuments, repairDamaged, setDamagedAside } from "@/server/damaged";
import { driveRegister } from "@/server/drives";
import { importAll } from "@/server/exports";
import { find } from "@/server/find";
import { knownFailure } from "@/server/health";
import { listImages } from "@/server/images";
import { listMachines, machineView } from "@/server/machines";
import { accept, command, recordOf, runView } from "@/server/runs";
import { createSite, listSites } from "@/server/sites";
import { todayView } from "@/server/today";
import { ownDatabase } from "../support/database";
import { bundleOf, capture } from "../support/formats";
import { desk } from "../support/desk";
import { MACHINE, SITE } from "@/server/written";
import { write } from "../support/written";

const { url } = ownDatabase();
const client = createClient({ url });
afterAll(() => client.close());

beforeAll(async () => {
  const answer = await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), {
    rebase: true,
  });
  expect(answer.ok).toBe(true);
});

const inWords = (work: Promise<unknown>): Promise<string> =>
  work.then(
    (answer) => (answer as { problems?: { message: string }[] }).problems?.[0]?.message ?? "taken",
    (error: unknown) => knownFailure(error)?.words ?? `failed: ${String(error)}`,
  );

/** Every list and view that has to stand whatever one row holds. */
const lists = async () =>
  Promise.all([
    todayView(await desk()),
    listSites(await desk()),
    listMachines(await desk()),
    listBuilds(await desk()),
    listImages(await desk()),
    driveRegister(await desk()),
    notesWithMachines(await desk()),
    find(await desk(), "wrk", null),
  ]);

describe("nothing is written that would not be read again", () => {
  it("an acceptance, a command and an answer by nobody", async () => {
    const texts = [
      {
        name: "b.txt",
        text: bundleOf("small-1", { dmidecode: capture("server-bios-small", "dmidecode.txt") }),
      },
    ];
    const before = (await runView(await desk(), "r-wrk-hv1"))!.log.length;
    for (const by of ["", "x".repeat(100)]) {
      expect(await inWords(accept(await desk(by), "r-wrk-hv1", "key-nobody-1", texts))).toContain(
        "Nothing was saved: by",
      );
      const note = { kind: "note", step: null, text: "t" };
      expect(await inWords(command(await desk(by), "r-wrk-hv1", "key-nobody-2", note))).toContain(
        "Nothing was saved: by",
      );
    }
    expect((await runView(await desk(), "r-wrk-hv1"))!.log.length).toBe(before);
  });

  it("notes that are a number, a list with an object, a place that is none", async () => {
    const { machine } = (await machineView(await desk(), "m-wrk-hv1"))!;
    const { id, version } = machine;
    expect(await inWords(write(await desk(), MACHINE, id, version, { notes: 7 }))).toContain("notes");
    expect(await inWords(write(await desk(), MACHINE, id, version, { "typed.place": 9 }))).toContain("place");
    expect(await inWords(write(await desk(), MACHINE, id, version, { "typed.defects": [{}] }))).toContain(
      "defects.0",
    );
    expect((await machineView(await desk(), id))!.machine).toEqual(machine);
  });

  it("a path into what every object inherits spoils nothing", async () => {
    const id = await createBuild(await desk(), "m-wrk-hv1");
    const path = "machine.__proto__.hasOwnProperty";
    const answer = await saveEdits(await desk(), id, 1, [{ path, before: null, after: "spoilt" }]);
    expect(!answer.ok && answer.problems[0]?.message).toBe(`the sheet has no field ${path}`);
    for (const other of ["constructor.prototype.x", "__proto__.x", "machine.constructor", "__proto__"])
      expect((await saveEdits(await desk(), id, 1, [{ path: other, before: null, after: {} }])).ok).toBe(
        false,
      );
    expect(typeof {}.hasOwnProperty).toBe("function");
    expect((await buildView(await desk(), id))?.build.version).toBe(1);
  });

  it.each(["Europe/Berln", "", "GMT+99", " UTC"])("the time zone %j of a site", async (timeZone) => {
    const made = await createSite(await desk(), `Works ${timeZone}`);
    const { id, version } = (await listSites(await desk())).find((s) => made.ok && s.id === made.value)!;
    expect(await inWords(write(await desk(), SITE, id, version, { timeZone }))).toContain(
      "is not a time zone of the IANA list",
    );
  });
});

describe("a row that is damaged already", () => {
  const SPOILT = ['{"cut', "[]", '{"schemaVersion":99}', "null", '"text"', "7"];
  const ROWS = [
    ["site", "sites", "document", "id", "s-works"],
    ["machine", "machines", "document", "id", "m-wrk-hv1"],
    ["image", "images", "document", "id", "i-cairn-9"],
    ["build", "builds", "sheet", "id", "b-wrk-hv2"],
    ["run", "runs", "plan", "id", "r-wrk-hv1"],
    ["note", "compat_notes", "document", "id", ""],
    ["drive", "drives", "document", "key", ""],
  ] as const;

  it.each(ROWS)(
    "%s: is shown with its problem, spoils no list, and can be repaired",
    async (kind, table, column, key, given) => {
      const row =
        given || String((await client.execute(`SELECT ${key} AS id FROM ${table} LIMIT 1`)).rows[0]!.id);
      const { rows } = await client.execute({
        sql: `SELECT ${column} AS kept FROM ${table} WHERE ${key} = ?`,
        args: [row],
      });
      const kept = String(rows[0]!.kept);
      for (const text of SPOILT) {
        await client.execute({
          sql: `UPDATE ${table} SET ${column} = ? WHERE ${key} = ?`,
          args: [text, row],
        });
        await lists();
        const all = await damagedDocuments(await desk());
        expect(
          all.map((d) => `${d.kind} ${d.id}`),
          text,
        ).toEqual([`${kind} ${row}`]);
        expect(all[0]!.problems.length).toBeGreaterThan(0);
        expect(await damagedCount(await desk())).toBe(1);
        expect(await inWords(repairDamaged(await desk(), kind, row, text))).not.toBe("taken");
      }
      await setDamagedAside(await desk(), kind, row);
      expect([
        await damagedCount(await desk()),
        (await damagedDocuments(await desk()))[0]!.setAside!.by,
      ]).toEqual([0, "J. Pell"]);
      expect(await inWords(repairDamaged(await desk(), kind, row, kept))).toBe("taken");
      expect(await damagedDocuments(await desk())).toEqual([]);
      await lists();
    },
  );

  it("what stands on a damaged document says so, and what only mentions it goes on", async () => {
    const spoil = (table: string, id: string, text: string) =>
      client.execute({ sql: `UPDATE ${table} SET document = ? WHERE id = ?`, args: [text, id] });
    const { rows } = await client.execute("SELECT document FROM sites WHERE id = 's-works'");
    await spoil("sites", "s-works", "{");
    expect((await machineView(await desk(), "m-wrk-hv1"))!.site).toBeNull();
    expect((await buildView(await desk(), "b-wrk-hv2"))!.build.id).toBe("b-wrk-hv2");
    await spoil("sites", "s-works", String(rows[0]!.document));
    const machine = await client.execute("SELECT document FROM machines WHERE id = 'm-wrk-hv2'");
    await spoil("machines", "m-wrk-hv2", "{");
    expect(await inWords(buildView(await desk(), "b-wrk-hv2"))).toContain("The machine m-wrk-hv2 is damaged");
    const today = (await todayView(await desk())).preparing.find((b) => b.id === "b-wrk-hv2")!;
    expect(today.firstStop!.says).toContain("is damaged");
    await spoil("machines", "m-wrk-hv2", String(machine.rows[0]!.document));
  });

  it("an entry of a log by nobody keeps its meaning; one that does not read stops the run and is told", async () => {
    const log = (await runView(await desk(), "r-wrk-hv1"))!.log;
    const insert = (seq: number, event: string) =>
      client.execute({
        sql: "INSERT INTO run_events (run_id, seq, at, key, event) VALUES ('r-wrk-hv1', ?, ?, ?, ?)",
        args: [seq, "2026-11-26T02:00:00.000Z", `spoilt-${seq}`, event],
      });
    await insert(log.length + 1, '{"kind":"note","step":null,"text":"kept","by":""}');
    const named = (await runView(await desk(), "r-wrk-hv1"))!;
    expect(named.log.at(-1)!.event).toMatchObject({ kind: "note", text: "kept", by: "unknown person" });
    expect(named.state.status).toBe("running");
    await insert(log.length + 2, '{"kind":"as expected","st');
    const stopped = (await runView(await desk(), "r-wrk-hv1"))!;
    expect(stopped.state).toMatchObject({ status: "stopped", current: named.state.current });
    expect(stopped.state.stoppedBy).toContain(`Entry ${log.length + 2} of the log is damaged`);
    expect((await recordOf(await desk(), "r-wrk-hv1"))!.log.at(-1)!.text).toContain("Damaged entry");
    const resumed = { kind: "resumed", reason: "looked at the console: nothing was lost" };
    expect(await inWords(command(await desk(), "r-wrk-hv1", "spoilt-resume", resumed))).toBe("taken");
    expect((await runView(await desk(), "r-wrk-hv1"))!.state.status).toBe("running");
  });
});
