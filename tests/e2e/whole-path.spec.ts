import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import { EMPTY, saved, takesAnswer } from "./servers";

/** Runs the collector that Derrick serves, on this very machine. */
async function collect(file: string): Promise<string> {
  const script = await (await fetch(`${EMPTY}/collect.sh`)).text();
  const bundle = execFileSync("sh", { input: script, encoding: "utf8" });
  writeFileSync(file, bundle);
  return bundle;
}

interface Block {
  serial: string | null;
  size: number;
  mountpoints?: (string | null)[];
  children?: Block[];
}

function blocksOf(bundle: string): { blockdevices: Block[] } {
  const section = /^begin lsblk\n((?:\| .*\n)+)/m.exec(bundle)?.[1] ?? "";
  return JSON.parse(section.replace(/^\| /gm, "")) as { blockdevices: Block[] };
}

/** The drive that carries "/". */
function rootOf(bundle: string): Block | undefined {
  const { blockdevices } = blocksOf(bundle);
  const carries = (b: Block): boolean =>
    (b.mountpoints ?? []).includes("/") || (b.children ?? []).some(carries);
  return blockdevices.find(carries);
}

/** What it says of itself: its serial, else its size in bytes. */
const nameOfDrive = (bundle: string): string => rootOf(bundle)?.serial ?? String(rootOf(bundle)?.size);

/** The page before the key: the version of another image stops the run; what the plan says goes on. */
async function readBackWrongThenRight(page: Page, size: number): Promise<void> {
  const gate = page.locator("main");
  await expect(gate).not.toContainText("7.4");
  const version = page.getByLabel("Version on the console");
  const answer = async (shown: string): Promise<void> => {
    await version.pressSequentially(shown);
    await page.getByLabel("Size on the console").pressSequentially(`${Math.round(size / 1e8) / 10} GB`);
    await page.keyboard.press("Enter");
  };
  await answer("7.3");
  await expect(page.locator("main").getByRole("alert")).toContainText(
    "something else than planned: version (7.3)",
  );
  await page.getByRole("button", { name: "Record what was done, and resume" }).click();
  await page.getByLabel("In a few words").fill("the other image was mapped; mapped the right one");
  await page.getByRole("button", { name: "Add to log" }).click();
  await answer("7.4");
}

const zone = (page: Page, letter: string) => page.locator(`#zone-${letter}`);

async function open(page: Page, letter: string): Promise<void> {
  const head = zone(page, letter).getByRole("button").first();
  if ((await head.getAttribute("aria-expanded")) !== "true") await head.click();
}

