import { readFileSync } from "node:fs";
import { afterAll, beforeAll, expect, it } from "vitest";
import { buildView } from "@/server/builds";
import { closeDatabase } from "@/server/database";
import { importAll } from "@/server/exports";
import { saveEdits } from "@/server/sheet-acts";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

ownDatabase();
const BUILD = "b-wrk-hv2";
beforeAll(async () => {
  await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), { rebase: false });
});
afterAll(closeDatabase);

const view = async (id = BUILD) => (await buildView(await desk(), id))!;
async function called(hostName: string) {
  const { build } = await view();
  const edit = { path: "answers.hostName", before: build.sheet.answers.hostName, after: hostName };
  expect((await saveEdits(await desk(), BUILD, build.version, [edit])).ok).toBe(true);
  const { nextName, evaluation } = await view();
  return {
    nextName,
    codes: evaluation.findings.map((f) => f.code).filter((c) => c.startsWith("answers.name")),
  };
}

it("offers the next free name by the site's pattern, to a sheet that has none of its own", async () => {
  expect((await view()).nextName).toBeNull();
  // Its own machine is called so already, and that is no clash.
  expect(await called("pump-room")).toEqual({ nextName: "wrk-hv2", codes: ["answers.name-pattern"] });
  expect(await called("wrk-hv1")).toEqual({ nextName: "wrk-hv2", codes: ["answers.name-taken"] });
  expect(await called("wrk-hv9")).toEqual({ nextName: null, codes: [] });
  expect(await called("wrk-hv2")).toEqual({ nextName: null, codes: [] });
});

it("knows each role's own, and letters as well as numbers", async () => {
  for (const id of ["b-wrk-st1", "b-tho-a", "b-cl-bk1"])
    expect([id, (await view(id)).nextName]).toEqual([id, null]);
});
