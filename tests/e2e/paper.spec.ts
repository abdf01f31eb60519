import { expect, test } from "@playwright/test";
import { DEMO, listening, loadDemo } from "./servers";

test.beforeAll(loadDemo);

/** Sheets that go along on paper. */
const PAPER = [
  "/builds/b-wrk-hv2",
  "/builds/b-wrk-hv2/card",
  "/builds/b-wrk-hv2/settings",
  "/machines/m-wrk-hv2",
  "/machines/m-wrk-hv2/labels",
  "/runs/r-tho-b/record",
];
/** Width of the paper less its margins, in CSS pixels. */
const SIZES = { A4: Math.floor(((210 - 22) / 25.4) * 96), Letter: Math.floor(((215.9 - 22) / 25.4) * 96) };

for (const [size, width] of Object.entries(SIZES))
  test(`what goes along on paper fits ${size}, black on white, without what can only be pressed`, async ({
    page,
    context,
  }) => {
    await context.addCookies([{ name: "derrick_theme", value: "night-shift", url: DEMO }]);
    await page.setViewportSize({ width, height: 1000 });
    for (const path of PAPER) {
      await page.goto(DEMO + path);
      await page.emulateMedia({ media: "print" });
      await expect(async () => {
        const found = await page.evaluate(() => ({
          over: document.documentElement.scrollWidth - innerWidth,
          paper: getComputedStyle(document.body).backgroundColor,
          ink: getComputedStyle(document.querySelector("h1, h2")!).color,
          buttons: [...document.querySelectorAll<HTMLElement>(".btn")].filter((b) => b.offsetParent !== null)
            .length,
        }));
        expect({ path, ...found }).toEqual({
          path,
          over: 0,
          paper: "rgb(255, 255, 255)",
          ink: "rgb(0, 0, 0)",
          buttons: 0,
        });
      }).toPass({ timeout: 5000 });
      await page.emulateMedia({ media: "screen" });
    }
  });

test("a build sheet on paper has every zone open, its notes behind it, and its title block", async ({
  page,
}) => {
  await page.goto(`${DEMO}/builds/b-wrk-hv2`);
  await listening(page);
  const folded = page.locator('section[id^="zone-"] button[aria-expanded="false"]');
  expect(await folded.count()).toBeGreaterThan(0);
  await page.emulateMedia({ media: "print" });
  await expect(folded).toHaveCount(0);
  await expect(page.locator("footer")).toBeVisible();
  await expect(page.getByRole("banner")).toBeHidden();
  const [margin, last] = await Promise.all([
    page.locator("[data-margin]").boundingBox(),
    page.locator('section[id="zone-K"]').boundingBox(),
  ]);
  expect(margin!.y).toBeGreaterThanOrEqual(last!.y + last!.height - 1);
  // The printed file has its pages.
  const pdf = await page.pdf({ format: "A4" });
  expect(pdf.subarray(0, 5).toString()).toBe("%PDF-");
  await page.emulateMedia({ media: "screen" });
  expect(await folded.count()).toBeGreaterThan(0);
});

test("with fingers, what is pressed on the run and on the machine sheet is 44 px high", async ({
  browser,
}) => {
  const context = await browser.newContext({
    hasTouch: true,
    isMobile: true,
    viewport: { width: 640, height: 900 },
  });
  const page = await context.newPage();
  for (const path of ["/runs/r-wrk-hv1", "/machines/m-wrk-hv2"]) {
    await page.goto(DEMO + path);
    await listening(page);
    const small = await page.evaluate(() =>
      [
        ...document.querySelectorAll<HTMLElement>(
          "button, .btn, .input, .select, summary, nav a, [role=radiogroup] label",
        ),
      ]
        .filter((e) => e.offsetParent !== null && !e.closest("p, svg, .sr-only") && !e.matches(".sr-only"))
        .map((e) => ({ words: (e.textContent ?? "").slice(0, 40), height: e.getBoundingClientRect().height }))
        .filter((e) => e.height > 0 && e.height < 44),
    );
    expect(small, path).toEqual([]);
    expect(
      await page.evaluate(() => document.documentElement.scrollWidth - innerWidth),
      path,
    ).toBeLessThanOrEqual(0);
  }
  await context.close();
});
