import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { machineClaims } from "@/core/claims";
import { renderRecordMarkdown } from "@/core/record";
import { sheetClaims } from "@/core/sheet";
import { siteClaims } from "@/core/site";
import { buildRows, claimRows, machineRows } from "@/db";
import { buildView, listBuilds } from "@/server/builds";
import { damagedDocuments } from "@/server/damaged";
import { closeDatabase, database } from "@/server/database";
import { find } from "@/server/find";
import { listMachines, machineView } from "@/server/machines";
import { recordOf, runView } from "@/server/runs";
import { listSites, siteView } from "@/server/sites";
import { todayView } from "@/server/today";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

const { folder } = ownDatabase();
const FIXTURES = "tests/fixtures/older";
/** The sum of each run's record in Markdown, by database and run. */
const RECORDS = JSON.parse(readFileSync(`${FIXTURES}/records.json`, "utf8")) as Record<string, object>;
const files = readdirSync(FIXTURES).filter((f) => f.startsWith("tables-"));

it("one database is kept for each state of the tables that was released", () => {
  const migrations = readdirSync("src/db/migrations").filter((f) => f.endsWith(".sql"));
  // The first tables were never released; the present ones are those of all other tests.
  expect(files).toEqual(migrations.slice(1, -1).map((f) => `tables-${f.slice(0, 4)}.db.gz`));
});

// Each was written by the Derrick of its day, with the demo in it.
describe.each(files)("%s", (file) => {
  const path = `${folder}/${file.replace(".gz", "")}`;
  beforeAll(() => {
    writeFileSync(path, gunzipSync(readFileSync(`${FIXTURES}/${file}`)));
    process.env.DERRICK_DB_URL = `file:${path}`;
  });
  afterAll(closeDatabase);

  it("opens, keeps a copy of what it was, and every document of it reads", async () => {
    const { upgradedFrom } = await database();
    expect(upgradedFrom && existsSync(upgradedFrom)).toBe(true);
    expect(await damagedDocuments(await desk())).toEqual([]);
  });

  it("Today says of each sheet what the sheet says of itself", async () => {
    const { preparing, running } = await todayView(await desk());
    expect([preparing.length, running.length]).toEqual([3, 1]);
    for (const p of preparing) {
      const { evaluation } = (await buildView(await desk(), p.id))!;
      expect([evaluation.stops.length, evaluation.hook], p.number).toEqual([p.stops, p.hook]);
    }
  });

  it("lists, sheets, machines, runs and records all open", async () => {
    const [builds, machines, sites] = await Promise.all([
      listBuilds(await desk()),
      listMachines(await desk()),
      listSites(await desk()),
    ]);
    expect([builds.length, machines.length]).toEqual([6, 8]);
    for (const { id, run } of builds) {
      expect(await buildView(await desk(), id)).not.toBeNull();
      if (run) expect((await runView(await desk(), run.id))!.plan.steps.length).toBeGreaterThan(0);
      if (run?.endedAt) expect((await recordOf(await desk(), run.id))!.drives?.target).toMatch(/./);
    }
    for (const m of machines) {
      const { drives } = (await machineView(await desk(), m.id))!.machine.document.facts;
      expect(m.summary.drives, m.name).toBe(drives.filter((d) => d.missingSince === null).length);
    }
    for (const { id } of sites) {
      const { site, takers } = (await siteView(await desk(), id))!;
      expect([site.segments.length > 0, takers.length > 0]).toEqual([true, true]);
    }
    // What an earlier Derrick kept as an address with a text is a thing now, and a site says of itself what it claims.
    const works = sites.find((s) => s.site.name.startsWith("Works"))!;
    expect(works.site.devices.map((d) => d.address)).toEqual(expect.arrayContaining(["10.61.10.4"]));
    const claimed = (await claimRows.claimsAtSite((await database()).db, works.id)).filter(
      (c) => c.ownerId === works.id,
    );
    expect(claimed.map((c) => `${c.kind} ${c.key}`).sort()).toEqual(
      siteClaims(works.site)
        .map((c) => `${c.kind} ${c.key}`)
        .sort(),
    );
  });

  it("gives the records of its runs byte for byte as before plans had operations", async () => {
    const runs = (await listBuilds(await desk())).flatMap((b) => b.run ?? []);
    const sums = await Promise.all(
      runs.map(async ({ id }) => {
        const markdown = renderRecordMarkdown((await recordOf(await desk(), id))!);
        return [id, createHash("sha256").update(markdown).digest("hex")] as const;
      }),
    );
    expect(Object.fromEntries(sums)).toEqual(RECORDS[file]);
  });

  it("claims are those of its documents, and what it holds is found", async () => {
    const { db } = await database();
    const [machines, builds] = await Promise.all([machineRows.all(db), buildRows.all(db)]);
    const own = [
      ...machines.flatMap((m) => machineClaims(m.document, m.name).map((c) => ({ ...c, id: m.id }))),
      ...builds.flatMap((b) => sheetClaims(b.sheet, b.number).map((c) => ({ ...c, id: b.id }))),
    ];
    const line = (c: { kind: string; key: string }, id: string) => `${id} ${c.kind} ${c.key}`;
    const held = await claimRows.holders(db, own);
    expect(held.map((c) => line(c, c.ownerId)).sort()).toEqual(own.map((c) => line(c, c.id)).sort());
    expect((await find(await desk(), "wrk-hv1", null)).found.map((f) => f.kind)).toContain("machine");
  });
});
