import { expect, test, type Page } from "@playwright/test";
import { scriptedMachine } from "../support/scripted-drives";
import { openQuiet } from "./margin";
import { DEMO, listening, loadDemo, saved } from "./servers";

test.beforeAll(() => loadDemo());

/** Twelve bays, of which the eighth has a larger drive and the last one a failing one, and a small drive to start from. */
const BYTES = 12_000_138_625_024;
const DRIVES = [
  { serial: "SPE240B0001", bytes: 240_057_409_536 },
  ...Array.from({ length: 12 }, (_, i) => ({
    serial: `SPE12T44${String(i).padStart(2, "0")}`,
    bytes: i === 7 ? 14_000_519_643_136 : BYTES,
  })),
];

const lsblk = JSON.stringify({
  blockdevices: DRIVES.map(({ serial, bytes }, i) => ({
    ...{
      name: `sd${"abcdefghijklm"[i]}`,
      type: "disk",
      size: bytes,
      serial,
      fstype: null,
      mountpoints: [null],
    },
    ...{ model: i === 0 ? "Alder 240" : "Caldbeck 12000", rota: i > 0, tran: "sas", rm: false },
    ...{ "log-sec": 512, "phy-sec": 4096, wwn: null, pttype: null },
  })),
});
const smartctl = (i: number, pending: number): string =>
  JSON.stringify({
    smartctl: { exit_status: 0 },
    device: { name: `/dev/sd${"abcdefghijklm"[i]}`, protocol: "ATA" },
    ...{ model_name: "Caldbeck 12000", serial_number: DRIVES[i]!.serial, smart_status: { passed: true } },
    user_capacity: { bytes: DRIVES[i]!.bytes },
    ata_smart_attributes: {
      table: [{ id: 197, name: "Current_Pending_Sector", raw: { value: pending, string: String(pending) } }],
    },
  });

async function drawn(page: Page): Promise<void> {
  await page.goto(`${DEMO}/machines/new`);
  const file = (name: string, text: string) => ({ name, mimeType: "text/plain", buffer: Buffer.from(text) });
  await page.setInputFiles("input[type=file]", [
    file("lsblk.json", lsblk),
    ...DRIVES.slice(1).map((_, i) => file(`smart${i}.json`, smartctl(i + 1, i === 11 ? 8 : 0))),
  ]);
  await expect(page.getByRole("table", { name: "Recognised" })).toContainText("lsblk");
  await page.getByLabel("Machine name, as on its front").fill("spare-st2");
  await page.getByRole("combobox", { name: /^Site/ }).selectOption({ label: "Works" });
  await page.getByRole("button", { name: "Add machine" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("spare-st2");
  await page.getByRole("button", { name: "Create build sheet" }).click();
  await page.waitForURL(/builds/);
  await listening(page);
}

const fate = (page: Page, drive: number) =>
  page.locator('[data-field="storage.target"]').getByRole("radiogroup").nth(drive);
const finding = (page: Page, title: string) => page.locator("article", { hasText: title });

test("the storage server is planned by keys: four copies are called out, drives fail, and the script runs on files", async ({
  page,
}) => {
  await drawn(page);
  const head = page.locator("#zone-D").getByRole("button").first();
  if ((await head.getAttribute("aria-expanded")) !== "true") await page.keyboard.press("d");
  await expect(head).toHaveAttribute("aria-expanded", "true");
  await fate(page, 0).getByRole("radio", { name: "target" }).focus();
  await page.keyboard.press("Space");
  await saved(page);

  await test.step("four drives in one mirror: what is left of them is said, and stops", async () => {
    for (const drive of [1, 2, 3, 4]) {
      await fate(page, drive).getByRole("radio", { name: "protected" }).focus();
      await page.keyboard.press("ArrowRight");
    }
    await page.getByRole("button", { name: /^Add a pool/ }).focus();
    await page.keyboard.press("Enter");
    await page.getByText("All layouts of these drives").focus();
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: "mirror of 4", exact: true }).focus();
    await page.keyboard.press("Enter");
    await expect(page.locator("[data-consequence]")).toHaveText(
      /^Pool tank, mirror of 4\. 4 copies of one drive\. Usable: 11\.9 TB \(10\.8 TiB\), 25 % of raw\./,
    );
    await expect(finding(page, "Most of the capacity is used for copies")).toContainText("blocker");
    await page.getByRole("button", { name: /^Remove from the plan/ }).focus();
    await page.keyboard.press("Enter");
    await expect(finding(page, "Most of the capacity is used for copies")).toHaveCount(0);
    await saved(page);
  });

  await test.step("all twelve: the failing one is a stop, the larger one is told with what it costs", async () => {
    await page.getByRole("button", { name: "Add one of all 12 drives except the target" }).focus();
    await page.keyboard.press("Enter");
    await expect(finding(page, "Failing drive in an array or pool")).toContainText("8 pending sectors");
    await openQuiet(page, "D");
    await page.getByRole("button", { name: "Drive of a different size" }).focus();
    await page.keyboard.press("Enter");
    await expect(finding(page, "Drive of a different size")).toContainText("2.00 TB (1.82 TiB) stays unused");
    await fate(page, 12).getByRole("radio", { name: "tank" }).focus();
    await page.keyboard.press("ArrowLeft");
    await page.keyboard.press("ArrowLeft");
    await expect(fate(page, 12).getByRole("radio", { name: "protected" })).toBeChecked();
    await expect(finding(page, "Failing drive in an array or pool")).toHaveCount(0);
    await expect(page.locator("[data-consequence]")).toHaveText(
      /^Pool tank, raidz2 of 11\..*Tolerates any 2 drive failures\.$/,
    );
  });

  await test.step("drives fail by keys, in the bays of this machine", async () => {
    const drive = (name: string) => page.getByRole("button", { name: new RegExp(`^Drive ${name}(,|$)`) });
    for (const name of ["sdb", "sdc"]) {
      await drive(name).focus();
      await page.keyboard.press("Space");
    }
    await expect(page.locator("[data-standing]")).toContainText(
      "Data is lost if one of these also fails: sdd, sde",
    );
    await drive("sdd").focus();
    await page.keyboard.press("Enter");
    await expect(page.locator("[data-standing]")).toHaveText("Failed: data is lost.");
  });

  await test.step("a special device that is alone takes the pool with it, and stops", async () => {
    await page.getByLabel("Drive to add as a device").focus();
    await page.getByLabel("Drive to add as a device").selectOption({ index: 1 });
    await expect(page.locator("[data-consequence]")).toContainText("Its special device has no mirror");
    await expect(finding(page, "Special devices less fault-tolerant than the data")).toContainText("blocker");
    const is = page.getByRole("combobox", { name: /^Role of / });
    await is.focus();
    await page.keyboard.press("n");
    await expect(is).toHaveCount(0);
    await expect(fate(page, 12).getByRole("radio", { name: "free" })).toBeChecked();
  });

  await test.step("a volume takes what the pool reserves for it, and too many are told", async () => {
    await page.getByRole("button", { name: "Add a volume or file system" }).focus();
    await page.keyboard.press("Enter");
    await page.getByLabel("Name of volume 1").fill("guests");
    await page.getByLabel("Size of volume 1", { exact: true }).fill("200 TB");
    await page.keyboard.press("Tab");
    await expect(finding(page, "Volumes not possible")).toContainText("use more than is available");
    await page.getByLabel("Size of volume 1", { exact: true }).fill("20 TB");
    await page.keyboard.press("Tab");
    await expect(finding(page, "Volumes not possible")).toHaveCount(0);
    await expect(page.getByText(/^Used: 2\d\.\d TB .* of 10\d TB/)).toBeVisible();
  });

  await test.step("its script makes the pool of exactly these drives, and refuses another machine", async () => {
    await saved(page);
    await page.getByRole("link", { name: "Commands that create it" }).focus();
    await page.keyboard.press("Enter");
    const pre = page.getByLabel("Script make-tank.sh");
    const script = await pre.innerText();
    const own = scriptedMachine(DRIVES);
    const other = scriptedMachine(DRIVES.map((d) => ({ ...d, serial: d.serial.replace("SPE", "XYZ") })));
    try {
      expect(own.run(`${script}\n`)).toMatchObject({ code: 0, said: "" });
      expect(own.made("pool")).toEqual([
        ...["create", "-o", "ashift=12", "tank", "raidz2"],
        ...DRIVES.slice(1, 12).map((d) => `ata-Caldbeck_${d.serial}`),
      ]);
      expect(own.made("volumes")?.[0]).toBe(
        `zfs create -b 16384 -V ${Math.ceil(20e12 / 16384) * 16384} tank/guests`,
      );
      expect(other.run(`${script}\n`)).toMatchObject({ code: 1, said: expect.stringMatching(/^STOP/) });
      expect(other.made("pool")).toBeNull();
    } finally {
      own.end();
      other.end();
    }
  });
});

