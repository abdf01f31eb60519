import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { buildView } from "@/server/builds";
import { beginFirst, isFirstDay, nothingWasBuilt } from "@/server/first-day";
import { closeDemo, demoDesk } from "@/server/demo";
import { listMachines } from "@/server/machines";
import { createSite, listSites } from "@/server/sites";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

ownDatabase();
const bundle = { name: "bundle.txt", text: readFileSync("demo/tho-b-bundle.txt", "utf8") };

it("the first machine brings its place and its sheet along, each as it was read", async () => {
  const by = await desk("J. Pell");
  expect([await isFirstDay(by), await nothingWasBuilt(by)]).toEqual([true, true]);
  expect(await beginFirst(by, " ", [bundle])).toMatchObject({
    ok: false,
    problems: [{ message: /needs a name/ }],
  });
  const begun = await beginFirst(by, "tho-b", [bundle]);
  if (!begun.ok) throw new Error("not begun");
  const view = await buildView(by, begun.value);
  expect(view?.context).toMatchObject({
    machine: { name: "tho-b" },
    site: { name: "First site", timeZone: "Europe/London", segments: [{ prefix: "10.61.20.0/26" }] },
  });
  expect(view?.build.sheet).toMatchObject({
    network: { school: "reserved", address: "10.61.20.12", segment: "segment-1" },
    storage: { target: "SLW5129944", erase: [] },
    answers: { hostName: "tho-b", keyboard: "us" },
  });
  expect([await isFirstDay(by), await nothingWasBuilt(by)]).toEqual([false, true]);
  // What is refused leaves one place, which the next try uses.
  expect(await listSites(by)).toHaveLength(1);
});

it("a further site is made as its first machine was found there, or empty", async () => {
  const by = await desk("J. Pell");
  const read = await createSite(by, "Thornhope", [bundle]);
  const bare = await createSite(by, "Bare");
  const sites = new Map((await listSites(by)).map((s) => [s.id, s.site]));
  expect(read.ok && sites.get(read.value)?.keyboard).toBe("us");
  expect(bare.ok && sites.get(bare.value)?.segments).toEqual([]);
});

it("the demo is looked at beside one's own data: nothing is written, and nothing of the two mixes", async () => {
  const own = await desk("J. Pell");
  const mine = (await listMachines(own)).map((m) => m.name);
  const look = await demoDesk("J. Pell");
  expect((await listMachines(look)).map((m) => m.name)).toContain("wrk-hv1");
  await expect(createSite(look, "Another")).rejects.toThrow(/read-only demo/);
  expect((await listMachines(own)).map((m) => m.name)).toEqual(mine);
  expect((await listSites(look)).map((s) => s.site.name)).not.toContain("Another");
  await closeDemo();
});
