import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { DEMO, EMPTY, loadDemo } from "./servers";

const SCREENS = [
  "/",
  "/sites",
  "/sites/s-works",
  "/sites/s-works/wiring",
  "/sites/s-works/files",
  "/sites/s-works/keys",
  "/machines",
  "/machines/new",
  "/machines/m-wrk-st1",
  "/machines/m-tho-a",
  "/machines/m-wrk-hv2?drive=TSL1215027",
  "/machines/m-cl-ws1/bench?pass=1",
  "/machines/drives",
  "/machines/drives/CDB2T77120",
  "/machines/compatibility",
  "/machines/list",
  "/images",
  "/images/new",
  "/images/i-cairn-9",
  "/images/profiles/new",
  "/images/profiles/lowland-server/7?mine=yes",
  "/images/profiles/lowland-server/7?form=open",
  "/builds",
  "/bench?drives=12x8T+1x6T&spares=1",
  "/builds/b-wrk-hv2",
  "/builds/b-tho-a",
  "/builds/b-wrk-hv1/history",
  "/builds/b-wrk-hv2/settings",
  "/builds/b-wrk-hv2/commands",
  "/builds/b-wrk-hv2/card",
  "/builds/b-tho-a/answers",
  "/builds/b-wrk-hv1/answers",
  "/builds/b-tho-a/passwords",
  "/builds/intake",
  "/builds/netboot",
  "/builds/netboot/batch",
  "/builds/b-tho-a/arm",
  "/machines/m-wrk-hv2/labels",
  "/runs/r-wrk-hv1",
  "/runs/r-tho-b/record",
  "/damaged",
  "/nowhere",
];

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
