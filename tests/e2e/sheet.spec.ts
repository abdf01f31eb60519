import { createClient } from "@libsql/client";
import { expect, test } from "@playwright/test";
import { DEMO, DEMO_DATABASE, keeping, listening, loadDemo, saved } from "./servers";

const HV2 = `${DEMO}/builds/b-wrk-hv2`;

test.beforeAll(loadDemo);

test("the sheet is worked from the keyboard", async ({ page }) => {
  await page.goto(HV2);
  const zoneA = page.locator("#zone-A");
  await expect(zoneA.getByLabel("Machine", { exact: true })).toHaveCount(0);
  await page.keyboard.press("a");
  await expect(zoneA.getByLabel("Machine", { exact: true })).toBeVisible();
  await page.keyboard.press("]");
  await expect(page.locator("article:focus")).toHaveAttribute("data-label", "A1");
  await page.keyboard.press("/");
  await page.getByPlaceholder(/D2/).fill("e1");
  await expect(page.getByRole("option", { name: /E1/ })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/#E1$/);
  await page.keyboard.press("Shift+Slash");
  await expect(page.getByRole("heading", { name: "Keyboard shortcuts" })).toBeVisible();
  await page.keyboard.press("Escape");
  // The same list is found by its name.
  await page.keyboard.press("/");
  await page.keyboard.type("keyboard");
  await expect(page.getByRole("option").first()).toContainText("Keyboard shortcuts");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Keyboard shortcuts" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("3");
  await expect(page).toHaveURL(/\/machines$/);
});

test("each note stands level with its field or below the one above, and none overlap", async ({ page }) => {
  await page.goto(HV2);
  await expect(page.locator("article").last()).toBeVisible();
  const boxes = await page
    .locator("article")
    .evaluateAll((notes) => notes.map((n) => n.getBoundingClientRect()).map((r) => [r.top, r.bottom]));
  boxes.sort((a, b) => a[0]! - b[0]!);
  boxes.slice(1).forEach(([top], i) => expect(top).toBeGreaterThanOrEqual(boxes[i]![1]!));
  // Notes are placed in the frame after what they stand beside; stops stand level whatever is above them.
  await expect(async () => {
    for (const [field, label] of [
      ["storage.target", "D1"],
      ["network.address", "E1"],
    ]) {
      const beside = await page.locator(`[data-field="${field}"]`).boundingBox();
      const note = await page.locator(`#${label}`).boundingBox();
      expect(Math.abs(note!.y - beside!.y), label).toBeLessThan(12);
    }
  }).toPass();
});

test("the margin shows stops first, folds what asks nobody, and draws a leader only to what is pointed at", async ({
  page,
}) => {
  await page.goto(HV2);
  await listening(page);
  const quiet = page.locator('article[data-kind="quiet"][data-zone="D"]');
  await expect(quiet).toContainText("3 notes");
  await expect(page.locator("article[data-severity=note]:not([data-kind=quiet])")).toHaveCount(0);
  // Of folded zones a caution keeps its title; of open ones its sentence.
  await expect(page.locator("#A1")).not.toContainText("suggested fix");
  await expect(page.locator("#D2")).toContainText("suggested fix");
  const leader = (key: string) => page.locator(`[data-leader="${key}"]`);
  await expect(leader("network.in-pool")).toBeVisible();
  const caution = await page.locator("#D2").getAttribute("data-entry");
  await expect(leader(caution!)).toBeHidden();
  await page.locator("#D2").hover();
  await expect(leader(caution!)).toBeVisible();
  await page.locator("h1, label").first().hover();
  await expect(leader(caution!)).toBeHidden();
  // A label in the address opens the line that holds it.
  await page.getByRole("link", { name: /D7/ }).first().click();
  await expect(page.locator("#D7")).toBeVisible();
  await expect(page.locator("#D7")).toBeFocused();
});

test("a finding is opened and cured by keys, and the cure is one change that U takes back", async ({
  page,
}) => {
  await page.goto(HV2);
  await listening(page);
  const clash = page.locator("article", { hasText: "Static address inside a DHCP range" });
  await expect(clash).toBeVisible();
  for (let n = 0; n < 30 && !(await clash.evaluate((e) => e === document.activeElement)); n += 1)
    await page.keyboard.press("]");
  await expect(clash).toBeFocused();
  await page.keyboard.press("r");
  await expect(clash).toContainText("Choose an address outside the range");
  await expect(clash).toContainText(/E address: 10\.61\.10\.122 → 10\.61\.10\.\d+/);
  await expect(clash).toBeFocused();
  await page.keyboard.press("t");
  await expect(clash).toHaveCount(0);
  await saved(page);
  // The keys are not lost with it.
  await expect(page.locator("article:focus")).toHaveCount(1);
  await page.keyboard.press("u");
  await expect(clash).toBeVisible();
  await saved(page);
});

test("a change saves by itself, can be undone, and its finding comes and goes", async ({ page }) => {
  await page.goto(HV2);
  const clash = page.locator("article", { hasText: "Static address inside a DHCP range" });
  await expect(clash).toBeVisible();
  await page.getByRole("button", { name: /next free/ }).click();
  await expect(clash).toHaveCount(0);
  await page.locator("body").click({ position: { x: 5, y: 400 } });
  await page.keyboard.press("u");
  await expect(clash).toBeVisible();
  await page.keyboard.press("Shift+u");
  await expect(clash).toHaveCount(0);
  await page.keyboard.press("u");
  await expect(clash).toBeVisible();
  await page.reload();
  await expect(clash).toBeVisible();
});

test("U on a change that is on its way takes it back when it has arrived, and does so once", async ({
  page,
}) => {
  await page.goto(HV2);
  await listening(page);
  const subject = page.getByLabel("What is this build for?");
  const was = await subject.inputValue();
  let held: (() => void) | null = null;
  await page.route("**/*", async (route) => {
    if (route.request().method() === "POST" && !held) await new Promise<void>((go) => (held = go));
    await route.continue();
  });
  await subject.fill("on its way");
  await expect.poll(() => held).not.toBeNull();
  await subject.press("Escape");
  await page.keyboard.press("u");
  await page.keyboard.press("u");
  held!();
  await expect(subject).toHaveValue(was);
  await saved(page);
  await page.reload();
  await expect(subject).toHaveValue(was);
});

test("a stale save is refused, both versions are shown, and nothing typed is lost", async ({ browser }) => {
  const [one, two] = await Promise.all([browser.newPage(), browser.newPage()]);
  // A window that hears of no change, as over a line that is down, works on an older sheet.
  await two.route("**/api/v1/stream", (route) => route.abort());
  for (const page of [one, two]) {
    await page.goto(HV2);
    await page.keyboard.press("k");
  }
  await one.getByLabel("Handed over to").fill("Switch between light and dark theme");
  await expect(keeping(one)).toContainText(/^saved/);
  await two.getByLabel("Handed over to").fill("Day shift");
  const slip = two.getByRole("dialog", { name: /^Edit conflict: someone else saved this sheet/ });
  await expect(slip).toContainText("Day shift");
  await expect(slip).toContainText("Switch between light and dark theme");
  await slip.getByRole("button", { name: "Save this choice" }).click();
  await expect(keeping(two)).toContainText(/^saved/);
  await two.reload();
  await two.keyboard.press("k");
  await expect(two.getByLabel("Handed over to")).toHaveValue("Day shift");
});

test("the margin is a drawer in a narrow window", async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 800 });
  await page.goto(HV2);
  await expect(page.locator("article").first()).toBeHidden();
  await page.getByRole("button", { name: /^Findings \(\d+\)$/ }).click();
  await expect(page.locator("article").first()).toBeVisible();
});

