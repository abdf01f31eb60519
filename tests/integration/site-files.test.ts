import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { beforeAll, expect, it } from "vitest";
import { createClient } from "@libsql/client";
import { siteRows } from "@/db";
import { importAll } from "@/server/exports";
import { database } from "@/server/database";
import { previewTaking, siteFiles, takeOver } from "@/server/site-files";
import { siteView, wiringView } from "@/server/sites";
import { SITE } from "@/server/written";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";
import { write } from "../support/written";

const { url } = ownDatabase();
const ID = "s-works";

beforeAll(async () => {
  const demo = readFileSync("demo/marrowby-water.json", "utf8");
  expect((await importAll(await desk(), demo, { rebase: true })).ok).toBe(true);
});
const site = async () => (await siteRows.one((await database()).db, ID))!;
const file = async (path: string): Promise<string> =>
  (await siteFiles(await desk(), ID))!.files.find((f) => f.path === path)!.text;

it("the files of a site hold its machines by their last sheets, its things and its reservations", async () => {
  const hosts = await file("/etc/hosts");
  expect(hosts).toContain("10.61.10.21\twrk-hv1.marrowby.example\twrk-hv1\n");
  expect(hosts).toContain("10.61.10.4\twrk-sw1.marrowby.example\twrk-sw1\n");
  expect(hosts).toContain("10.61.10.9\track-a-power-strip.marrowby.example");
  expect(await file("/etc/kea/kea-dhcp4.conf")).toContain('"hw-address": "02:61:0a:00:00:09"');
  expect(await file("cables.csv")).toContain(
    "wrk-hv1,eno1,wrk-sw1,1,2,C-001,C-001: wrk-hv1 eno1 to wrk-sw1 1",
  );
  expect(await file("switch-ports.csv")).toContain('wrk-sw1,1,trunk,10,"20,30"');
  expect(await siteFiles(await desk(), "nowhere")).toBeNull();
});

it("a file that is taken over is shown first, changes what was chosen, and is known afterwards", async () => {
  const text =
    "dhcp-host=02:61:0a:00:00:31,10.61.10.31,door\ndhcp-host=02:61:0a:00:00:32,10.61.10.32,gate\ndhcp-host=x";
  const before = await site();
  const shown = await previewTaking(await desk(), ID, text, "");
  if (!shown.ok) throw new Error("not collected");
  expect(shown.value.offers.map((o) => o.state)).toEqual(["new", "new"]);
  expect(shown.value.problems).toMatchObject([{ line: 3 }]);
  expect(await site()).toEqual(before);
  expect(await takeOver(await desk(), ID, shown.value.version, text, "", [1])).toEqual({
    ok: true,
    value: 1,
  });
  const reserved = (await site()).site.segments[0]!.reservations.map((r) => r.name);
  expect(reserved).toEqual(["rack A power strip", "gate"]);
  expect(await takeOver(await desk(), ID, shown.value.version, text, "", [0])).toMatchObject({ ok: false });
  const again = await previewTaking(await desk(), ID, text, "");
  expect(again.ok && again.value.offers.map((o) => o.state)).toEqual(["new", "known"]);
});

it("cables that a machine's LLDP tells are planned to it", async () => {
  const text = readFileSync("tests/fixtures/network/files/lldp.json", "utf8");
  const of = async (machine: string) => {
    const shown = await previewTaking(await desk(), ID, text, machine);
    return shown.ok ? shown.value.offers.map((o) => `${o.state}: ${o.says}`) : shown.problems;
  };
  expect(await of("")).toEqual([
    "not here: eno1 is connected to wrk-sw1 port 3: choose the machine that it was collected on",
  ]);
  expect(await of("wrk-hv1")).toEqual([
    "differs: eno1 is connected to wrk-sw1 port 3: in the plan the cable is connected elsewhere",
  ]);
  const { version } = await site();
  await takeOver(await desk(), ID, version, text, "wrk-hv1", [0]);
  expect(await of("wrk-hv1")).toEqual(["known: eno1 is connected to wrk-sw1 port 3: as planned"]);
});

it("what is no such file, and a site that is gone, are told in words", async () => {
  expect(await previewTaking(await desk(), ID, "Dear all", "")).toMatchObject({
    ok: false,
    problems: [{ message: /^Unknown format/ }],
  });
  expect(await previewTaking(await desk(), "gone", "10.1.1.1 a", "")).toMatchObject({ ok: false });
  expect(await wiringView(await desk(), "gone")).toBeNull();
});

it("story 2: the address in the range is found, and a reservation for that card or another address cures it", async () => {
  const found = async () =>
    (await siteView(await desk(), ID))!.findings
      .map((f) => f.code)
      .filter((c) => c === "site.address-in-range");
  expect(await found()).toEqual(["site.address-in-range"]);
  const { version, site: now } = await site();
  const [first, ...more] = now.segments;
  await write(await desk(), SITE, ID, version, {
    segments: [{ ...first, dhcp: [{ from: "10.61.10.130", to: "10.61.10.179" }] }, ...more],
  });
  expect(await found()).toEqual([]);
});

it("the command compares the table with the documents, and puts it right", async () => {
  const run = (...args: string[]) => {
    const done = spawnSync("npx", ["tsx", "scripts/claims.ts", ...args], {
      encoding: "utf8",
      env: { ...process.env, DERRICK_DB_URL: url },
    });
    return `${done.status} ${done.stdout.trim().split("\n").at(-1)}`;
  };
  expect(run()).toMatch(/^0 \d+ claims of 18 documents: the table is correct\.$/);
  const client = createClient({ url });
  await client.execute("DELETE FROM claims WHERE kind = 'reservation'");
  await client.execute(
    "INSERT INTO claims (kind, key, owner, owner_id) VALUES ('name', 'ghost', 'site', 's-works')",
  );
  client.close();
  expect(run()).toMatch(/correct them with/);
  expect(run("--write")).toMatch(/^0 \d+ differences, corrected\.$/);
  expect(run()).toMatch(/^0 .*the table is correct/);
});
