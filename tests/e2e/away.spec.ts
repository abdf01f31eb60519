import { createClient } from "@libsql/client";
import { expect, test } from "@playwright/test";
import { loadDemoInto } from "../support/kill-storm";
import { OwnServer } from "../support/own-server";
import { listening } from "./servers";

// The server away, hanging, or without its database: what a person sees, and that nothing is lost.

const server = new OwnServer("away", 4386);
const { base: BASE, url } = server;
const RUN = `${BASE}/runs/r-wrk-hv1`;

type Logged = { at: string; given?: string; event: { kind: string; text?: string } };
const log = async (): Promise<Logged[]> => {
  const answer = await fetch(`${BASE}/api/v1/runs/r-wrk-hv1/events`);
  return ((await answer.json()) as { value: { log: Logged[] } }).value.log;
};
const noteTimes = async (text: string) => (await log()).filter((l) => l.event.text === text).length;

test.beforeAll(async () => {
  await server.start();
  await loadDemoInto(BASE);
});
test.afterAll(() => server.end());

test("two windows offline: the note of each arrives once, with the time when it was given", async ({
  context,
}) => {
  const [first, second] = [await context.newPage(), await context.newPage()];
  for (const page of [first, second]) {
    await page.goto(RUN);
    await listening(page);
  }
  await server.end();
  for (const [page, text] of [
    [first, "from the first window"],
    [second, "from the second window"],
  ] as const) {
    await page.bringToFront();
    await page.locator("body").press("n");
    await page.getByRole("textbox", { name: "In a few words" }).fill(text);
    await page.getByRole("dialog").getByRole("button", { name: "Add to log" }).click();
    await expect(page.getByText("kept in this browser, not yet on the server")).toBeVisible();
  }
  await expect(second.getByText("2 answers are kept in this browser")).toBeVisible();
  await expect(second.getByText(/The server does not respond\. \(since \d\d:\d\d\)/)).toBeVisible();
  await first.close();
  await second.waitForTimeout(4000);
  const back = Date.now();
  await server.start();
  await expect.poll(() => noteTimes("from the first window")).toBe(1);
  await expect.poll(() => noteTimes("from the second window")).toBe(1);
  const notes = (await log()).slice(-2);
  for (const note of notes) {
    // An answer's age is told when it is sent: its way to a server that has just begun makes `given` later by as much, which
    // a slow machine may stretch to some hundred milliseconds of the four seconds that the server was away.
    expect(Date.parse(note.given!)).toBeLessThan(back - 3000);
    expect(Date.parse(note.at)).toBeGreaterThanOrEqual(back);
  }
  await expect(second.getByText("kept in this browser")).toHaveCount(0);
  await expect(second.getByText(/since \d\d:\d\d/)).toHaveCount(0);
  await second.locator("body").press("l");
  await expect(second.getByText(/kept in the browser, received \d\d:\d\d/)).toHaveCount(2);
});

test("with the server away a run goes on here, one step for each answer, and is the same when it is back", async ({
  page,
}) => {
  await page.goto(RUN);
  await listening(page);
  const step = page.getByRole("heading", { level: 2 }).first();
  const answered = async () => (await log()).filter((l) => l.event.kind === "as expected").length;
  const [before, titles] = [await answered(), [await step.textContent()]];
  await server.end();
  for (let i = 0; i < 2; i += 1) {
    // A key that is held down answers one step, whether the server is there or not.
    await page.locator("body").press("Enter");
    await page.locator("body").press("Enter");
    await expect(page.getByText(/kept in this browser, not yet on the server/)).toBeVisible();
    await expect(step).not.toHaveText(titles.at(-1)!);
    titles.push(await step.textContent());
    await page.waitForTimeout(1000);
  }
  await expect(page.getByText("2 answers are kept in this browser")).toBeVisible();
  expect(new Set(titles).size).toBe(3);
  await server.start();
  await expect.poll(answered).toBe(before + 2);
  await expect(page.getByText("kept in this browser")).toHaveCount(0);
  await expect(step).toHaveText(titles.at(-1)!);
});

test("a database that another program holds is told on the run, and the answer is kept until it is free", async ({
  page,
}) => {
  await page.goto(RUN);
  await listening(page);
  const holder = createClient({ url, timeout: 5000 });
  const held = await holder.transaction("write");
  await page.locator("body").press("n");
  await page.getByRole("textbox", { name: "In a few words" }).fill("while it was locked");
  await page.getByRole("dialog").getByRole("button", { name: "Add to log" }).click();
  await expect(page.getByText("kept in this browser, not yet on the server")).toBeVisible();
  // Pages are read meanwhile.
  expect((await fetch(`${BASE}/api/health`)).status).toBe(200);
  await expect(page.getByText("kept in this browser, not yet on the server")).toBeVisible();
  await expect(page.getByText(/Another program has locked the database file/)).toBeVisible({
    timeout: 40_000,
  });
  await held.rollback();
  holder.close();
  await expect.poll(() => noteTimes("while it was locked"), { timeout: 30_000 }).toBe(1);
  await expect(page.getByText("kept in this browser")).toHaveCount(0);
});

test("a server that hangs is said to hang", async ({ page }) => {
  await page.goto(`${BASE}/machines`);
  await listening(page);
  server.signal("SIGSTOP");
  await expect(page.getByText(/The server does not respond\. \(since/)).toBeVisible({ timeout: 10_000 });
  server.signal("SIGCONT");
  await expect(page.getByText(/The server does not respond\. \(since/)).toHaveCount(0);
});
