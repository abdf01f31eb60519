import { expect, test } from "@playwright/test";
import { OwnServer } from "../support/own-server";
import { loadDemoInto } from "../support/kill-storm";
import { keeping, listening } from "./servers";

// What one person writes is seen by another without a key, and nothing is asked for over and over.
const server = new OwnServer("listening", 4391);
const BASE = server.base;

test.beforeAll(async () => {
  await server.start();
  await loadDemoInto(BASE);
});
test.afterAll(() => server.end());

test("a sheet, Today and a run show what another window wrote", async ({ context }) => {
  const [mine, theirs, today] = [await context.newPage(), await context.newPage(), await context.newPage()];
  for (const [page, path] of [
    [mine, "/builds/b-wrk-hv2"],
    [theirs, "/builds/b-wrk-hv2"],
    [today, "/"],
  ] as const) {
    await page.goto(BASE + path);
    await listening(page);
  }
  await theirs.bringToFront();
  await theirs.getByLabel("What is this build for?").fill("Install it before the flood season");
  await expect(mine.getByLabel("What is this build for?")).toHaveValue("Install it before the flood season");
  await expect(today.getByText("Install it before the flood season")).toBeVisible();
  // The other window's undo is its own: this one made no change that could be taken back.
  await expect(mine.getByRole("button", { name: "Undo" })).toBeDisabled();
  await mine.goto(`${BASE}/runs/r-wrk-hv1`);
  await theirs.goto(`${BASE}/runs/r-wrk-hv1`);
  for (const page of [mine, theirs]) await listening(page);
  await theirs.bringToFront();
  await theirs.locator("body").press("n");
  await theirs.getByRole("textbox", { name: "In a few words" }).fill("the fan is loud");
  await theirs.getByRole("dialog").getByRole("button", { name: "Add to log" }).click();
  await mine.bringToFront();
  // A page that has just come to the front may miss its first key: the log is opened until it stands open.
  await expect(async () => {
    const note = mine.getByText("the fan is loud");
    if (!(await note.isVisible())) await mine.locator("body").press("l");
    await expect(note).toBeVisible({ timeout: 2000 });
  }).toPass({ timeout: 40_000 });
});

test("while nothing is written nothing is asked for", async ({ page }) => {
  await page.goto(`${BASE}/runs/r-wrk-hv1`);
  await listening(page);
  await page.waitForTimeout(1500);
  const asked: string[] = [];
  page.on("request", (request) => asked.push(request.url()));
  await page.waitForTimeout(9000);
  expect(asked).toEqual([]);
});

test("what is typed and not saved yet stays when another window saves", async ({ context }) => {
  const [mine, theirs] = [await context.newPage(), await context.newPage()];
  for (const page of [mine, theirs]) {
    await page.goto(`${BASE}/builds/b-wrk-st1`);
    await listening(page);
  }
  const subject = (page: typeof mine) => page.getByLabel("What is this build for?");
  await mine.route(BASE + "/builds/**", (route) =>
    route.request().method() === "POST" ? route.abort() : route.fallback(),
  );
  await subject(mine).fill("typed here");
  await expect(keeping(mine)).toContainText("Not saved");
  await theirs.bringToFront();
  await subject(theirs).fill("typed there");
  await expect(keeping(theirs)).toContainText(/^saved/);
  await mine.waitForTimeout(1500);
  await expect(subject(mine)).toHaveValue("typed here");
  await mine.unroute(BASE + "/builds/**");
  const slip = mine.getByRole("dialog", { name: /^Edit conflict: someone else saved this sheet/ });
  await expect(slip).toContainText("typed there");
  await expect(slip).toContainText("typed here");
});
