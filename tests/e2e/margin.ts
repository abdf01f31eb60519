import type { Page } from "@playwright/test";

/** Opens the line in which the margin folds the notes of a zone, where there is one that is folded. */
export async function openQuiet(page: Page, zone: string): Promise<void> {
  const line = page.locator(`article[data-kind="quiet"][data-zone="${zone}"]`);
  await line.waitFor();
  const opens = line.locator("h3 [data-opens]");
  if ((await opens.getAttribute("aria-expanded")) === "false") await opens.click();
}
