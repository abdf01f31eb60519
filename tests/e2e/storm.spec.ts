import { expect, test, type Page } from "@playwright/test";
import { loadDemoInto } from "../support/kill-storm";
import { OwnServer } from "../support/own-server";
import { seeded } from "../support/random";
import { listening, takesAnswer } from "./servers";

// Answers over a line that is slow both ways, in a slow browser, with the stream of news cut between an answer and its news: each
// step is answered by one press, none is passed unseen, and no page stands still.

const server = new OwnServer("storm", 4399);
const RUN = "/api/v1/runs/r-wrk-hv1/events";
test.beforeAll(async () => {
  await server.start();
  await loadDemoInto(server.base);
});
test.afterAll(() => server.end());

const title = (page: Page) => page.getByLabel("Current step").getByRole("heading", { level: 2 });
const answered = async (): Promise<string[]> => {
  const { value } = (await (await fetch(server.base + RUN)).json()) as {
    value: { log: { event: { kind: string; step: string } }[] };
  };
  return value.log.flatMap(({ event }) => (event.kind === "as expected" ? [event.step] : []));
};

test("two presses in haste answer one step, however fast the server is", async ({ page }) => {
  const before = await answered();
  await page.goto(`${server.base}/runs/r-wrk-hv1`);
  await listening(page);
  await takesAnswer(page);
  const first = (await title(page).textContent())!;
  await page.keyboard.press("Enter");
  await expect(title(page)).not.toHaveText(first);
  const second = (await title(page).textContent())!;
  await page.keyboard.press("Enter");
  await takesAnswer(page);
  await expect(title(page)).toHaveText(second);
  expect(await answered()).toHaveLength(before.length + 1);
});

test("what a slow browser tells late of a slip that was closed does not close the one that was opened since", async ({
  page,
}) => {
  await page.addInitScript(() => {
    addEventListener(
      "close",
      (e) => {
        if (!e.isTrusted || !(e.target instanceof HTMLDialogElement)) return;
        e.stopImmediatePropagation();
        setTimeout(() => e.target?.dispatchEvent(new Event("close")), 500);
      },
      true,
    );
  });
  await page.goto(`${server.base}/runs/r-wrk-hv1`);
  await listening(page);
  await takesAnswer(page);
  await page.keyboard.press("r");
  await page.getByLabel("Measured quantity").fill("inlet temperature");
  await page.getByLabel("Value with unit").fill("21 C");
  await page.keyboard.press("Control+Enter");
  await page.keyboard.press("d");
  await expect(page.getByRole("dialog", { name: "What do you see?" })).toBeVisible();
  await page.waitForTimeout(1000);
  await page.getByLabel("Record what the screen shows").fill("a fan is loud");
  await expect(page.getByRole("dialog", { name: "What do you see?" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
});

test("what an older question brings late takes no step back; a storm of slow answers and cut news loses none", async ({
  page,
  context,
}) => {
  const random = seeded(1636);
  const before = await answered();
  await page.goto(`${server.base}/runs/r-wrk-hv1`);
  await listening(page);
  const slow = await context.newCDPSession(page);
  await slow.send("Emulation.setCPUThrottlingRate", { rate: 4 });
  await page.route(`**${RUN}`, async (route) => {
    // What was asked is answered at once, and is on its way for up to three seconds; the way of an answer is shorter.
    const response = await route.fetch().catch(() => null);
    await new Promise((resolve) =>
      setTimeout(resolve, random() * (route.request().method() === "GET" ? 3000 : 1800)),
    );
    await (response ? route.fulfill({ response }) : route.abort()).catch(() => undefined);
  });
  // Each title that stands on the page, in its order, however short.
  await page.evaluate(() => {
    const shown: string[] = [];
    Object.assign(window, { shown });
    setInterval(() => {
      const now = document.querySelector("[aria-label='Current step'] h2")?.textContent;
      if (now && now !== shown.at(-1)) shown.push(now);
    }, 10);
  });
  const seen: string[] = [];
  while (await page.getByRole("button", { name: /^Confirm/ }).isVisible()) {
    await takesAnswer(page);
    const own = (await title(page).textContent())!;
    seen.push(own);
    await page.keyboard.press("Enter");
    if (random() < 0.6) {
      await page.waitForTimeout(random() * 600);
      await context.setOffline(true);
      await page.waitForTimeout(random() * 800);
      await context.setOffline(false);
    }
    await expect(title(page).filter({ hasText: own })).toHaveCount(0, { timeout: 20_000 });
  }
  await expect(page.getByText("all steps done")).toBeVisible();
  expect(seen.length).toBeGreaterThan(4);
  expect(new Set(seen).size).toBe(seen.length);
  await expect
    .poll(async () => (await answered()).length, { timeout: 20_000 })
    .toBe(before.length + seen.length);
  // All that was on its way has arrived, and nothing of it has taken the page back.
  await page.waitForTimeout(4000);
  await expect(page.getByText("all steps done")).toBeVisible();
  expect(await page.evaluate(() => (window as unknown as { shown: string[] }).shown)).toEqual(seen);
});
