import { readFileSync } from "node:fs";
import { afterAll, beforeAll, expect, it } from "vitest";
import { answersBeside, besideChoices } from "@/server/answers-beside";
import { buildView, issueRevision } from "@/server/builds";
import { closeDatabase } from "@/server/database";
import { importAll } from "@/server/exports";
import { intakeList } from "@/server/intake-list";
import { agreeToErase, saveEdits } from "@/server/sheet-acts";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

ownDatabase();
const BUILD = "b-tho-a";
const DRIVE = "SLW5129931";
const version = async () => (await buildView(await desk(), BUILD))!.build.version;
const set = async (path: string, before: unknown, after: unknown) =>
  expect((await saveEdits(await desk(), BUILD, await version(), [{ path, before, after }])).ok).toBe(true);

beforeAll(async () => {
  await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), { rebase: false });
  await agreeToErase(await desk(), BUILD, await version(), DRIVE, DRIVE);
});
afterAll(closeDatabase);

it("shows what has changed since a letter was issued, and nothing when all was put back", async () => {
  expect((await issueRevision(await desk(), BUILD, await version())).ok).toBe(true);
  const letter = (await besideChoices(await desk(), BUILD))[0]!;
  expect(letter.words).toMatch(/^this sheet at revision [A-Z]$/);
  await set("answers.locale", "en_GB.UTF-8", "en_IE.UTF-8");
  const { pairs } = (await answersBeside(await desk(), BUILD, letter.value))!;
  expect(pairs!.filter((pair) => pair && !pair.same)).toMatchObject([
    { here: { text: "lang en_IE.UTF-8", from: "answers.locale" }, there: { text: "lang en_GB.UTF-8" } },
  ]);
  await set("answers.locale", "en_IE.UTF-8", "en_GB.UTF-8");
  expect((await answersBeside(await desk(), BUILD, letter.value))!.pairs).toEqual([null]);
});

it("says why where there is no file to compare with, and null where there is no such sheet", async () => {
  const choices = await besideChoices(await desk(), BUILD);
  for (const [other, words] of [
    ["b-wrk-hv2", /there is no answer file/],
    ["b-wrk-hv1", /B-0041 has a file of another type \(\.cfg/],
  ] as const) {
    expect(choices.map(({ value }) => value)).toContain(other);
    expect(await answersBeside(await desk(), BUILD, other)).toMatchObject({
      ...{ pairs: null, why: expect.stringMatching(words) },
    });
  }
  expect(await answersBeside(await desk(), BUILD, "b-none")).toBeNull();
  expect(await answersBeside(await desk(), BUILD, "rev-Z")).toBeNull();
});

it("the list of what will be asked has every sheet that waits, and tells what of it is open", async () => {
  await set("answers.timeZone", "Europe/London", "");
  const line = (await intakeList(await desk())).find(({ id }) => id === BUILD)!;
  expect(line.open).toMatchObject([{ zone: "F", value: null }]);
  expect(line.asked).toBeGreaterThan(line.open.length);
});
