import { readFileSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import { captures } from "../support/formats";
import { DEMO, loadDemo, listening } from "./servers";

test.beforeAll(loadDemo);

const margin = (page: Page) => page.getByRole("complementary", { name: "Findings panel" });
const focused = (page: Page) => page.locator("[data-tile]:focus");

test("drives and ports are chosen from the keyboard", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-wrk-st1`);
  await expect(page.getByRole("group", { name: "Front" }).getByRole("button")).toHaveCount(12);
  await page.keyboard.press("f");
  await expect(focused(page)).toHaveAccessibleName(/^bay 0:/);
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowDown");
  await expect(focused(page)).toHaveAccessibleName(/^bay 5: Caldbeck 12000, 12\.0 TB, good/);
  await page.keyboard.press("Enter");
  await expect(margin(page)).toContainText("CDB12T4445");
  await page.keyboard.press("End");
  await expect(focused(page)).toHaveAccessibleName("bay 11, empty");
  await page.keyboard.press("r");
  await expect(focused(page)).toHaveAccessibleName(/^power supply PSU 1/);
  for (let i = 0; i < 3; i += 1) await page.keyboard.press("ArrowRight");
  await expect(focused(page)).toHaveAccessibleName(/^port eno2/);
  await page.keyboard.press("Enter");
  await expect(margin(page)).toContainText("02:61:0a:00:16:02");
  const port = margin(page).getByRole("region", { name: "port eno2" });
  await expect(port).toContainText("10 Gbit/s");
  await expect(port.locator("dl")).toContainText(/Linux name\s*eno2/);
  await expect(port).toContainText("fe80::61:aff:fe00:1602");
  await page.keyboard.press("Escape");
  await expect(margin(page)).toContainText("Select a bay");
});

test("a drive without a bay is put in one by hand, and taken back", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-wrk-tm1`);
  const tray = page.getByRole("group", { name: /bay unknown/i });
  await tray.getByRole("button").click();
  await margin(page).getByLabel("Assign to bay").fill("1");
  await margin(page).getByRole("button", { name: "Assign", exact: true }).click();
  const front = page.getByRole("group", { name: "Front" });
  await expect(front.getByRole("button", { name: /^bay 1: Sallow 960/ })).toBeVisible();
  await expect(tray).toHaveCount(0);
  await page.reload();
  await front.getByRole("button", { name: /^bay 1: Sallow 960/ }).click();
  await margin(page).getByRole("button", { name: "Undo" }).click();
  await expect(tray.getByRole("button")).toBeVisible();
});

