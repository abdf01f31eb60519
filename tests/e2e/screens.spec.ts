import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { SCREENS } from "./screens";
import { DEMO, EMPTY, loadDemo } from "./servers";

test.beforeAll(loadDemo);

const CONTRAST = "color-contrast";

test.describe("axe", () => {
  // One test for each screen, so that the workers share them.
  test.describe.configure({ mode: "parallel" });
  for (const [server, path] of [...SCREENS.map((s) => [DEMO, s] as const), [EMPTY, "/"] as const])
    test(`finds nothing serious on ${server === EMPTY ? "an empty " : ""}${path}, and by night no contrast that is too small`, async ({
      page,
    }) => {
      await page.goto(server + path);
      await page.evaluate(() => document.fonts.ready);
      for (const theme of ["day-sheet", "night-shift"]) {
        // The themes are the same pages in other colours.
        await page.evaluate((name) => void (document.documentElement.dataset.theme = name), theme);
        // No page has frames, and so none needs a second window for them.
        const axe = new AxeBuilder({ page }).setLegacyMode(true);
        const { violations } = await (theme === "day-sheet" ? axe : axe.withRules([CONTRAST])).analyze();
        const serious = violations.filter((v) => v.impact === "serious" || v.impact === "critical");
        expect(
          serious.map((v) => `${theme} ${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(" | ")}`),
        ).toEqual([]);
      }
    });
});

test("no screen runs over at 640 px, and none fails with nothing in it", async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 800 });
  for (const url of [
    ...SCREENS.map((s) => DEMO + s),
    ...[
      "/",
      "/sites",
      "/machines",
      "/machines/drives",
      "/machines/compatibility",
      "/images",
      "/builds",
      "/machines/new",
      "/images/new",
    ].map((s) => EMPTY + s),
  ]) {
    await page.goto(url);
    await expect(page.locator("main")).toBeVisible();
    const over = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(over, url).toBeLessThanOrEqual(0);
  }
});

test("nothing is asked of any other host", async ({ page }) => {
  const asked: string[] = [];
  page.on("request", (r) => !r.url().startsWith(DEMO) && !r.url().startsWith("data:") && asked.push(r.url()));
  for (const path of SCREENS) await page.goto(DEMO + path);
  expect(asked).toEqual([]);
  const mono = await page.evaluate(() => document.fonts.check('14px "Atkinson Hyperlegible Mono Variable"'));
  expect(mono).toBe(true);
});
