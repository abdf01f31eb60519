import { expect, type Locator, type Page } from "@playwright/test";
import { loadDemoInto } from "../support/kill-storm";

/** Each of the workers beside each other has two servers of its own; playwright.config.ts starts them. */
const worker = Number(process.env.TEST_PARALLEL_INDEX ?? 0);
export const PORTS = [
  { empty: 4381, demo: 4382 },
  { empty: 4401, demo: 4402 },
] as const;
const { empty, demo } = PORTS[worker]!;

export const EMPTY = `http://127.0.0.1:${empty}`;
export const DEMO = `http://127.0.0.1:${demo}`;
export const DEMO_DATABASE = `file:.derrick/e2e/demo-${demo}/test.db`;

/** Loads the demo data once; a second call is refused by the server and that is fine. */
export async function loadDemo(): Promise<void> {
  await loadDemoInto(DEMO);
}

/** The page is alive in the browser, and hears what the server tells. */
export const listening = async (page: Page): Promise<void> =>
  void (await page.waitForSelector("html[data-feed=open]", { state: "attached" }));

/** Where the page says how far what was typed is; other parts of a page tell their own news. */
export const keeping = (page: Page): Locator =>
  page.getByRole("status").filter({ hasText: /^(Not saved|saving|saved|\S+ fields? (is|are) invalid)/ });

/** All that was typed on the page is with the server. */
export const saved = (page: Page): Promise<void> => expect(keeping(page)).toHaveText(/^saved/);

/** The step that the page shows has been seen for long enough, and nothing is on its way: a press answers it. */
export const takesAnswer = (page: Page): Promise<void> =>
  expect(page.getByLabel("Current step")).toHaveAttribute("aria-busy", "false", { timeout: 20_000 });
