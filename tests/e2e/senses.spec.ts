import { expect, test, type Locator, type Page } from "@playwright/test";
import { DEMO, listening, loadDemo } from "./servers";

// What a person hears, what stays of colours and movement where the system asks for less, and where the keys are after a slip.

test.beforeAll(loadDemo);

const visit = async (page: Page, path: string): Promise<void> => {
  await page.goto(DEMO + path);
  await listening(page);
};
const nameOf = (drawing: Locator): Promise<string | null> => drawing.getAttribute("aria-label");
const open = async (page: Page, zone: string): Promise<void> => {
  const head = page.locator(`#zone-${zone} [data-zone-head] button`);
  if ((await head.getAttribute("aria-expanded")) === "false") await head.click();
};

test("drawings say what they are and what is in them, as a person would read them out", async ({ page }) => {
  await visit(page, "/builds/b-wrk-hv2");
  for (const zone of ["A", "D", "E", "H"]) await open(page, zone);
  const said = (zone: string, begins: string) =>
    page.locator(`#zone-${zone} [role=img][aria-label^="${begins}"]`).first();
  expect(await nameOf(said("A", "Memory"))).toBe("Memory: 256 GiB, minimum 8.00 GiB, recommended 16.0 GiB");
  expect(await nameOf(said("D", "A drive of 64.0 GB"))).toBe(
    'A drive of 64.0 GB, contents: vfat "BOOT", vfat "CAIRN6"',
  );
  expect(await nameOf(said("D", "A drive of 1.20 TB"))).toContain(
    "contents: not collected; member of virtual drive",
  );
  expect(await nameOf(said("D", "The target"))).toMatch(
    /^The target from its first to its last partition: system boot, 105 MB \(100 MiB\); boot bank 1, /,
  );
  const segment = await nameOf(said("E", "Addresses"));
  expect(segment).toMatch(/^Addresses 10\.61\.10\.0 to 10\.61\.10\.255: network 10\.61\.10\.0; gateway /);
  expect(segment).toMatch(/the rest is free; this build uses 10\.61\.10\.\d+$/);
  const run = await nameOf(said("H", "Timeline"));
  expect(run).toMatch(/^Timeline of the run, \d+ steps: /);
  expect(run).toMatch(/, a guard, \d+ /);
  expect(run).toMatch(/, a wait of \d+ /);

  await visit(page, "/machines/m-cl-ws1/bench");
  await expect(page.getByRole("img", { name: /^Circuit .+: \d+ of \d+ W$/ })).toBeVisible();
  await expect(page.locator("figcaption").first()).toContainText(/measurements from [\d.]+ to [\d.]+/);
});

test("no drawing of any of these screens is without a name", async ({ page }) => {
  for (const path of [
    "/",
    "/machines/m-wrk-st1",
    "/bench?drives=12x8T",
    "/images/i-cairn-9",
    "/sites/s-works",
    "/sites/s-works/wiring",
  ]) {
    await visit(page, path);
    const unnamed = await page.evaluate(() =>
      [...document.querySelectorAll("[role=img], [role=figure], canvas, main img")]
        .filter((e) => !e.closest("[aria-hidden=true]"))
        .filter((e) => !(e.getAttribute("aria-label") ?? e.getAttribute("alt") ?? e.textContent)?.trim())
        .map((e) => e.outerHTML.slice(0, 120)),
    );
    expect(unnamed, path).toEqual([]);
  }
});

test("the keys are where they were when a slip has closed, by Esc and by its button", async ({ page }) => {
  const slips = [
    ["/machines/drives", "Add a USB stick, card or spare drive"],
    ["/machines/drives/PBL3-7742", "Record an image write"],
    ["/machines/compatibility", "Add verdict"],
    ["/machines/compatibility", "Record test"],
  ] as const;
  for (const [path, opens] of slips) {
    await visit(page, path);
    const button = page.getByRole("button", { name: opens }).first();
    await button.focus();
    await page.keyboard.press("Enter");
    await expect(page.getByRole("dialog")).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(page.getByRole("dialog")).toHaveCount(0);
    await expect(button, `${opens}, Esc`).toBeFocused();
  }
  const button = page.getByRole("button", { name: "Record test" }).first();
  await page.keyboard.press("Enter");
  await page.getByRole("dialog").getByLabel("What was changed or tested").fill("the other port");
  await page.getByRole("dialog").getByLabel("Actual result").fill("it links");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(button).toBeFocused();
});

test("nothing moves where the system asks for less motion", async ({ page }) => {
  await page.emulateMedia({ reducedMotion: "reduce" });
  await visit(page, "/builds/b-wrk-hv2");
  const moving = () =>
    page.evaluate(
      () =>
        document.getAnimations().filter((a) => Number(a.effect?.getComputedTiming().duration ?? 0) > 1)
          .length,
    );
  await page.keyboard.press("/");
  await expect(page.getByRole("dialog").getByRole("combobox")).toBeFocused();
  expect(await moving()).toBe(0);
  await page.keyboard.press("Escape");
  await page.keyboard.press("d");
  expect(await moving()).toBe(0);
  expect(await page.evaluate(() => getComputedStyle(document.documentElement).scrollBehavior)).toBe("auto");
});

test("with the colours of the system, what is chosen, what cannot be pressed and what stops are told apart", async ({
  page,
}) => {
  await page.emulateMedia({ forcedColors: "active" });
  await visit(page, "/builds/b-wrk-hv2");
  await open(page, "B");
  const style = (of: Locator, property: string) =>
    of.evaluate((e, name) => getComputedStyle(e).getPropertyValue(name), property);
  // A choice: the chosen one has an edge, the others have none.
  const group = page
    .locator("#zone-C [role=radiogroup], #zone-B [role=radiogroup], #zone-D [role=radiogroup]")
    .first();
  await open(page, "C");
  await open(page, "D");
  await expect(group).toBeVisible();
  const chosen = group.locator("label:has(:checked)").first();
  expect(await style(chosen, "outline-style")).toBe("solid");
  expect(await style(group.locator("label:not(:has(:checked))").first(), "outline-style")).toBe("none");
  // What cannot be pressed is grey, and every stamp has an edge.
  const stamps = page.locator("footer .btn, [data-main-action]");
  expect(await style(stamps.first(), "border-top-style")).toBe("solid");
  // A stop is a shape and a word as well as a colour.
  const stop = page.locator("article[data-severity=stop]").first();
  await expect(stop.getByRole("img", { name: "blocker" })).toBeVisible();
  await expect(stop).toContainText("blocker");
  // The drawings keep the fill that tells one use from another.
  const hatched = page.locator("[role=img] .hatched, [role=img] .dotted-fill").first();
  expect(await style(hatched, "background-image")).not.toBe("none");
});
