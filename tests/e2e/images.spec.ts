import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { corpusFile } from "../support/corpus";
import { DEMO, loadDemo } from "./servers";

test.beforeAll(loadDemo);

test("a real image is dropped, looked into, compared with its published list, and the sheet uses what was found", async ({
  page,
}) => {
  const file = corpusFile("p10-memtest-x64.iso");
  const digest = createHash("sha256").update(readFileSync(file)).digest("hex");
  await page.goto(`${DEMO}/images/i-lowland-7`);
  await expect(page.getByText(/^Not inspected yet/)).toBeVisible();
  await page.setInputFiles('input[aria-label="Image file"]', file);
  const verdict = page.getByRole("table", { name: "Boot modes" });
  await expect(verdict.getByRole("row", { name: /Optical or virtual disc/ })).toContainText(
    "El Torito entry for UEFI with a loader",
  );
  await expect(
    verdict
      .getByRole("row", { name: /USB stick/ })
      .getByRole("cell")
      .nth(2),
  ).toContainText("its loader is for x64 only");
  await expect(page.getByText("MT86PLUS_64")).toBeVisible();
  await page
    .getByRole("button", { name: /^boot image for UEFI/ })
    .first()
    .click();
  await page.getByRole("button", { name: "zoom to the chosen region" }).click();
  await expect(page.getByText("Computed from p10-memtest-x64.iso.")).toBeVisible();
  await expect(page.getByText("The file does NOT match the published checksum.")).toBeVisible();

  const list = page.getByLabel("Or paste the published checksum list");
  await list.fill("nothing here");
  await page.getByRole("button", { name: "Find this image" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "no line has a checksum" })).toBeVisible();
  await list.fill(`${"0".repeat(64)}  other.iso\n${digest}  memtest.iso\n`);
  await page.getByRole("button", { name: "Find this image" }).click();
  await expect(page.getByText(/Found by its value, under another name: SHA-256/)).toBeVisible();
  await expect(page.getByText("The file matches the published checksum.")).toBeVisible();

  await page.goto(`${DEMO}/builds/b-tho-a`);
  await expect(page.locator("article", { hasText: "File size differs" })).toBeVisible();
  await expect(page.locator("article", { hasText: "Image not inspected" })).toHaveCount(0);
});

test("a cut-off download is said to be so, and stops every build that uses it", async ({ page }) => {
  await page.goto(`${DEMO}/images/i-cairn-9`);
  await page.setInputFiles('input[aria-label="Image file"]', corpusFile("p09-truncated-hybrid.iso"));
  await expect(page.getByText(/Damaged: truncated: the image declares/)).toContainText("59 %");
  await expect(page.getByRole("button", { name: /^missing/ }).first()).toBeVisible();
  await page.setInputFiles('input[aria-label="Image file"]', corpusFile("p12-html-error-page.iso"));
  await expect(page.getByText(/a web page, not an image/)).toBeVisible();
  await page.goto(`${DEMO}/builds/b-wrk-hv2`);
  await expect(page.locator("article", { hasText: "Image does not boot in this mode" })).toContainText(
    "blocker",
  );
});
