// npm run soak [-- SECONDS [untimed]]: fifty people on sheets and runs of the demo, thirteen requests a second, for two minutes.
// Loopback only, a built server and a database of its own. Says how long health and saves took and whether an answer was
// lost; ends with 1 when a limit is passed.
import { readFileSync } from "node:fs";
import { loadDemoInto } from "../tests/support/kill-storm";
import { OwnServer } from "../tests/support/own-server";
import { seeded } from "../tests/support/random";

const SECONDS = Number(process.argv[2] ?? 120);
/** As a part of npm test, where a slow machine is no fault. */
const UNTIMED = process.argv[3] === "untimed";
const PEOPLE = 50;
const RATE = 13;
/** Limits of issue and README, in milliseconds. */
const HEALTH_P95 = 100;
const SAVE_P95 = 300;

const RUNS = ["r-wrk-hv1"];
const MACHINES = ["m-wrk-hv1", "m-wrk-hv2", "m-wrk-st1", "m-tho-a", "m-tho-b"];
const PAGES = ["/", "/machines", "/builds/b-wrk-hv2", "/runs/r-wrk-hv1", "/machines/m-wrk-st1", "/images"];

const server = new OwnServer("soak", 4389);
const random = seeded(20261126);
const took: Record<string, number[]> = { health: [], save: [], read: [] };
const failed: string[] = [];
const kept: { run: string; key: string }[] = [];
const edited = new Map<string, string>();
let stale = 0;

async function timed<T>(kind: string, what: string, work: () => Promise<T>): Promise<T | null> {
  const began = performance.now();
  try {
    const value = await work();
    took[kind]!.push(performance.now() - began);
    return value;
  } catch (error) {
    failed.push(`${what}: ${error instanceof Error ? error.message : String(error)}`);
    return null;
  }
}

async function get(path: string): Promise<string> {
  const response = await fetch(server.base + path);
  if (!response.ok) throw new Error(String(response.status));
  return response.text();
}

/** The id of a server action, by which a browser calls it. */
const manifest = JSON.parse(readFileSync(".next/server/server-reference-manifest.json", "utf8")) as {
  node: Record<string, { filename: string; exportedName: string }>;
};
const action = (name: string): string =>
  Object.entries(manifest.node).find(
    ([, a]) => a.filename === "src/app/builds/actions.ts" && a.exportedName === name,
  )![0];
const call = (path: string, name: string, args: unknown[]) =>
  fetch(server.base + path, {
    method: "POST",
    redirect: "manual",
    headers: {
      "Next-Action": action(name),
      "Content-Type": "text/plain;charset=UTF-8",
      Accept: "text/x-component",
    },
    body: JSON.stringify(args),
  });

/** Each person has a sheet of their own, and one in ten edits is made on that of a neighbour. */
const sheets: string[] = [];
async function makeSheets(): Promise<void> {
  for (let i = 0; i < PEOPLE; i += 1) {
    const response = await call("/builds", "begin", [MACHINES[i % MACHINES.length]]);
    const to = response.headers.get("x-action-redirect") ?? "";
    sheets.push(/\/builds\/(b-[\w-]+)/.exec(to)![1]!);
    await response.text();
  }
}

/** One edit of a sheet, made as the sheet page makes it; one that somebody else was faster with is made again. */
async function saveSheet(person: number): Promise<void> {
  const sheet = sheets[random() < 0.1 ? (person + 1) % PEOPLE : person]!;
  const notes = `person ${person}, ${Math.floor(random() * 1e9)}`;
  const edits = [{ path: "handOver.notes", before: "", after: notes }];
  for (let version = versions.get(sheet) ?? 1, tries = 0; tries < 20; tries += 1) {
    const response = await call(`/builds/${sheet}`, "save", [sheet, version, edits, null]);
    const text = await response.text();
    if (!response.ok) throw new Error(String(response.status));
    const now = Number(/"build":\{"id":"[^"]*","number":"[^"]*","version":(\d+)/.exec(text)?.[1]);
    if (!now) throw new Error(`not understood: ${text.slice(0, 200)}`);
    versions.set(sheet, now);
    if (!text.includes('"stale":')) {
      edited.set(`${sheet} ${now}`, notes);
      return;
    }
    stale += 1;
    version = now;
  }
  throw new Error("stale twenty times");
}
const versions = new Map<string, number>();

async function note(person: number): Promise<void> {
  const run = RUNS[Math.floor(random() * RUNS.length)]!;
  const key = `soak-${person}-${Math.floor(random() * 1e12)}`;
  const response = await fetch(`${server.base}/api/v1/runs/${run}/events`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ key, command: { kind: "note", step: null, text: `note of person ${person}` } }),
  });
  if (!response.ok) throw new Error(`${response.status} ${await response.text()}`);
  await response.text();
  kept.push({ run, key });
}