test("the outputs of a real server become one machine, every drive once", async ({ page }) => {
  await page.goto(`${DEMO}/machines/new`);
  const files = captures("server-uefi-2socket").map(({ name, text }) => ({
    name,
    mimeType: "text/plain",
    buffer: Buffer.from(text),
  }));
  await page.setInputFiles("input[type=file]", files);
  const understood = page.getByRole("table", { name: "Recognised" });
  for (const tool of [
    "lsblk",
    "smartctl",
    "nvme list",
    "lshw",
    "mdstat",
    "mdadm",
    "sensors",
    "lspci -vmm",
    "blkid",
  ])
    await expect(understood).toContainText(tool);
  await page.getByLabel("Machine name, as on its front").fill("sample-big");
  await page.getByRole("combobox", { name: /^Site/ }).selectOption({ label: "Cold Lane" });
  await page.getByRole("button", { name: "Add machine" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("sample-big");
  await expect(page.locator('[data-face="tray"] [data-tile]')).toHaveCount(11);
  await expect(page.getByRole("table", { name: "Arrays and pools" })).toContainText("array md1");
  await page
    .getByRole("button", { name: /SSDATA_1920/ })
    .first()
    .click();
  await expect(margin(page)).toContainText("1 h of operation, no errors");
  await page.goto(`${DEMO}/machines/drives`);
  await expect(page.getByRole("table", { name: "Drives" })).toContainText("SAMPLESAS0001");
});

test("the register tells where a drive sat, and an erasure is written down with the tail of its serial", async ({
  page,
}) => {
  await page.goto(`${DEMO}/machines/drives`);
  await page.getByText("needs attention", { exact: true }).click();
  await expect(page.getByRole("row").nth(1)).toContainText("failing");
  await page.getByText("all", { exact: true }).click();
  await page.getByLabel("Filter", { exact: true }).fill("cdb2t77120");
  await page.getByRole("link", { name: "Caldbeck 2000" }).click();
  const sat = page.getByRole("region", { name: "Location history" });
  await expect(sat.getByRole("listitem")).toHaveCount(2);
  await expect(sat).toContainText("wrk-st1");
  await page.getByRole("button", { name: "Record an erasure" }).click();
  const slip = page.getByRole("dialog");
  await slip.getByLabel(/^Last characters of the serial/).fill("000000");
  await expect(slip.getByRole("button", { name: "Save" })).toBeDisabled();
  await slip.getByLabel(/^Last characters of the serial/).fill("t77120");
  await slip.getByLabel("Method").selectOption("secure erase of the drive");
  await slip.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("region", { name: "Erasure records" }).getByRole("listitem")).toHaveCount(2);
});

test("a list of machines goes out and comes in; a bad row is named and spoils no other", async ({ page }) => {
  await page.goto(`${DEMO}/machines`);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Export CSV" }).click(),
  ]);
  const text = readFileSync(await download.path(), "utf8");
  expect(text).toMatch(/^\uFEFFname,site,maker/);
  expect(text).toContain("wrk-st1,Works,Ostler,R212,OST7K2S01");
  await page.goto(`${DEMO}/machines/list`);
  const rows = `${text}spare-1,Lockup,Ostler,R114,OST-L1\r\n,Lockup,,,\r\nspare-2,Lockup,Ostler,R114,OST-L2`;
  await page.setInputFiles("input[type=file]", {
    name: "machines.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(rows),
  });
  await expect(page.getByRole("alert").filter({ hasText: "no name" })).toContainText(
    `line ${text.trim().split("\r\n").length + 2}`,
  );
  await expect(page.getByText("New sites: Lockup")).toBeVisible();
  await expect(page.getByRole("row", { name: /spare-1/ })).toContainText("new machine");
  // A last line without an end may be cut off: it is taken by who says that it is whole.
  await expect(page.getByRole("alert").filter({ hasText: "has no end" })).toBeVisible();
  await expect(page.getByRole("row", { name: /spare-2/ })).toBeHidden();
  await page.getByRole("button", { name: "Yes: import it too" }).click();
  await expect(page.getByRole("row", { name: /spare-2/ })).toContainText("new machine");
  await page.getByRole("button", { name: /^Import \d+ rows?$/ }).click();
  await expect(page).toHaveURL(`${DEMO}/machines`);
  await page.getByLabel("Filter", { exact: true }).fill("lockup r114");
  await expect(page.getByRole("status").filter({ hasText: "machines" })).toHaveText(/^2 of \d+ machines$/);
  await page.getByText(/^Columns \(/).click();
  await page.getByRole("checkbox", { name: "Serial" }).check();
  await expect(page.getByRole("cell", { name: "OST-L1" })).toBeVisible();
});

test("a verdict on a part shows up on the next build that meets it", async ({ page }) => {
  await page.goto(`${DEMO}/machines/compatibility`);
  await page.getByRole("button", { name: "Add verdict" }).click();
  const slip = page.getByRole("dialog");
  await slip.getByLabel("ID, vendor:device").fill("12");
  await slip.getByLabel("OS profile").selectOption({ label: "Lowland Server" });
  await slip.getByLabel("Verdict").selectOption("does not work");
  await slip.getByRole("button", { name: "Save" }).click();
  await expect(slip.getByRole("alert")).toContainText("four hexadecimal digits");
  await slip.getByLabel("ID, vendor:device").fill("f0a1:125c");
  await slip.getByLabel("Name").fill("2.5G port of the Pippin");
  await slip.getByRole("button", { name: "Save" }).click();
  const row = page.getByRole("listitem").filter({ hasText: "2.5G port of the Pippin" });
  await row.getByRole("button", { name: "Record test" }).click();
  await page.getByRole("dialog").getByLabel("What was changed or tested").fill("driver from the disc");
  await page.getByRole("dialog").getByLabel("Actual result").fill("link after a restart only");
  await page.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  await expect(row).toContainText("link after a restart only");
  await page.goto(`${DEMO}/builds/b-tho-a`);
  await expect(page.locator("article", { hasText: "2.5G port of the Pippin" })).toContainText("blocker");
});

test("bench readings give a verdict that opens to its working, and a wrong unit is refused", async ({
  page,
}) => {
  await page.goto(`${DEMO}/machines/m-cl-ws1/bench?other=m-tho-b&price=420&pass=1`);
  const verdict = page.getByRole("region", { name: "Verdict" });
  await expect(verdict).toContainText("Not worth it for this job");
  await verdict
    .getByText(/would pay off/)
    .last()
    .click();
  await expect(verdict).toContainText("price ÷ (cost per year");
  await expect(page.getByRole("figure").first()).toBeVisible();
  await page.getByLabel("Value, W").fill("128000");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Check the unit" })).toContainText("0 to 20000 W");
  await page.getByLabel("Value, W").fill("126");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("region", { name: "All measurements" })).toContainText("126 W");
});