test("a real machine goes from its facts to its record", async ({ page }, info) => {
  const before = info.outputPath("before.txt");
  const bundle = await collect(before);
  await page.goto(EMPTY);
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Which machine do you want to install?");

  await test.step("its facts become a machine", async () => {
    await page.goto(`${EMPTY}/machines/new`);
    await page.setInputFiles("input[type=file]", before);
    await expect(page.getByRole("table", { name: "Recognised" })).toContainText("lsblk");
    await page.getByLabel("Machine name, as on its front").fill("bench-1");
    await page.getByLabel("Site name").fill("Bench");
    await page.getByRole("button", { name: "Add machine" }).click();
    await expect(page.getByRole("heading", { level: 1 })).toHaveText("bench-1");
    await page.getByLabel("Management controller").selectOption("no");
    await saved(page);
    await expect(page.getByText("typed · ").first()).toBeVisible();
  });

  await test.step("an image is typed by hand, and its checksum compared", async () => {
    const digits = "5e884898da28047151d0e56f8dc6292773603d0d6aabbdd62a11ef721d1542d8";
    await page.goto(`${EMPTY}/images/new`);
    await page.getByLabel("OS profile").selectOption("lowland-server");
    await page.getByLabel("Version").fill("7.4");
    await page.getByLabel("File name").fill("lowland-server-7.4.iso");
    await page.getByLabel("Size in bytes").fill("1.9 GB");
    await page.getByLabel("legacy BIOS").check();
    await page.getByLabel("Published checksum value").fill(digits);
    await page.getByRole("button", { name: "Save image" }).click();
    await page.getByLabel("Output of the checksum tool").fill(`${digits}  lowland-server-7.4.iso`);
    await page.getByRole("button", { name: "Compare" }).click();
    await expect(page.getByText("The file matches the published checksum.")).toBeVisible();
  });

  await test.step("a sheet is drawn, with true findings", async () => {
    await page.goto(`${EMPTY}/machines`);
    await page.getByRole("link", { name: "bench-1" }).click();
    await page.getByRole("button", { name: "Create build sheet" }).click();
    await page.getByLabel("What is this build for?").fill("Install Lowland Server 7 on bench-1");
    await open(page, "B");
    await page.getByLabel("Image", { exact: true }).selectOption({ label: "Lowland Server 7.4" });
    await page.getByLabel("USB stick", { exact: true }).fill("green stick");
    await page.getByLabel("Stick size").fill("1 GB");
    await page.getByLabel("Stick size").press("Enter");
    await saved(page);
    await expect(page.locator("article", { hasText: "USB stick too small" })).toContainText("900 MB");
    await page.getByLabel("Stick size").fill("8 GB");
    await page.getByLabel("Stick size").press("Enter");
    await saved(page);
    await expect(page.locator("article", { hasText: "USB stick too small" })).toHaveCount(0);
    await open(page, "D");
    await zone(page, "D").getByText("target", { exact: true }).first().click();
    await saved(page);
    await expect(page.locator("article", { hasText: "Target holds data" })).toContainText(
      "the erasure is not confirmed",
    );
    // The sheet shows bay, model, size and contents, and not a character of what it asks for; pasting is refused.
    const consent = page.getByLabel(/^Confirm erasing/);
    const answer = nameOfDrive(bundle);
    expect(await zone(page, "D").innerText()).not.toContain(answer.slice(-6));
    await expect(consent).not.toHaveAttribute("placeholder");
    await page.context().grantPermissions(["clipboard-read", "clipboard-write"]);
    await page.evaluate((text) => navigator.clipboard.writeText(text), answer);
    await consent.click();
    await page.keyboard.press("Control+V");
    await expect(page.getByText("Pasted text is not accepted as proof.")).toBeVisible();
    await expect(consent).toHaveValue("");
    await consent.pressSequentially("000000");
    await page.getByRole("button", { name: "Confirm erase" }).click();
    await expect(page.getByText("This does not identify")).toBeVisible();
    await consent.pressSequentially(answer);
    await page.getByRole("button", { name: "Confirm erase" }).click();
    await expect(zone(page, "D").getByText("Erase confirmed")).toBeVisible();
    await open(page, "E");
    await zone(page, "E").getByText("DHCP", { exact: true }).click();
    await open(page, "F");
    await page.getByRole("button", { name: "Add root" }).click();
    await page.getByLabel("Host name").fill("bench-1");
    await saved(page);
    await expect(
      page.getByText("2 blockers").or(page.getByText("1 blocker")).or(page.getByText("ready")),
    ).toBeVisible();
  });

  await test.step("what is left is settled or set aside with a reason, and a revision is issued", async () => {
    const state = page.locator("footer");
    for (let i = 0; i < 6 && (await state.getByText(/\d+ blockers?:/).count()) > 0; i += 1) {
      const stop = page.locator("article", { hasText: "blocker" }).filter({ hasNotText: "Waived" }).first();
      await stop.getByRole("button", { name: "suggested fix and reason" }).click();
      await stop.getByRole("button", { name: "Waive with a reason" }).click();
      await page.getByLabel(/^Reason/).fill("a bench machine for this test only");
      await page.getByRole("dialog").getByRole("button", { name: "Waive" }).click();
      await expect(page.getByRole("dialog")).toHaveCount(0);
    }
    await page.getByRole("button", { name: "Issue revision" }).click();
    await page.getByRole("button", { name: "Start run" }).click();
    await expect(page.getByLabel("Current step").getByRole("heading", { level: 2 })).toHaveText(
      "Identify the machine",
    );
  });

  await test.step("the run goes to its end beside a console", async () => {
    await page.setViewportSize({ width: 640, height: 800 });
    const title = page.getByLabel("Current step").getByRole("heading", { level: 2 });
    await page.keyboard.press("d");
    await page.getByLabel("Record what the screen shows").fill("the label is worn");
    await page.getByRole("button", { name: "Continue anyway" }).click();
    await page.keyboard.press("n");
    await page.getByLabel("In a few words").fill("fan is loud");
    await page.getByRole("button", { name: "Add to log" }).click();
    await expect(page.getByRole("button", { name: /^Log \(3\)/ })).toBeVisible();
    const total = Number(
      /of (\d+)/.exec((await page.getByText(/^step \d+ of \d+$/).textContent()) ?? "")?.[1],
    );
    const answer = nameOfDrive(bundle);
    let refused = false;
    for (let at = 2; at <= total; at += 1) {
      await expect(page.getByText(`step ${at} of ${total}`)).toBeVisible();
      await takesAnswer(page);
      const words = await title.textContent();
      const guard = page.getByLabel("What the console shows");
      const asked = page.getByLabel("Backup location");
      if (words?.startsWith("Identify the drive")) {
        expect(await page.locator("main").innerText()).not.toContain(answer.slice(-6));
        if (!refused) {
          refused = true;
          await guard.fill("wrong one");
          await guard.press("Enter");
          await expect(page.getByText("The run is stopped")).toBeVisible();
          await page.reload();
          await page.getByRole("button", { name: "Record what was done, and resume" }).click();
          await page.getByLabel("In a few words").fill("read the right line this time");
          await page.getByRole("button", { name: "Add to log" }).click();
          await expect(page.getByText("The run is stopped")).toHaveCount(0);
        }
        await guard.pressSequentially(answer);
        await guard.press("Enter");
      } else if (words?.startsWith("Verify what the console")) {
        await readBackWrongThenRight(page, rootOf(bundle)?.size ?? 0);
      } else if (words?.startsWith("Disconnect ")) {
        await page.getByRole("button", { name: "Skip" }).click();
        await expect(page.getByText("Media left in place boots the installer again.").last()).toBeVisible();
        await page.getByLabel("In a few words").fill("nobody is at the cabinet any more");
        await page.getByRole("button", { name: "Add to log" }).click();
      } else if (await asked.isVisible()) {
        // Enter beside the field does not pass over what is asked for.
        await page.locator("h1").click();
        await page.keyboard.press("Enter");
        await expect(page.getByText(`step ${at} of ${total}`)).toBeVisible();
        await asked.fill("file server, folder bench-1");
        await asked.press("Enter");
      } else await page.keyboard.press("Enter");
    }
    await expect(page.getByText("all steps done")).toBeVisible();
  });

  await test.step("a wrongly built machine is not handed over", async () => {
    const after = info.outputPath("after.txt");
    const second = await collect(after);
    const told = (version: string, kept: (line: string) => boolean = () => true): void =>
      writeFileSync(
        after,
        second
          .replace(/^\| ID=.*$/m, "| ID=lowland")
          .replace(/^\| PRETTY_NAME=.*$/m, `| PRETTY_NAME="Lowland Server ${version}"`)
          .replace(/^\| VERSION_ID=.*$/m, `| VERSION_ID="${version}"`)
          .split("\n")
          .filter(kept)
          .join("\n"),
      );
    const acceptance = page.getByLabel("Acceptance");
    const line = (what: string) => acceptance.getByRole("row", { name: what }).first();
    const put = async (): Promise<void> => {
      await page.setInputFiles("input[type=file]", after);
      const button = page.getByRole("button", { name: "Record and stop the run" });
      await button.click();
      await expect(button).toHaveCount(0);
    };
    const over = page.getByRole("button", { name: "Hand over" });
    told("7.3");
    await put();
    await page.getByLabel("Handed over to").fill("Bench crew");
    await expect(line("System and version")).toContainText("does not match");
    await expect(line("System drive")).toContainText("as planned");
    await expect(line("Host name")).toContainText("does not match");
    await expect(line("Media in the machine")).toContainText("does not match");
    await expect(over).toBeDisabled();
    await expect(page.getByText(/unresolved: .*System and version.*Media in the/)).toBeVisible();
    // A listing on which the system stands on another drive.
    const { blockdevices } = blocksOf(second);
    const bare = { name: "vdz", type: "disk", size: 4e11, serial: "WRONG-0001", mountpoints: ["/"] };
    const wrong = [...blockdevices.map((b) => ({ ...b, mountpoints: [null], children: [] })), bare];
    writeFileSync(after, JSON.stringify({ blockdevices: wrong }));
    await put();
    await expect(line("System drive")).toContainText("does not match");
    await expect(line("System drive")).toContainText("G-0001");
    await expect(over).toBeDisabled();
    // The right listing answers its lines; the others stay open.
    told("7.4");
    await put();
    await expect(line("System and version")).toContainText("as planned");
    await expect(over).toBeDisabled();
    const open = acceptance.getByRole("button", { name: /^Resolve: / });
    for (let left = await open.count(); left > 0; left -= 1) {
      const what = (await open.first().getAttribute("aria-label"))?.replace("Resolve: ", "") ?? "";
      await open.first().click();
      await page.keyboard.type(`${what} looked at by hand`);
      await page.keyboard.press("Enter");
      await expect(open).toHaveCount(left - 1);
    }
    await expect(over).toBeEnabled();
    await over.click();
    await page.getByRole("link", { name: "Open record" }).click();
  });

  await test.step("its record reads and downloads", async () => {
    await page.setViewportSize({ width: 1280, height: 800 });
    await expect(page.getByText("handed over to Bench crew", { exact: true })).toBeVisible();
    await expect(page.getByText("the label is worn")).toHaveCount(2);
    await expect(page.getByText("file server, folder bench-1").first()).toBeVisible();
    await expect(page.getByText(/^Deviation accepted: Media in the machine looked at by hand/)).toBeVisible();
    for (const [name, ending] of [
      ["Markdown", "md"],
      ["JSON", "json"],
    ] as const) {
      const [download] = await Promise.all([
        page.waitForEvent("download"),
        page.getByRole("link", { name, exact: true }).click(),
      ]);
      expect(download.suggestedFilename()).toBe(`B-0001-rev-A.${ending}`);
      const text = readFileSync(await download.path(), "utf8");
      expect(text).toContain("Bench crew");
      if (ending === "json")
        expect(JSON.parse(text)).toMatchObject({ format: "derrick-record", state: "handed over" });
    }
  });
});
