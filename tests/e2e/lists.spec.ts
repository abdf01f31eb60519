import { expect, test } from "@playwright/test";
import { DEMO, listening, loadDemo, saved } from "./servers";

test.beforeAll(loadDemo);

test("the list of sheets tells what is in their way and when hands are needed, and is walked by keys", async ({
  page,
}) => {
  await page.goto(`${DEMO}/builds`);
  await listening(page);
  const list = page.getByRole("table", { name: "Build sheets" });
  const row = (words: string | RegExp) => list.getByRole("row").filter({ hasText: words });
  await expect(row("wrk-hv2")).toContainText(/[A-K]\d+ .* and \d+ more/);
  await expect(row("wrk-hv1")).toContainText("running");
  await expect(row("wrk-hv1")).toContainText(/\d{2}:\d{2}: /);
  // From the field that narrows down into the rows, along them, and into the sheet.
  const field = page.getByLabel("Filter", { exact: true });
  await field.fill("hypervisor");
  const rows = list.locator("[data-row]");
  await expect.poll(() => rows.count()).toBeLessThan(5);
  await field.press("ArrowDown");
  await expect(rows.nth(0).getByRole("link").first()).toBeFocused();
  await page.keyboard.press("ArrowDown");
  await expect(rows.nth(1).getByRole("link").first()).toBeFocused();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("ArrowUp");
  await expect(field).toBeFocused();
  await field.press("ArrowDown");
  const number = await rows.nth(0).getByRole("link").first().textContent();
  await page.keyboard.press("Enter");
  await expect(page.locator("footer")).toContainText(number!);
});

test("what stands in the way of a sheet is told as it is now, also after the list was left", async ({
  page,
}) => {
  await page.goto(`${DEMO}/builds`);
  await listening(page);
  const row = page
    .getByRole("table", { name: "Build sheets" })
    .getByRole("row")
    .filter({ hasText: "wrk-st1" });
  await expect(row).toContainText("no blockers");
  await row.getByRole("link", { name: /Convert wrk-st1/ }).click();
  const name = page.getByLabel("Host name");
  const open = () =>
    expect(async () => {
      if (!(await name.isVisible())) await page.keyboard.press("f");
      await expect(name).toBeVisible({ timeout: 1500 });
    }).toPass();
  await open();
  const before = await name.inputValue();
  await name.fill("not a name");
  await saved(page);
  await page.getByRole("link", { name: "Builds" }).click();
  await expect(row).toContainText(/F\d+ Host name invalid/);
  await row.getByRole("link", { name: /Convert wrk-st1/ }).click();
  await open();
  await name.fill(before);
  await saved(page);
});

