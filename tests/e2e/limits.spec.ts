import { mkdirSync, readFileSync, truncateSync, writeFileSync } from "node:fs";
import { connect } from "node:net";
import { resolve } from "node:path";
import { expect, test } from "@playwright/test";
import { loadDemoInto } from "../support/kill-storm";
import { OwnServer } from "../support/own-server";

// Bodies that are too large, too deep, too slow or too many: each is refused in words, and others are answered meanwhile.

const server = new OwnServer("limits", 4388, { DERRICK_IMAGE_DIR: resolve(".derrick/e2e/limits/images") });
const { base: BASE, folder, port: PORT } = server;
const FILES = 60;
const MB = 1_000_000;

test.beforeAll(async () => {
  mkdirSync(`${folder}/images`, { recursive: true });
  for (let i = 0; i < FILES; i += 1) {
    const file = `${folder}/images/file-${String(i).padStart(2, "0")}.iso`;
    writeFileSync(file, "");
    truncateSync(file, 40 * MB);
  }
  await server.start();
  await loadDemoInto(BASE);
});
test.afterAll(() => server.end());

/**
 * Longest that one answer about health may take beside other work, in milliseconds. It tells a server that stands still
 * (seconds, once nine of them) from one that is merely busy; how fast it answers is measured by `npm run bench`.
 */
const STANDS_STILL = 4000;

/** Asks for health without pause while `work` goes on, which no answer may keep waiting; gives the answer of `work`. */
async function beside<T>(work: Promise<T>, least = 0): Promise<T> {
  const took: number[] = [];
  let over = false;
  const done = Promise.all([work, new Promise((r) => setTimeout(r, least))]).finally(() => (over = true));
  while (!over) {
    const begun = performance.now();
    expect((await fetch(`${BASE}/api/health`)).status).toBe(200);
    took.push(performance.now() - begun);
    await new Promise((r) => setTimeout(r, 5));
  }
  const [answer] = await done;
  expect(Math.max(...took)).toBeLessThan(STANDS_STILL);
  return answer;
}

const post = (path: string, body: BodyInit, type = "application/json", headers: HeadersInit = {}) =>
  fetch(BASE + path, {
    method: "POST",
    headers: { "Content-Type": type, ...headers },
    body,
    duplex: "half",
  } as RequestInit).then(
    async (r) => ({ status: r.status, words: await r.text() }),
    (e: Error) => ({ status: 0, words: `${e.message}: ${String(e.cause)}` }),
  );

/** A body that does not say how long it is, in pieces of one megabyte. */
const endless = (most: number): ReadableStream<Uint8Array> => {
  let sent = 0;
  return new ReadableStream({
    pull(controller) {
      if (sent >= most) return controller.close();
      sent += MB;
      controller.enqueue(new Uint8Array(MB).fill(32));
    },
  });
};

const texts = (text: string) => JSON.stringify({ machineId: null, texts: [{ name: "t.json", text }] });

test("a picture in pieces without a length is cut at its limit", async () => {
  const answer = await beside(post("/api/v1/machines/m-wrk-hv1/pictures", endless(400 * MB), "image/png"));
  // The connection is closed while the rest is still coming, so the words may not arrive; the picture never does.
  expect([0, 413]).toContain(answer.status);
  const small = await post("/api/v1/machines/m-wrk-hv1/pictures", endless(7 * MB), "image/png");
  expect([0, 413]).toContain(small.status);
});

test("JSON of twenty megabytes of brackets is refused, in a request and in a tool's output", async () => {
  const deep = "[".repeat(20 * MB);
  const wide = `[${"[],".repeat(6 * MB)}1]`;
  for (const body of [deep, wide]) {
    const answer = await beside(post("/api/v1/imports/preview", body));
    expect(answer, body.slice(0, 8)).toMatchObject({ status: 413 });
    expect(answer.words).toContain("nested deeper or has more parts");
  }
  for (const text of [
    deep.slice(0, 7.9 * MB),
    wide.slice(0, 7.9 * MB),
    `{"blockdevices":${deep.slice(0, 7 * MB)}`,
  ]) {
    const answer = await beside(post("/api/v1/imports/preview", texts(text)));
    expect(answer.status).toBe(200);
    expect(answer.words).toMatch(/which no tool writes|not recognised|the limit is/);
  }
});

test("a server action of twenty megabytes of brackets is refused before anything parses it", async () => {
  const { node } = JSON.parse(readFileSync(".next/server/server-reference-manifest.json", "utf8")) as {
    node: Record<string, unknown>;
  };
  const act = (body: string, id: string, type = "text/plain;charset=UTF-8") =>
    post("/sites", body, type, { "Next-Action": id });
  const [known] = Object.keys(node);
  for (const body of ["[".repeat(20 * MB), `[${"[],".repeat(6 * MB)}1]`]) {
    const answer = await beside(act(body, known!));
    expect(answer.status).toBe(413);
    expect(answer.words).toContain("nested deeper or has more parts");
    const unknown = await act(body, "7f".repeat(21));
    expect([409, 413]).toContain(unknown.status);
  }
  expect(await act("--x", known!, "multipart/form-data; boundary=x")).toMatchObject({ status: 415 });
});

