import { expect, test, type Page } from "@playwright/test";
import { unfitTexts } from "./fits";
import { SCREENS } from "./screens";
import { DEMO, listening, loadDemo } from "./servers";

test.beforeAll(loadDemo);

/** Everything that can be opened to be read, opened, except for lists that lie over the page. */
const openAll = (page: Page): Promise<void> =>
  page.evaluate(() =>
    document
      .querySelectorAll<HTMLDetailsElement>("details:not(:has(> .absolute))")
      .forEach((d) => (d.open = true)),
  );

/** What cannot be read where it stands, once the page has come to rest. */
async function expectFits(page: Page): Promise<void> {
  await page.evaluate(() => document.fonts.ready);
  await openAll(page);
  await expect(async () => expect(await page.evaluate(unfitTexts)).toEqual([])).toPass({ timeout: 5_000 });
}

test("what is cut, covered, out of its frame or to be moved sideways is found", async ({ page }) => {
  await page.setContent(`
    <p style="width:60px;overflow:hidden;white-space:nowrap">a name that is cut</p>
    <p style="width:60px;overflow:hidden;white-space:nowrap" title="a name that is told on hover">a name that is told on hover</p>
    <div style="width:60px;overflow:hidden;white-space:nowrap" title="2 Dec 2026, 10:30"><time>2 Dec 2026, 10:30</time></div>
    <p style="width:60px;overflow:hidden;position:absolute;clip-path:inset(50%);height:1px">for those who have it read out</p>
    <div style="width:60px;border:1px solid;white-space:nowrap">runs out of its frame</div>
    <div style="width:60px;height:12px;overflow:hidden">lines that are below the edge of their box</div>
    <table><tr><td style="max-width:40px;white-space:nowrap">out of its cell</td></tr></table>
    <div style="height:40px"><span>lies below</span><span style="margin-left:-40px">lies above</span></div>
    <div style="width:80px;overflow-x:auto;white-space:nowrap">must be moved sideways</div>
    <textarea style="width:60px">an editor of text moves by itself</textarea>`);
  const found = await page.evaluate(unfitTexts);
  expect(found.map((f) => `${f.kind}: ${f.text}`)).toEqual([
    "cut: a name that is cut",
    "cut: 2 Dec 2026, 10:30",
    "leaves its frame: runs out of its frame",
    "cut: lines that are below the edge of their box",
    "leaves its frame: out of its cell",
    "scrolls sideways: must be moved sideways",
    "overlaps: lies below | lies above",
  ]);
});

test.describe("nothing is cut or covered", () => {
  // One test for each screen, so that the workers share them.
  test.describe.configure({ mode: "parallel" });
  for (const width of [1280, 640])
    for (const path of SCREENS)
      test(`on ${path} at ${width} px`, async ({ page }) => {
        await page.setViewportSize({ width, height: 800 });
        await page.goto(DEMO + path);
        await listening(page);
        await expectFits(page);
        if (!/^\/builds\/b-[^/]+$/.test(path)) return;
        for (const zone of "ABCDEFHIJK") {
          const head = page.locator(`#zone-${zone} [aria-expanded]`).first();
          if ((await head.getAttribute("aria-expanded")) === "false") await head.click();
          await expect(head).toHaveAttribute("aria-expanded", "true");
          await expectFits(page);
        }
      });
});