test("bad input says what and where, and changes nothing", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-cl-bk1`);
  const client = createClient({ url: DEMO_DATABASE });
  const facts = async () =>
    (await client.execute("SELECT version, document FROM machines WHERE id = 'm-cl-bk1'")).rows;
  const before = JSON.stringify(await facts());
  const paste = page.getByLabel("Paste the output of a tool");
  const read = async (text: string) => {
    await paste.fill(text);
    await page.getByRole("button", { name: "Import", exact: true }).click();
  };
  await read('{"blockdevices": [\n {"name": "sda",');
  await expect(page.getByRole("alert").filter({ hasText: "truncated" })).toContainText("line 2");
  await read("total 48\ndrwxr-xr-x 2 root root");
  await expect(page.getByRole("alert").filter({ hasText: "not recognised" })).toContainText("total 48");
  await page.setInputFiles("input[type=file]", {
    name: "huge.bin",
    mimeType: "text/plain",
    buffer: Buffer.alloc(50_000_000, 120),
  });
  await expect(page.getByRole("alert").filter({ hasText: "50 MB" })).toBeVisible();
  const refused = await fetch(`${DEMO}/api/v1/imports/preview`, {
    method: "POST",
    body: "x".repeat(50_000_000),
  });
  expect([refused.status, await refused.text()]).toEqual([
    413,
    expect.stringContaining("the limit is 24 MB"),
  ]);
  await page.goto(`${DEMO}/images/profiles/new`);
  await page.getByLabel("Profile as YAML").fill("schema: 1\nprofile: Bad Name\n");
  await page.getByRole("button", { name: "Check and save this profile" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "problems" })).toContainText("line 2, column 10");
  await expect(page.getByLabel("Profile as YAML")).toHaveValue(/Bad Name/);
  expect(JSON.stringify(await facts())).toBe(before);
});

test("the collector posts back once, and its bundle waits on the machine's sheet", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-cl-bk1`);
  await page.getByRole("button", { name: /one-time code/ }).click();
  const command = await page.getByText(/^curl -s/).textContent();
  const code = /code=([0-9a-z-]+)/.exec(command ?? "")?.[1];
  const script = await (await fetch(`${DEMO}/collect.sh?code=${code}`)).text();
  expect(script).toContain(`POST_URL='${DEMO}/api/collect/${code}'`);
  const { execFileSync } = await import("node:child_process");
  expect(execFileSync("sh", { input: script, encoding: "utf8" })).toMatch(/^received/);
  await page.reload();
  await page.getByRole("button", { name: "Check" }).click();
  await expect(page.getByRole("table", { name: "Recognised" })).toContainText("lscpu");
});