test("what if a drive of a pool fails now: the one that is not sound counts as lost, and the third takes the data", async ({
  page,
}) => {
  await page.goto(`${DEMO}/machines/m-wrk-st1`);
  await listening(page);
  await page.getByText("Simulate a drive failure or expansion of pool reservoir").focus();
  await page.keyboard.press("Enter");
  const drive = (n: number) => page.getByRole("button", { name: new RegExp(`^Drive ${n}(,|$)`) });
  await expect(drive(8)).toHaveAccessibleName("Drive 8, failing");
  const stands = page.locator("[data-standing]").last();
  await expect(stands).toHaveText("Degraded: all data is readable.");
  await drive(2).focus();
  await page.keyboard.press("Space");
  await expect(stands).toContainText("Data is lost if one of these also fails: 0, 1, 3");
  await drive(3).focus();
  await page.keyboard.press("Space");
  await expect(stands).toHaveText("Failed: data is lost.");
  const grows = page.getByRole("table", { name: "Expansion of pool reservoir" });
  await expect(grows.getByRole("row").filter({ hasText: /^Replace every drive/ })).toContainText(
    "up to 31 d",
  );
});

test("what the installer makes of the target is drawn to scale, and follows the swap that is chosen by keys", async ({
  page,
}) => {
  await page.goto(`${DEMO}/builds/b-tho-a`);
  await listening(page);
  const head = page.locator("#zone-D").getByRole("button").first();
  if ((await head.getAttribute("aria-expanded")) !== "true") await page.keyboard.press("d");
  await expect(head).toHaveAttribute("aria-expanded", "true");
  const parts = page.getByRole("region", { name: "Partitions of the target" });
  const strip = parts.getByRole("img");
  await expect(strip).toHaveAccessibleName(/root, 75\.2 GB .*; swap, 8\.59 GB .*; home, 427 GB/);
  const swap = parts.getByRole("combobox", { name: "Swap" });
  await swap.focus();
  await page.keyboard.press("n");
  await expect(swap).toHaveValue("none");
  await expect(strip).not.toHaveAccessibleName(/swap/);
  await saved(page);
  await swap.selectOption("as the installer does");
  await expect(strip).toHaveAccessibleName(/swap, 8\.59 GB/);
  await saved(page);
  await parts.getByText("3 partitions").focus();
  await page.keyboard.press("Enter");
  await expect(parts.getByRole("row", { name: /^root xfs/ })).toContainText("69.9 GiB");
  await expect(parts.getByRole("row", { name: /^half of memory/ })).toContainText("8.00 GiB");
});