async function person(number: number, until: number): Promise<void> {
  const pause = (PEOPLE / RATE) * 1000;
  await new Promise((r) => setTimeout(r, random() * pause));
  while (Date.now() < until) {
    const began = Date.now();
    const what = random();
    // What open pages ask by themselves, then notes, edits, and somebody who opens another page.
    if (what < 0.3) await timed("read", "poll of a run", () => get("/api/v1/runs/r-wrk-hv1/events"));
    else if (what < 0.45) await timed("read", "hands", () => get("/api/v1/hands"));
    else if (what < 0.6) await timed("save", "note", () => note(number));
    else if (what < 0.8) await timed("save", "sheet", () => saveSheet(number));
    else {
      const path = random() < 0.3 ? `/builds/${sheets[number]}` : PAGES[Math.floor(random() * PAGES.length)]!;
      await timed("read", path, () => get(path));
    }
    await new Promise((r) => setTimeout(r, Math.max(0, pause * (0.5 + random()) - (Date.now() - began))));
  }
}

const p95 = (values: number[]): number =>
  values.toSorted((a, b) => a - b)[Math.floor(values.length * 0.95)] ?? Number.NaN;

try {
  await server.start();
  await loadDemoInto(server.base);
  await makeSheets();
  // The first answer of a page is compiled; that is no part of the load.
  for (const path of [...PAGES, `/builds/${sheets[0]}`]) await get(path);
  const until = Date.now() + SECONDS * 1000;
  const health = async () => {
    while (Date.now() < until) {
      await timed("health", "health", () => get("/api/health"));
      await new Promise((r) => setTimeout(r, 100));
    }
  };
  await Promise.all([health(), ...Array.from({ length: PEOPLE }, (_, i) => person(i, until))]);
  const lost: string[] = [];
  for (const run of RUNS) {
    const { value } = JSON.parse(await get(`/api/v1/runs/${run}/events`)) as {
      value: { log: { key: string }[] };
    };
    const there = new Set(value.log.map((l) => l.key));
    lost.push(...kept.filter((k) => k.run === run && !there.has(k.key)).map((k) => k.key));
  }
  for (const sheet of sheets) {
    const own = [...edited]
      .filter(([k]) => k.startsWith(`${sheet} `))
      .sort((a, b) => Number(a[0].split(" ")[1]) - Number(b[0].split(" ")[1]));
    const last = own.at(-1)?.[1];
    if (last && !(await get(`/builds/${sheet}`)).includes(last)) lost.push(`${sheet}: ${last}`);
  }
  const requests = took.save!.length + took.read!.length;
  const line = (name: string) =>
    `${name} ${took[name]!.length} times, p95 ${Math.round(p95(took[name]!))} ms, longest ${Math.round(Math.max(...took[name]!))} ms`;
  console.log(
    [
      `${PEOPLE} people, ${(requests / SECONDS).toFixed(1)} requests per second for ${SECONDS} s:`,
      line("health"),
      line("save"),
      line("read"),
      `${edited.size} sheets saved, ${stale} saved again after a conflict; ${kept.length} notes; ${lost.length} lost; ${failed.length} failed`,
      ...failed.slice(0, 5),
    ].join("\n"),
  );
  const inTime = UNTIMED || (p95(took.health!) < HEALTH_P95 && p95(took.save!) < SAVE_P95);
  const good = inTime && lost.length + failed.length === 0 && edited.size > 0 && kept.length > 0;
  if (!good)
    console.log(
      `Limits: health p95 ${HEALTH_P95} ms, save p95 ${SAVE_P95} ms, nothing lost, nothing failed.`,
    );
  process.exitCode = good ? 0 : 1;
} finally {
  await server.end();
}