test("find reaches commands, keys, segments, zones and dates, and bears a slip of the keys", async ({
  page,
}) => {
  await page.goto(HV2);
  await listening(page);
  const box = page.getByRole("dialog", { name: "Find" });
  const option = (name: string | RegExp) => box.getByRole("option", { name });
  // A slip that is closing may still be seen: it is opened until it takes the words.
  const look = (query: string) =>
    expect(async () => {
      if (!(await box.isVisible())) await page.keyboard.press("/");
      await box.getByRole("combobox").fill(query, { timeout: 1500 });
    }).toPass();
  await page.keyboard.press("/");
  await expect(option(/Create build sheet/)).toBeVisible();
  await look("suggested fix");
  await expect(option(/T: apply the suggested fix/)).toBeVisible();
  await look("works managment");
  await expect(box.getByRole("status")).toContainText("Showing results for");
  await expect(option(/segment Works management/)).toBeVisible();
  await look("10.61.10.122");
  await expect(box.getByRole("status")).toContainText("inside a DHCP range");
  await expect(option(/^address 10\.61\.10\.122/)).toBeVisible();
  await look("drill");
  await expect(option(/^date 20/).first()).toBeVisible();
  await look("night");
  await page.keyboard.press("Enter");
  await expect(page.locator("html")).toHaveAttribute("data-theme", "night-shift");
  await look("zone k");
  await expect(option(/^zone K/)).toHaveAttribute("data-selected", "true");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/#zone-K$/);
  await expect(page.locator("#zone-K").getByRole("button").first()).toHaveAttribute("aria-expanded", "true");
  await look("history of this");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/history$/);
  await look("new build");
  await expect(option(/Create build sheet/)).toHaveAttribute("data-selected", "true");
  await page.keyboard.press("Enter");
  await page.waitForURL(/builds\/b-(?!wrk)/);
  await expect(page.getByLabel("What is this build for?")).toHaveValue("");
});

test("drives of one pool that stay as they are stand in one line, and one of them is still decided on", async ({
  page,
}) => {
  await page.goto(`${DEMO}/builds/b-wrk-st1`);
  await listening(page);
  const line = page.getByText("10 drives of pool reservoir are protected: bay 0 to 9");
  await expect(async () => {
    if (!(await line.isVisible())) await page.keyboard.press("d");
    await expect(line).toBeVisible({ timeout: 1500 });
  }).toPass();
  const rows = page.locator("#zone-D tbody tr");
  await expect(rows).toHaveCount(2);
  await line.click();
  await expect(rows).toHaveCount(12);
  const free = page.getByRole("radiogroup", { name: /2T4431$/ }).getByRole("radio", { name: "free" });
  await free.check({ force: true });
  // What is no longer left alone stands in the list again.
  await expect(
    page.getByText("9 drives of pool reservoir are protected: bay 0 to 2, bay 4 to 9"),
  ).toBeVisible();
  await saved(page);
  await page.locator("body").press("u");
  await expect(line).toBeVisible();
  await saved(page);
});
