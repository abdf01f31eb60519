import { spawn, spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer, request as ask, type Server } from "node:http";
import { resolve } from "node:path";
import { chromium, expect, test, type Page } from "@playwright/test";
import config from "../../playwright.config";
import { DEMO, loadDemo, listening } from "./servers";

// Other pages that the operator has open: on another site, under a name that was made to point here, and around a frame.

const FOREIGN_PORT = 4385;
const FOREIGN = `http://localhost:${FOREIGN_PORT}`;
const EVENTS = `${DEMO}/api/v1/runs/r-wrk-hv1/events`;
let foreign: Server;

test.beforeAll(async () => {
  await loadDemo();
  foreign = createServer((_, response) => {
    response.setHeader("Content-Type", "text/html");
    response.end("<!doctype html><title>Elsewhere</title><p>A page of somebody else.</p>");
  }).listen(FOREIGN_PORT, "127.0.0.1");
});
test.afterAll(() => foreign.close());

const logLength = async (): Promise<number> => {
  const { value } = (await (await fetch(EVENTS)).json()) as { value: { log: unknown[] } };
  return value.log.length;
};
const note = (key: string) =>
  JSON.stringify({ key, command: { kind: "note", step: null, text: "written by a foreign page" } });

test("a foreign page cannot write, by any kind of request that it can make", async ({ page }) => {
  const before = await logLength();
  await page.goto(FOREIGN);
  for (const type of ["text/plain", "application/x-www-form-urlencoded", "application/json"])
    for (const mode of ["no-cors", "cors"] as const)
      await page.evaluate(
        ({ url, type, mode, body }) =>
          fetch(url, {
            method: "POST",
            mode,
            body,
            credentials: "include",
            headers: { "Content-Type": type },
          }).catch(() => null),
        { url: EVENTS, type, mode, body: note(`foreign-${type}-${mode}`) },
      );
  // The form that wrote an event: its one field's name and value make up JSON.
  const answered = page.waitForResponse(EVENTS);
  await page.evaluate(
    ({ url, body }) => {
      const form = document.createElement("form");
      Object.assign(form, { method: "post", action: url, enctype: "text/plain" });
      const field = document.createElement("input");
      const [name, rest] = body.split("foreign-form");
      Object.assign(field, { name: name + "foreign-form", value: rest });
      form.append(field);
      document.body.append(form);
      form.submit();
    },
    { url: EVENTS, body: note("foreign-form") },
  );
  expect((await answered).status()).toBe(403);
  expect(await logLength()).toBe(before);
});

test("a foreign page cannot call a server action", async ({ page }) => {
  const manifest = JSON.parse(readFileSync(".next/server/server-reference-manifest.json", "utf8")) as {
    node: Record<string, unknown>;
  };
  const action = Object.keys(manifest.node)[0]!;
  await page.goto(FOREIGN);
  const outcome = await page.evaluate(
    ({ url, action }) =>
      fetch(url, {
        method: "POST",
        body: "[]",
        credentials: "include",
        headers: { "Next-Action": action },
      }).then(
        (r) => r.status,
        () => "not sent",
      ),
    { url: `${DEMO}/machines`, action },
  );
  expect(outcome).toBe("not sent");
  // A program that says it is a browser on a foreign page gets the refusal in words.
  const refused = await fetch(`${DEMO}/machines`, {
    method: "POST",
    body: "[]",
    headers: { "Next-Action": action, Origin: FOREIGN },
  });
  expect(refused.status).toBe(403);
  expect(await refused.text()).toContain(`came from ${FOREIGN}, not from a page of Derrick`);
});

test("a foreign page can read nothing: no answer, no picture, no script", async ({ page }) => {
  await page.goto(FOREIGN);
  const read = await page.evaluate(async (origin) => {
    const text = await fetch(`${origin}/api/v1/export`, { credentials: "include" }).then(
      (r) => r.text(),
      () => "refused",
    );
    const loads = (tag: "img" | "script", url: string) =>
      new Promise<string>((done) => {
        const element = document.createElement(tag);
        element.onload = () => done("loaded");
        element.onerror = () => done("refused");
        element.src = url;
        document.body.append(element);
      });
    return [
      text,
      await loads("img", `${origin}/icon.svg`),
      await loads("script", `${origin}/api/v1/find?q=a`),
    ];
  }, DEMO);
  expect(read).toEqual(["refused", "refused", "refused"]);
});

test("a name that was made to point here is not Derrick's, so its page reads and writes nothing", async () => {
  const { launchOptions } = config.use!;
  const args = launchOptions!.args!.filter((a) => !a.startsWith("--host-resolver-rules"));
  const browser = await chromium.launch({
    ...launchOptions,
    args: [
      ...args,
      "--host-resolver-rules=MAP rebound.example 127.0.0.1, MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
    ],
  });
  const page: Page = await browser.newPage();
  // The attacker's own server answers first; then the name is made to point at Derrick's port.
  const answer = await page.goto(DEMO.replace("127.0.0.1", "rebound.example"));
  expect(answer!.status()).toBe(421);
  expect(await page.textContent("body")).toContain(
    `used the host name "rebound.example:${new URL(DEMO).port}", which is not that of Derrick`,
  );
  const inside = await page.evaluate(
    async (body) => [
      (await fetch("/api/v1/export")).status,
      (
        await fetch("/api/v1/runs/r-wrk-hv1/events", {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body,
        })
      ).status,
    ],
    note("rebound-note-1"),
  );
  expect(inside).toEqual([421, 421]);
  await browser.close();
});

