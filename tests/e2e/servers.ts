import { expect, type Page } from "@playwright/test";
import { loadDemoInto } from "../support/kill-storm";

export const EMPTY = "http://127.0.0.1:4381";
export const DEMO = "http://127.0.0.1:4382";

/** Loads the demo data once; a second call is refused by the server and that is fine. */
export async function loadDemo(): Promise<void> {
  await loadDemoInto(DEMO);
}

/** The page is alive in the browser, and hears what the server tells. */
export const listening = async (page: Page): Promise<void> =>
  void (await page.waitForSelector("html[data-feed=open]", { state: "attached" }));

/** All that was typed on the page is with the server. */
export const saved = (page: Page): Promise<void> =>
  expect(page.getByRole("status").filter({ hasText: /^saved/ })).toBeVisible();
