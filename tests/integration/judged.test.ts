import { readFileSync } from "node:fs";
import { xxhash64 } from "hash-wasm";
import { beforeAll, describe, expect, it } from "vitest";
import { judgedIn, judgeOn, verdictText, type Ground, type Sheet } from "@/core/sheet";
import { buildView, groundOf, listBuilds } from "@/server/builds";
import { importAll } from "@/server/exports";
import { saveJudged } from "@/server/sheet-acts";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

ownDatabase();
beforeAll(async () => {
  await importAll(await desk("the archive"), readFileSync("demo/marrowby-water.json", "utf8"), {
    rebase: false,
  });
});

/** As a page gets it: through JSON. */
const fetched = async (id: string): Promise<Ground> =>
  JSON.parse(JSON.stringify(await groundOf(await desk(), id))) as Ground;
const ID = "b-wrk-hv2";

interface Change {
  path: string;
  after: unknown;
}
const edited = (sheet: Sheet, { path, after }: Change): Sheet => {
  const [zone, key] = path.split(".") as [keyof Sheet, string];
  return { ...sheet, [zone]: { ...(sheet[zone] as object), [key]: after } };
};

/** What a page's own judge says, and what the server answers to the same edit with that verdict. */
async function save(change: Change, spoil = false) {
  const view = (await buildView(await desk(), ID))!;
  const ground = await fetched(ID);
  const sheet = edited(view.build.sheet, change);
  const judged = judgeOn(ground, sheet);
  const verdict = await xxhash64(verdictText(sheet, judged));
  const edits = [{ ...change, before: null }];
  const answer = await saveJudged(await desk(), ID, view.build.version, edits, spoil ? "0" : verdict);
  return { answer, judged, before: view };
}

describe("a page that judges what is typed", () => {
  it("says of every sheet what the server says", async () => {
    const builds = await listBuilds(await desk());
    expect(builds.length).toBeGreaterThan(4);
    for (const { id } of builds) {
      const view = (await buildView(await desk(), id))!;
      const { sheet } = view.build;
      const own = judgeOn(await fetched(id), sheet);
      expect(verdictText(sheet, own), id).toBe(verdictText(sheet, judgedIn(view)));
    }
  });

  it.each<[string, Change]>([
    ["a host name", { path: "answers.hostName", after: "wrk-hv9" }],
    ["an address outside of the segment", { path: "network.address", after: "10.9.9.9" }],
    ["a time zone that is none", { path: "answers.timeZone", after: "Mars/Base" }],
    ["another boot mode", { path: "boot.mode", after: "legacy" }],
  ])("is only told so where the server agrees: %s", async (_, change) => {
    const { answer, judged, before } = await save(change);
    expect(judged).not.toEqual({
      evaluation: before.evaluation,
      roads: before.roads,
      ways: before.ways,
      consents: before.consents,
    });
    expect(answer).toMatchObject({ ok: true, confirmed: { build: { version: before.build.version + 1 } } });
    const { evaluation } = (await buildView(await desk(), ID))!;
    expect(JSON.parse(JSON.stringify(judged.evaluation))).toEqual(JSON.parse(JSON.stringify(evaluation)));
    expect(JSON.stringify(answer).length).toBeLessThan(4000);
  });

  it("gets the server's word where the two differ: an address that only the server knows to be taken", async () => {
    const { answer, judged } = await save({ path: "network.address", after: "10.61.10.214" });
    const taken = (findings: readonly { code: string }[]) => findings.some((f) => f.code === "network.taken");
    expect(taken(judged.evaluation.findings)).toBe(false);
    expect(answer.ok && "view" in answer && taken(answer.view.evaluation.findings)).toBe(true);
  });

  it("gets the whole answer with a verdict that is wrong, and with none", async () => {
    const wrong = await save({ path: "answers.hostName", after: "wrk-hv8" }, true);
    expect(wrong.answer).toMatchObject({
      ok: true,
      view: { build: { sheet: { answers: { hostName: "wrk-hv8" } } } },
    });
    const { version } = (await buildView(await desk(), ID))!.build;
    const edits = [{ path: "answers.hostName", before: null, after: "wrk-hv2" }];
    expect(await saveJudged(await desk(), ID, version, edits, null)).toMatchObject({ ok: true, view: {} });
  });

  it("is refused like any other where it is stale or does not fit", async () => {
    const edits = [{ path: "answers.hostName", before: null, after: 7 }];
    const { version } = (await buildView(await desk(), ID))!.build;
    expect(await saveJudged(await desk(), ID, version, edits, "0")).toMatchObject({ ok: false, stale: null });
    expect(await saveJudged(await desk(), ID, 1, [], "0")).toMatchObject({ ok: false, stale: { view: {} } });
    expect(await groundOf(await desk(), "b-nowhere")).toBeNull();
  });
});
