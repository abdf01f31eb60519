import { gzipSync } from "node:zlib";
import { expect, test } from "@playwright/test";
import { DEMO, keeping, listening, loadDemo, saved } from "./servers";

test.beforeAll(loadDemo);

test("what is typed is judged at once, also while the server is away; the server then only agrees", async ({
  page,
}) => {
  const ground = page.waitForResponse("**/api/v1/builds/b-wrk-hv2/ground");
  await page.goto(`${DEMO}/builds/b-wrk-hv2`);
  expect((await ground).ok()).toBe(true);
  await listening(page);
  const address = page.getByRole("textbox", { name: "Address", exact: true });
  const outside = page.locator("article", { hasText: "10.61.99.7" });
  const before = await address.inputValue();
  await expect(outside).toHaveCount(0);

  const isSave = (method: string) => method === "POST";
  // One route for both: a save between two of them would be seen by neither.
  let isAway = true;
  const answers: string[] = [];
  await page.route("**/builds/b-wrk-hv2", async (r) => {
    if (!isSave(r.request().method())) return r.continue();
    if (isAway) return r.abort();
    const response = await r.fetch();
    answers.push(await response.text());
    return r.fulfill({ response });
  });
  await address.fill("10.61.99.7");
  await expect(outside).toContainText("blocker");
  await expect(keeping(page)).toHaveText(/^(saving|Not saved)/);
  await expect(page.getByRole("button", { name: "Issue revision" })).toBeDisabled();

  // What the page knows already is not sent back to it.
  isAway = false;
  await saved(page);
  expect(answers).toHaveLength(1);
  expect(answers[0]).toContain("confirmed");
  expect(answers[0]!.length).toBeLessThan(6000);
  await expect(outside).toContainText("blocker");

  // An address that another machine has is known by the server alone.
  await address.fill("10.61.10.214");
  await saved(page);
  await expect(page.locator("article", { hasText: "10.61.10.214" }).first()).toContainText("blocker");
  await address.fill(before);
  await saved(page);
  await expect(outside).toHaveCount(0);
});

test("a sheet whose page holds nothing to judge by is judged by the server, as it always is", async ({
  page,
}) => {
  await page.route("**/ground", (r) => r.abort());
  await page.goto(`${DEMO}/builds/b-wrk-hv2`);
  await listening(page);
  const address = page.getByRole("textbox", { name: "Address", exact: true });
  const before = await address.inputValue();
  await address.fill("10.61.99.8");
  await expect(page.locator("article", { hasText: "10.61.99.8" })).toContainText("blocker");
  await saved(page);
  await address.fill(before);
  await saved(page);
});

test("the script that a sheet needs at first stays small: no rule, and no reader of documents, travels with it", async ({
  request,
}) => {
  const html = await (await request.get(`${DEMO}/builds/b-wrk-hv2`)).text();
  const scripts = [...new Set([...html.matchAll(/<script[^>]+src="([^"]+)"/g)].map((m) => m[1]!))];
  const bodies = await Promise.all(scripts.map(async (s) => (await request.get(DEMO + s)).body()));
  expect(bodies.reduce((sum, body) => sum + gzipSync(body).length, 0)).toBeLessThan(250_000);
  expect(bodies.filter((b) => b.includes("ZodError") || b.includes("network.taken"))).toEqual([]);
});
