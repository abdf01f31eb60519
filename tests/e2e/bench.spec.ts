import { expect, test } from "@playwright/test";
import { EMPTY, listening } from "./servers";

test("a question about drives is answered by keys alone, without any machine, and its address says it again", async ({
  page,
  context,
}) => {
  await page.goto(EMPTY);
  await listening(page);
  await page.keyboard.press("6");
  await expect(page.getByRole("heading", { name: "Storage planner" })).toBeVisible();
  await page.getByRole("textbox", { name: "Drives", exact: true }).fill("4x4T");
  await page.getByLabel("Fault tolerance (drives)").fill("1");
  await page.keyboard.press("Tab");
  const layouts = page.getByRole("table", { name: "Layouts", exact: true });
  await expect(layouts.getByRole("row", { name: /^raidz1 of 4/ })).toContainText("11.5 TB");
  await layouts.getByRole("button", { name: "mirror of 4" }).focus();
  await page.keyboard.press("Enter");
  const said = page.locator("[data-consequence]");
  await expect(said).toHaveText(/^4 copies of one drive\. Usable: 3\.86 TB \(3\.51 TiB\), 24 % of raw\./);
  await expect(page.getByRole("note")).toContainText("76 % of the raw capacity is used for copies");
  await expect(page).toHaveURL(/drives=4x4T&survive=1&pick=mirror\+of\+4$/);
  const colleague = await context.newPage();
  await colleague.goto(page.url());
  await expect(colleague.locator("[data-consequence]")).toHaveText((await said.textContent()) ?? "");
});

test("drives fail and are mended by a key; what must not be pulled now is said, and what is lost", async ({
  page,
}) => {
  await page.goto(`${EMPTY}/bench?drives=6x12T&survive=1&pick=3+%C3%97+mirror+of+2`);
  await listening(page);
  const drive = (n: number) => page.getByRole("button", { name: new RegExp(`^Drive ${n}(,|$)`) });
  const stands = page.locator("[data-standing]");
  await expect(stands).toHaveText("Healthy.");
  await drive(1).focus();
  await page.keyboard.press("Space");
  await expect(stands).toContainText(
    "Degraded: all data is readable. Data is lost if one of these also fails: 2.",
  );
  await expect(drive(2)).toHaveAccessibleName("Drive 2, do not pull");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Space");
  await expect(stands).toHaveText("Failed: data is lost.");
  await page.keyboard.press("Space");
  await expect(stands).toHaveAttribute("data-standing", "degraded");
});

test("what cannot be laid out is said at once, and the ladder ends at what can be used", async ({ page }) => {
  await page.goto(`${EMPTY}/bench?drives=12x20T&school=ZFS`);
  await listening(page);
  const ladder = page.getByRole("table", { name: "Capacity breakdown" });
  await expect(ladder.getByRole("row").last()).toContainText("reserved by the file system");
  await expect(page.locator("[data-consequence]")).toContainText("183 TB");
  await page.getByRole("textbox", { name: "Drives", exact: true }).fill("six");
  await expect(page.getByText('"six" is not a group of drives; enter 6x12T, or 960G.')).toBeVisible();
  await page.getByRole("textbox", { name: "Drives", exact: true }).fill("2x4T");
  await expect(page.getByText("No layout of these drives meets the requirements.")).toBeVisible();
});

test("the chance of loss is tried out beside the page, can be stopped, and drives of a batch lose more", async ({
  page,
}) => {
  await page.goto(`${EMPTY}/bench?drives=5x18T&survive=1&pick=raidz1+of+5`);
  await listening(page);
  const trial = page.getByRole("group", { name: "Simulation" });
  await trial.getByRole("button", { name: "Run simulation" }).click();
  await expect(trial.locator('[data-trial="done"]')).toContainText(/of 200,000 systems lost data/, {
    timeout: 60_000,
  });
  await expect(trial).toContainText("inside this interval");
  await trial.getByLabel("Correlated failures (same batch)").selectOption("10 times as often together");
  await trial.getByRole("button", { name: "Run simulation" }).click();
  await trial.getByRole("button", { name: "Stop" }).click();
  await expect(trial.getByRole("button", { name: "Run simulation" })).toBeVisible();
});

test("what is to be known of a layout stands under it, and goes with another choice", async ({ page }) => {
  await page.goto(`${EMPTY}/bench?drives=12x8T+1x6T&pick=raidz2+of+13`);
  await listening(page);
  const remarks = page.locator("[data-remarks]");
  await expect(remarks).toContainText(
    "without 1 of these drives the usable capacity would be larger, 73.0 TB",
  );
  await page.getByRole("button", { name: "raidz2 of 12", exact: true }).click();
  await expect(remarks.getByText("the usable capacity would be larger")).toHaveCount(0);
});