test("a picture is kept with its caption; a page dressed up as one is refused", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-cl-ws1`);
  await page.getByLabel("Caption of the next picture").fill("the dead sockets");
  await page.setInputFiles('input[aria-label="Picture"]', "docs/screenshots/today.png");
  await expect(page.getByRole("img", { name: "the dead sockets" })).toBeVisible();
  await page.setInputFiles('input[aria-label="Picture"]', {
    name: "x.png",
    mimeType: "image/png",
    buffer: Buffer.from("<script>alert(1)</script>"),
  });
  await expect(
    page.getByRole("alert").filter({ hasText: "not a picture that this browser can read" }),
  ).toBeVisible();
});

test("what was typed about a machine is kept, and its findings follow", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-wrk-tm1`);
  await expect(page.locator("article", { hasText: "Delivery does not match" })).toContainText("112 GiB");
  await page.getByText("Defects", { exact: true }).click();
  await page.getByLabel("Known defect").fill("lid does not lock");
  await page.getByRole("button", { name: "Add defect" }).click();
  await expect(page.getByRole("note")).toContainText("lid does not lock");
  await page.getByRole("button", { name: "Repaired today" }).click();
  await expect(page.getByRole("note")).toHaveCount(0);
  await page.getByRole("button", { name: "Duplicate" }).click();
  await page.getByRole("dialog").getByLabel("Machine name, as on its front").fill("wrk-tm2");
  await page.getByRole("dialog").getByRole("button", { name: "Duplicate" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("wrk-tm2");
  await expect(page.getByText("No hardware data collected yet.")).toBeVisible();
});

test("what is typed in a slip, and in the forms beside a list, lives through a reload until it is kept", async ({
  page,
}) => {
  const slips = [
    ["/machines/drives", "Add a USB stick, card or spare drive", "Storage location", "in the blue box"],
    ["/machines/compatibility", "Add verdict", "Condition", "only in the upper slot"],
    ["/machines/compatibility", "Change verdict", "Condition", "with the older firmware"],
    ["/machines/compatibility", "Record test", "Actual result", "it went dark after a minute"],
  ] as const;
  for (const [path, opens, label, words] of slips) {
    for (const round of ["typed", "found again"]) {
      await page.goto(`${DEMO}${path}`);
      await listening(page);
      await page.getByRole("button", { name: opens }).first().click();
      const field = page.getByRole("dialog").getByLabel(label);
      if (round === "typed") await field.fill(words);
      else await expect(field, opens).toHaveValue(words);
    }
  }
  await page.getByRole("dialog").getByLabel("What was changed or tested").fill("another riser");
  await page.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await page.getByRole("button", { name: "Record test" }).first().click();
  await expect(page.getByRole("dialog").getByLabel("Actual result")).toHaveValue("");
});

test("what another hand has changed meanwhile stands beside what was typed, and its writer chooses", async ({
  page,
  context,
}) => {
  const other = await context.newPage();
  for (const tab of [page, other]) {
    await tab.goto(`${DEMO}/machines/drives/PBL3-7742`);
    await listening(tab);
  }
  const name = (tab: Page) => tab.getByLabel("Label on the device");
  const keep = (tab: Page) => tab.getByRole("button", { name: "Save", exact: true });
  await name(page).fill("blue stick, mine");
  await name(other).fill("blue stick, theirs");
  await keep(other).click();
  await expect(keep(other)).toHaveCount(0);
  await keep(page).click();
  const both = page.getByRole("alert").filter({ hasText: "Someone else changed" });
  await expect(both).toContainText("blue stick, mine");
  await expect(name(page)).toHaveValue("blue stick, theirs");
  // Not put over the other's, and not lost, by a reload either.
  await page.reload();
  await expect(both).toContainText("blue stick, mine");
  await both.getByRole("button", { name: "Use my value" }).focus();
  await page.keyboard.press("Enter");
  await expect(name(page)).toHaveValue("blue stick, mine");
  await keep(page).click();
  await expect(keep(page)).toHaveCount(0);

  for (const tab of [page, other]) {
    await tab.goto(`${DEMO}/machines/compatibility`);
    await listening(tab);
    await tab.getByRole("button", { name: "Change verdict" }).first().click();
  }
  const slip = page.getByRole("dialog");
  await slip.getByLabel("Condition").fill("mine");
  await other.getByRole("dialog").getByLabel("Condition").fill("theirs");
  await other.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  await expect(other.getByRole("dialog")).toHaveCount(0);
  await slip.getByRole("button", { name: "Save" }).click();
  await expect(slip.getByRole("alert").filter({ hasText: "Someone else changed" })).toContainText("mine");
  await slip.getByRole("button", { name: "Keep the saved value" }).click();
  await expect(slip.getByLabel("Condition")).toHaveValue("theirs");
});
