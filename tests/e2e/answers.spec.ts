import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { lintKickstart } from "@/core/answers";
import { OwnServer } from "../support/own-server";
import { loadDemoInto } from "../support/kill-storm";

// From the sheet to the file that an installer reads: first what is open, then the file, each line with its field.

const server = new OwnServer("answers", 4390);
const { base: BASE } = server;
test.beforeAll(async () => {
  await server.start();
  await loadDemoInto(BASE);
});
test.afterAll(() => server.end());

test("an answer file is written once somebody has agreed to what it erases, and leads back to its fields", async ({
  page,
}) => {
  await page.goto(`${BASE}/builds/b-tho-a#zone-F`);
  await page.getByRole("link", { name: "the answer file" }).click();
  await expect(page.getByRole("heading", { name: "Nothing is written yet" })).toBeVisible();
  await expect(page.getByText("nobody has agreed that the drive is erased")).toBeVisible();
  // The way back to the field that is open.
  await page.getByRole("main").getByRole("link", { name: /^D / }).click();
  await page.getByLabel(/^To agree to erase Sallow 512/).fill("SLW5129931");
  await page.getByRole("button", { name: "Agree to erase" }).click();
  await expect(page.getByText("Agreed to erase")).toBeVisible();
  await page.goto(`${BASE}/builds/b-tho-a/answers`);
  const text = page.getByRole("region", { name: /^Text of tho-a\.ks/ });
  await expect(text.getByText("timezone Europe/London --utc")).toBeVisible();
  await expect(
    page.getByText("what is installed beside the system itself is chosen on the screen"),
  ).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "fetch tho-a.ks" }).click(),
  ]);
  const file = readFileSync(await download.path(), "utf8");
  expect(lintKickstart(file)).toEqual([]);
  expect(file).toContain("network --hostname=tho-a");
  await text.getByRole("link", { name: "F time zone" }).click();
  await expect(page.locator('[data-field="answers.timeZone"]')).toBeVisible();
});