test("lists are narrowed, sorted, and have the columns that are wanted; an empty one says so and leads back", async ({
  page,
}) => {
  await page.goto(`${DEMO}/builds`);
  await listening(page);
  const list = page.getByRole("table", { name: "Build sheets" });
  const machines = () => list.locator("[data-row] [role=cell]:nth-child(3)").allTextContents();
  await list.getByRole("button", { name: /^Machine/ }).click();
  const sorted = await machines();
  expect(sorted.filter((m) => m !== "–")).toEqual(sorted.filter((m) => m !== "–").toSorted());
  await expect(list.getByRole("columnheader", { name: /^Machine/ })).toHaveAttribute(
    "aria-sort",
    "ascending",
  );
  await list.getByRole("button", { name: /^Machine/ }).click();
  await expect.poll(machines).toEqual(sorted.toReversed());
  await page.getByText(/^Columns \(/).click();
  await page.getByRole("checkbox", { name: "Address" }).check();
  await expect(list).toContainText("10.61.10.");
  await page.reload();
  await expect(list.getByRole("columnheader", { name: /^Address/ })).toBeVisible();
  await page.getByRole("radio", { name: "handed over" }).check({ force: true });
  await expect(page.getByRole("status").filter({ hasText: /\d+ build sheets/ })).toBeVisible();
  await expect(list.locator("[data-row]").first()).toContainText("handed over");
  await page.getByLabel("Filter", { exact: true }).fill("no such words");
  await page.getByRole("button", { name: /^Show all/ }).click();
  await expect(list.locator("[data-row]").first()).toContainText("handed over");
  for (const [path, name, by] of [
    ["/images", "Image library", /^Size/],
    ["/machines", "Machines", /^Health/],
    ["/machines/drives", "Drives", /^Location/],
  ] as const) {
    await page.goto(DEMO + path);
    const own = page.getByRole("table", { name });
    await own.getByRole("button", { name: by }).click();
    await expect(own.getByRole("columnheader", { name: by })).toHaveAttribute(
      "aria-sort",
      /ascending|descending/,
    );
  }
});

test("a narrow window keeps the columns that are needed first, without scrolling sideways, and brings others when asked", async ({
  page,
}) => {
  await page.setViewportSize({ width: 640, height: 800 });
  for (const [path, name, kept, left] of [
    ["/builds", "Build sheets", /^Blocked by/, /^Rev/],
    ["/machines", "Machines", /^Health/, /^Memory/],
    ["/machines/drives", "Drives", /^Location/, /^Size/],
    ["/images", "Image library", /^Issues/, /^Size/],
  ] as const) {
    await page.goto(DEMO + path);
    await listening(page);
    const list = page.getByRole("table", { name });
    const head = (title: RegExp) => list.getByRole("columnheader", { name: title });
    await expect(head(left), path).toHaveCount(0);
    await expect(head(kept), path).toBeInViewport({ ratio: 1 });
    const over = await list.evaluate((t) => t.parentElement!.scrollWidth - t.parentElement!.clientWidth);
    expect(over, path).toBe(0);
  }
  await page.getByText(/^Columns \(/).click();
  await page.getByRole("checkbox", { name: "Size" }).check();
  const images = page.getByRole("table", { name: "Image library" });
  const size = images.getByRole("columnheader", { name: /^Size/ });
  await expect(size).toHaveCount(1);
  await page.reload();
  await expect(size).toHaveCount(1);
  // What is chosen in a narrow window is not what is wanted in a wide one.
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect(images.getByRole("columnheader", { name: /^Boot modes/ })).toHaveCount(1);
});

test("dates are written in one form whatever the browser's language, and sizes as the person wants them", async ({
  browser,
}) => {
  const context = await browser.newContext({ locale: "de-DE" });
  const page = await context.newPage();
  await page.goto(`${DEMO}/images`);
  await listening(page);
  const cell = page.getByRole("table", { name: "Image library" }).getByRole("cell", { name: /GB/ }).first();
  await expect(cell).toHaveText(/^[\d.]+ GB \([\d.]+ GiB\)$/);
  await page.getByRole("button", { name: "operator" }).click();
  await page.getByRole("radio", { name: "447 GiB", exact: true }).check({ force: true });
  await page.getByRole("button", { name: "Save" }).click();
  const binary = page.getByRole("table", { name: "Image library" }).getByTitle(/GB \(/).first();
  await expect(binary).toHaveText(/^[\d.]+ GiB/);
  // On paper both stand, since the console may show the other.
  await expect(binary.getByText(/GB\)$/)).toBeHidden();
  await page.emulateMedia({ media: "print" });
  await expect(binary.getByText(/GB\)$/)).toBeVisible();
  await page.emulateMedia({ media: "screen" });
  await page.goto(`${DEMO}/builds`);
  const changed = page.getByRole("table", { name: "Build sheets" }).locator("time").first();
  await expect(changed).toHaveText(/^\d{1,2} [A-Z][a-z]{2} \d{4}$/);
  await expect(changed).toHaveAttribute("title", /^\d{4}-\d{2}-\d{2}T.* \(UTC\)$/);
  await context.close();
});
