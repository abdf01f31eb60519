import { createClient } from "@libsql/client";
import { expect, test } from "@playwright/test";
import { OwnServer } from "../support/own-server";
import { DEMO, loadDemo } from "./servers";

// What is kept: pictures on their way in, the whole installation out and in, and what is damaged, by hand.

const server = new OwnServer("keeping", 4387);
const { base: BASE, folder, url } = server;

test.beforeAll(async () => {
  await loadDemo();
  await server.start();
});
test.afterAll(() => server.end());

/** A photograph as a telephone makes it: 4000 by 2000 pixels on their side, with a place in its notes. */
async function photograph(draw: (w: number, h: number) => Promise<number[]>): Promise<Buffer> {
  const jpeg = Buffer.from(await draw(4000, 2000));
  const tiff = Buffer.from("49492a0008000000" + "0100" + "120103000100000006000000" + "00000000", "hex");
  const notes = Buffer.concat([Buffer.from("Exif\0\0"), tiff, Buffer.from("GPS 55.0 N 2.1 W")]);
  const length = Buffer.alloc(2);
  length.writeUInt16BE(notes.length + 2);
  return Buffer.concat([jpeg.subarray(0, 2), Buffer.from([0xff, 0xe1]), length, notes, jpeg.subarray(2)]);
}

test("a photograph is kept small, the right way up, and without what the camera noted", async ({ page }) => {
  await page.goto(`${DEMO}/machines/m-wrk-hv1`);
  const buffer = await photograph((w, h) =>
    page.evaluate(
      async ([width, height]) => {
        const canvas = Object.assign(document.createElement("canvas"), { width, height });
        const pen = canvas.getContext("2d")!;
        pen.fillStyle = "red";
        pen.fillRect(0, 0, width! / 2, height!);
        pen.fillStyle = "blue";
        pen.fillRect(width! / 2, 0, width! / 2, height!);
        const blob = await new Promise<Blob>((done) => canvas.toBlob((b) => done(b!), "image/jpeg"));
        return [...new Uint8Array(await blob.arrayBuffer())];
      },
      [w, h],
    ),
  );
  expect(buffer.includes("GPS")).toBe(true);
  await page.getByLabel("Caption of the next picture").fill("rear of the chassis");
  await page
    .locator('input[type="file"][aria-label="Picture"]')
    .setInputFiles({ name: "p.jpg", mimeType: "image/jpeg", buffer });
  const shown = page.getByRole("img", { name: "rear of the chassis" });
  await expect(shown).toBeVisible();
  const kept = await page.evaluate(
    async (src) => {
      const bytes = new Uint8Array(await (await fetch(src)).arrayBuffer());
      const read = await createImageBitmap(new Blob([bytes]));
      const canvas = Object.assign(document.createElement("canvas"), {
        width: read.width,
        height: read.height,
      });
      const pen = canvas.getContext("2d")!;
      pen.drawImage(read, 0, 0);
      const colour = (y: number) =>
        pen.getImageData(read.width / 2, y, 1, 1).data[0]! > 128 ? "red" : "blue";
      return {
        size: [read.width, read.height],
        colours: [colour(50), colour(read.height - 50)],
        text: new TextDecoder("latin1").decode(bytes),
      };
    },
    await shown.getAttribute("src").then((s) => s!),
  );
  expect(kept.size).toEqual([1000, 2000]);
  // Orientation 6: what was at the left of the sensor is at the top of the picture.
  expect(kept.colours).toEqual(["red", "blue"]);
  expect(kept.text).not.toContain("GPS");
  expect(kept.text).not.toContain("Exif");
  await page
    .locator('input[type="file"][aria-label="Picture"]')
    .setInputFiles({ name: "no.jpg", mimeType: "image/jpeg", buffer: Buffer.from("no picture") });
  await expect(page.getByText("no.jpg is not a picture that this browser can read")).toBeVisible();
});

test("the whole installation is saved from one, and read into an empty one", async ({ page }) => {
  await page.goto(`${DEMO}/sites`);
  await expect(page.getByText("An archive can be imported into an empty installation only")).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Download archive" }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/^derrick-\d{4}-\d\d-\d\d\.tar\.gz$/);
  const path = `${folder}/${download.suggestedFilename()}`;
  await download.saveAs(path);
  await page.goto(`${BASE}/sites`);
  await expect(page.getByRole("button", { name: "Import an archive" })).toBeVisible();
  await page
    .getByLabel("Archive")
    .setInputFiles({ name: "other.tar.gz", mimeType: "application/gzip", buffer: Buffer.from("other") });
  await expect(
    page.getByText("This is not an archive of Derrick, or it is truncated or damaged"),
  ).toBeVisible();
  await page.getByLabel("Archive").setInputFiles(path);
  await expect(page.getByText(/Imported: \d+ machines, \d+ build sheets, \d+ pictures/)).toBeVisible({
    timeout: 30_000,
  });
  await expect(
    page.getByRole("link", { name: "Works, Marrowby" }).or(page.locator('a[href="/sites/s-works"]')),
  ).toBeVisible();
});

test("a damaged document calls from Today, is shown as it stands, and is repaired there", async ({
  page,
}) => {
  const client = createClient({ url, timeout: 5000 });
  const { rows } = await client.execute("SELECT document FROM sites WHERE id = 's-works'");
  const sound = String(rows[0]!.document);
  const spoilt = sound.replace(/"timeZone":"[^"]*"/, '"timeZone":"Europe/Berln"');
  expect(spoilt).not.toBe(sound);
  await client.execute({ sql: "UPDATE sites SET document = ? WHERE id = 's-works'", args: [spoilt] });
  client.close();
  await page.goto(`${BASE}/sites/s-works`);
  await expect(page).toHaveURL(/\/damaged#site-s-works/);
  await expect(page.getByText("timeZone: is not a time zone of the IANA list")).toBeVisible();
  await page.goto(`${BASE}/`);
  await page.getByRole("link", { name: "One document is damaged" }).click();
  const text = page.getByLabel("Stored document; repair it here");
  await text.fill("{");
  await page.getByRole("button", { name: "Save repaired document" }).click();
  await expect(page.getByText("the JSON ends in the middle")).toBeVisible();
  await text.fill(sound);
  await page.getByRole("button", { name: "Save repaired document" }).click();
  await expect(page.getByText("All documents of this installation are valid.")).toBeVisible();
  await page.goto(`${BASE}/sites/s-works`);
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
});