test("no page stands in a frame of another", async ({ page }) => {
  await page.goto(FOREIGN);
  for (const origin of [DEMO, `${DEMO}/runs/r-wrk-hv1`]) {
    const answered = page.waitForResponse((r) => r.url().startsWith(DEMO));
    await page.evaluate((src) => {
      document.body.innerHTML = `<iframe src="${src}"></iframe>`;
    }, origin);
    expect((await answered).status()).toBe(403);
  }
  // Its own pages do not either, should one ever be made to hold foreign text.
  await page.goto(DEMO);
  await page.evaluate(() => {
    document.body.innerHTML = `<iframe src="/sites" title="own"></iframe>`;
  });
  await expect(page.frameLocator("iframe").getByRole("heading", { name: "Sites" })).toHaveCount(0);
});

test("every answer says what a browser may do with it, and no screen is hindered by that", async ({
  page,
}) => {
  const hindered: string[] = [];
  page.on("console", (m) => {
    if (m.type() === "error" && /Content Security Policy|violates/.test(m.text())) hindered.push(m.text());
  });
  for (const path of [
    "/",
    "/builds/b-wrk-hv2",
    "/runs/r-wrk-hv1",
    "/machines/m-cl-ws1/bench",
    "/images",
    "/sites/s-works",
  ]) {
    const answer = await page.goto(DEMO + path);
    await listening(page);
    const headers = answer!.headers();
    expect(headers["x-content-type-options"]).toBe("nosniff");
    expect(headers["referrer-policy"]).toBe("same-origin");
    expect(headers["permissions-policy"]).toContain("camera=()");
    expect(headers["content-security-policy"]).toMatch(
      /script-src 'self' 'nonce-[\w+/=]{24}' 'strict-dynamic'/,
    );
    expect(headers["content-security-policy"]).toContain("frame-ancestors 'none'");
  }
  expect(hindered).toEqual([]);
  const planted = await page.evaluate(
    () =>
      new Promise((done) => {
        document.addEventListener("securitypolicyviolation", (e) => done(e.effectiveDirective));
        document.body.insertAdjacentHTML("beforeend", `<img src="data:," onerror="window.hurt = true">`);
      }),
  );
  expect(planted).toBe("script-src-attr");
  const file = await fetch(`${DEMO}/api/v1/machines.csv`);
  expect(file.headers.get("content-security-policy")).toContain("sandbox");
});

test("a machine's door asks for its code and for nothing else", async () => {
  const post = (path: string, headers: Record<string, string>) =>
    new Promise<{ status?: number; text: string }>((done, fail) => {
      const sent = ask(DEMO + path, { method: "POST", headers }, async (answer) => {
        let text = "";
        for await (const part of answer) text += part;
        done({ status: answer.statusCode, text });
      });
      sent.on("error", fail);
      sent.end("=== derrick\n");
    });
  const wrong = await post("/api/collect/aaaaa-bbbbb-ccccc-ddddd", { Host: "10.61.10.5:4360" });
  expect(wrong).toMatchObject({ status: 422, text: expect.stringContaining("this code is unknown") });
  expect((await post("/api/v1/imports", { Host: "10.61.10.5:4360" })).status).toBe(421);
});

test("npm start lets in the address that DERRICK_ORIGIN names, and a server without the door does not start", async () => {
  const port = 4391;
  rmSync(".derrick/e2e/origin", { recursive: true, force: true });
  const own = spawn(process.execPath, ["scripts/start.mjs"], {
    stdio: "ignore",
    env: {
      ...process.env,
      PORT: String(port),
      DERRICK_ORIGIN: "https://derrick.marrowby.example",
      DERRICK_DB_URL: `file:${resolve(".derrick/e2e/origin/test.db")}`,
    },
  });
  const status = (host: string) =>
    new Promise<number>((done) => {
      const sent = ask(`http://127.0.0.1:${port}/api/health`, { headers: { Host: host } }, (answer) => {
        answer.resume();
        done(answer.statusCode ?? 0);
      });
      sent.on("error", () => done(0));
      sent.end();
    });
  await expect.poll(() => status("127.0.0.1"), { timeout: 60_000 }).toBe(200);
  expect(await status("derrick.marrowby.example")).toBe(200);
  expect(await status("other.marrowby.example")).toBe(421);
  const over = new Promise((r) => own.once("exit", r));
  own.kill("SIGTERM");
  await over;
  const bare = spawnSync(
    process.execPath,
    ["node_modules/next/dist/bin/next", "start", "-p", "4392", "-H", "127.0.0.1"],
    {
      env: { ...process.env, DERRICK_DB_URL: `file:${resolve(".derrick/e2e/origin/bare.db")}` },
      encoding: "utf8",
      timeout: 60_000,
    },
  );
  expect(bare.status).toBe(1);
  expect(bare.stderr + bare.stdout).toContain("Start Derrick with npm start");
});

test("a damaged database is told at the start, and nothing listens", async () => {
  mkdirSync(".derrick/e2e/origin", { recursive: true });
  const file = resolve(".derrick/e2e/origin/damaged.db");
  writeFileSync(file, "this is a text that is longer than the head of a database ".repeat(40));
  const { status, stderr } = spawnSync(process.execPath, ["scripts/server.mjs", "--port", "4392"], {
    env: { ...process.env, NODE_ENV: "production", DERRICK_DB_URL: `file:${file}` },
    encoding: "utf8",
    timeout: 60_000,
  });
  expect(status).toBe(1);
  expect(stderr).toContain("Derrick did not start.");
  expect(stderr).toContain("The database file is damaged, so nothing was changed.");
  expect(readFileSync(file, "utf8")).toContain("this is a text");
});
