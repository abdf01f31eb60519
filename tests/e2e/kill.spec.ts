import { spawn, type ChildProcess } from "node:child_process";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { resolve } from "node:path";
import { expect, test } from "@playwright/test";

const PORT = 4383;
const BASE = `http://127.0.0.1:${PORT}`;
const folder = resolve(".derrick/e2e/kill");
const RUN = `${BASE}/api/v1/runs/r-wrk-hv1/events`;

async function start(): Promise<ChildProcess> {
  const child = spawn(process.execPath, ["scripts/server.mjs", "--port", String(PORT)], {
    stdio: "ignore",
    env: {
      ...process.env,
      NODE_ENV: "production",
      DERRICK_DB_URL: `file:${folder}/test.db`,
      DERRICK_ORIGIN: BASE,
      NEXT_TELEMETRY_DISABLED: "1",
    },
  });
  for (let i = 0; i < 240; i += 1) {
    if ((await fetch(`${BASE}/api/health`).catch(() => null))?.ok) return child;
    await new Promise((r) => setTimeout(r, 250));
  }
  throw new Error("the server did not start");
}

const ended = (child: ChildProcess) => new Promise((r) => child.once("exit", r));
const post = (key: string, text: string) =>
  fetch(RUN, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ key, command: { kind: "note", step: null, text, by: "J. Pell" } }),
  });

test("the run log survives kill -9 of the server at any moment", async () => {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  let server = await start();
  await fetch(`${BASE}/api/v1/export`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: readFileSync("demo/marrowby-water.json", "utf8"),
  });
  const acknowledged: string[] = [];
  const unanswered: string[] = [];
  let sent = 0;
  for (const delay of [140, 330, 620, 910]) {
    // Notes are sent without pause, several at a time, until the server is killed in the middle of them.
    let alive = true;
    const talk = async () => {
      while (alive) {
        const key = `note-key-${(sent += 1)}`;
        const answer = await post(key, `note ${key}`).catch(() => null);
        (answer?.ok ? acknowledged : unanswered).push(key);
      }
    };
    const talkers = [talk(), talk(), talk()];
    await new Promise((r) => setTimeout(r, delay));
    const over = ended(server);
    server.kill("SIGKILL");
    await over;
    alive = false;
    await Promise.all(talkers);
    server = await start();
  }
  // What was not answered is sent again under its key, as the browser does; it must not be doubled.
  for (const key of unanswered) expect((await post(key, `note ${key}`)).ok).toBe(true);
  const { value } = (await (await fetch(RUN)).json()) as { value: { log: { seq: number; key: string }[] } };
  server.kill("SIGTERM");
  const keys = value.log.map((l) => l.key);
  expect(acknowledged.length).toBeGreaterThan(4);
  expect(acknowledged.filter((k) => !keys.includes(k))).toEqual([]);
  expect(unanswered.filter((k) => keys.filter((x) => x === k).length !== 1)).toEqual([]);
  expect(value.log.map((l) => l.seq)).toEqual(value.log.map((_, i) => i + 1));
});