test("a body that stops coming is given up, and one that ends early is not used", async () => {
  const socket = connect(PORT, "127.0.0.1");
  socket.write(
    `POST /api/v1/imports/preview HTTP/1.1\r\nHost: 127.0.0.1:${PORT}\r\nContent-Type: application/json\r\nContent-Length: 5000\r\n\r\n{"machineId"`,
  );
  let said = "";
  socket.on("data", (d) => (said += String(d)));
  await beside(new Promise((r) => setTimeout(r, 21_000)));
  expect(said).toMatch(/^HTTP\/1\.1 408 /);
  expect(said).toContain("The upload was cut off, so nothing was saved");
  socket.destroy();
});

test("a profile of lines that are no YAML is refused with twenty of its faults", async ({ page }) => {
  await page.goto(`${BASE}/images/profiles/new`);
  const buffer = Buffer.from("a: [}\n".repeat(4000));
  await page.getByLabel("Open file").setInputFiles({ name: "p.yaml", mimeType: "text/yaml", buffer });
  await expect(page.getByLabel("Profile as YAML")).toHaveValue(/^a: \[\}/);
  await beside(
    page
      .getByRole("button", { name: "Check and save this profile" })
      .click()
      .then(() => expect(page.getByText("not YAML").first()).toBeVisible()),
  );
  expect(await page.getByText("not YAML").count()).toBeLessThanOrEqual(20);
});

test("a machine is made from a text of more than a megabyte", async ({ page }) => {
  const filler = `# ${"x".repeat(118)}\n`.repeat(12_000);
  await page.goto(`${BASE}/machines/new`);
  await page
    .locator('input[type="file"]')
    .first()
    .setInputFiles([
      {
        name: "os-release",
        mimeType: "text/plain",
        buffer: Buffer.from(`${filler}NAME="Cairn"\nID=cairn\nVERSION_ID="9"\nPRETTY_NAME="Cairn 9"\n`),
      },
    ]);
  await page.getByLabel("Machine name, as on its front").fill("lim-1");
  await page.getByRole("button", { name: "Add machine" }).click();
  await expect(page).toHaveURL(/\/machines\/m-/);
});

test("sixty files of the image folder are hashed one after the other, and pages are answered meanwhile", async ({
  page,
}) => {
  test.setTimeout(240_000);
  await page.goto(`${BASE}/images`);
  const buttons = page.getByRole("button", { name: "Add to library" });
  await expect(buttons).toHaveCount(FILES);
  await beside(
    (async () => {
      for (let left = FILES; left > FILES - 20; left -= 1) {
        const row = page.getByRole("row").filter({ has: buttons.first() });
        const name = await row.getByRole("cell").first().innerText();
        // By its text: names of sixty rows take the browser a second each time where the machine has much to do.
        const own = page.locator("tr", { hasText: name }).getByRole("button", { name: "Add to library" });
        // A click in the moment in which the page moves is lost; whoever sees the button still there presses it again.
        await expect(async () => {
          if ((await own.count()) > 0) await own.click({ timeout: 5000 });
          await expect(own).toHaveCount(0, { timeout: 4000 });
        }).toPass({ timeout: 90_000 });
        await expect(buttons).toHaveCount(left - 1);
      }
    })(),
    4000,
  );
  const folderNow = async () =>
    (
      (await (await fetch(`${BASE}/api/v1/image-folder`)).json()) as {
        value: { job: { state: string } | null }[];
      }
    ).value;
  expect((await folderNow()).filter((f) => f.job?.state === "working").length).toBeLessThanOrEqual(1);
  await expect
    .poll(async () => (await folderNow()).filter((f) => f.job?.state === "done").length, { timeout: 120_000 })
    .toBe(20);
});

test("a large output is read as work that is seen and can be stopped, with nothing changed", async ({
  page,
}) => {
  await page.goto(`${BASE}/machines/new`);
  await expect(page.locator("html")).toHaveAttribute("data-feed", "open");
  const drives = Array.from({ length: 20_000 }, (_, i) => ({
    ...{ name: `sd${i}`, type: "disk", size: 4e12, serial: `SER-${i}`, model: "ALDER A", rota: false },
  }));
  await page.locator('input[type="file"]').setInputFiles([
    {
      name: "all-drives.json",
      mimeType: "application/json",
      buffer: Buffer.from(JSON.stringify({ blockdevices: drives })),
    },
  ]);
  const reading = page.getByRole("status").filter({ hasText: "Importing all-drives.json for" });
  await reading.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText("The import was stopped. Nothing was changed.")).toBeVisible();
  await expect(reading).toHaveCount(0);
});

test("a checksum that a killed server was at is interrupted, and begins anew when it is asked to", async ({
  page,
}) => {
  const file = `${folder}/images/aa-huge.iso`;
  writeFileSync(file, "");
  truncateSync(file, 400_000 * MB);
  await page.goto(`${BASE}/images`);
  await expect(page.locator("html")).toHaveAttribute("data-feed", "open");
  const row = page.getByRole("row", { name: /aa-huge\.iso/ });
  await row.getByRole("button", { name: "Add to library" }).click();
  const working = row.getByText(/SHA-256 of aa-huge\.iso: \d+ % of 400 GB/);
  await expect(working).toBeVisible();
  // It comes with the feed, and not with a page that is asked for again.
  await expect(row.getByText(/\/s$/)).toBeVisible();
  await server.end("SIGKILL");
  await server.start();
  const told = row.getByText(/^SHA-256 interrupted at \d+ %: the server stopped, and nothing was saved\.$/);
  await expect(told).toBeVisible();
  await row.getByRole("button", { name: "Restart checksum" }).click();
  await expect(working).toBeVisible();
  await row.getByRole("button", { name: "Stop" }).click();
  await expect(row.getByText("SHA-256 stopped")).toBeVisible();
});
