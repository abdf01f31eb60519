import { readFileSync } from "node:fs";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, expect, it } from "vitest";
import { closeDatabase } from "@/server/database";
import { importAll } from "@/server/exports";
import { keysView } from "@/server/keys";
import { addShippedProfiles } from "@/server/profiles";
import { sealParameter } from "@/server/seals";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

ownDatabase();
beforeAll(async () => {
  await addShippedProfiles(await desk("Derrick"));
  await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), { rebase: false });
});
afterAll(closeDatabase);
const view = async () => (await keysView(await desk(), "s-works"))!;

it("tells whose key opens which machines of a site, by its fingerprint, and which secrets go to which sheet", async () => {
  const { keys, machines, secrets } = await view();
  expect(machines.map((m) => [m.name, m.isRead])).toEqual(
    ["wrk-hv1", "wrk-hv2", "wrk-st1", "wrk-tm1"].map((name) => [name, true]),
  );
  expect(keys).toMatchObject([
    { whose: "jpell@works", fingerprint: expect.stringMatching(/^SHA256:[\w+/]{43}$/), elsewhere: 0 },
  ]);
  expect(keys[0]!.doors.map((d) => [d.machine, d.account])).toEqual([["wrk-tm1", "jpell"]]);
  expect(secrets).toEqual([]);
  for (const [build, value] of [
    ["b-wrk-tm1", "one"],
    ["b-wrk-st1", "one"],
    ["b-wrk-hv1", "two"],
  ] as const)
    await sealParameter(await desk(), build, "enrol", value);
  const [enrol] = (await view()).secrets;
  expect(enrol?.sheets.map((s) => [s.machine, s.state, s.shared]).sort()).toEqual([
    ["wrk-hv1", "sealed", false],
    ["wrk-st1", "sealed", true],
    ["wrk-tm1", "sealed", true],
  ]);
  expect(await keysView(await desk(), "s-nowhere")).toBeNull();
});

it("takes a sheet whose accounts do not read for one that was not read, and not for one without keys", async () => {
  const { db } = await desk();
  await db.run(
    sql`update builds set sheet = json_set(sheet, '$.answers.accounts', json('[{"name": 7}]')) where id = 'b-wrk-tm1'`,
  );
  const { keys, machines } = await view();
  expect(keys).toEqual([]);
  expect(machines.find((m) => m.name === "wrk-tm1")?.isRead).toBe(false);
});
