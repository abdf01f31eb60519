import { readdirSync, readFileSync } from "node:fs";
import { resolve } from "node:path";
import { beforeAll, describe, expect, it, vi } from "vitest";
import { buildView } from "@/server/builds";
import { importAll } from "@/server/exports";
import { agreeToErase, saveEdits } from "@/server/sheet-acts";
import { captures } from "../support/formats";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

vi.mock("next/headers", () => ({ cookies: async () => ({ get: () => ({ value: "J. Pell" }) }) }));
ownDatabase();

type Handler = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;
type Route = Partial<Record<"GET" | "POST", Handler>>;

/** Every route of the application, by its folder. */
const FOLDERS = readdirSync("src/app", { recursive: true, encoding: "utf8" })
  .filter((f) => f.endsWith("route.ts"))
  .map((f) => f.replace("/route.ts", ""));

const load = async (folder: string): Promise<Route> =>
  (await import(/* @vite-ignore */ resolve("src/app", folder, "route.ts"))) as Route;

interface Ask {
  params?: Record<string, string>;
  query?: string;
  json?: unknown;
  body?: BodyInit;
  type?: string;
}

async function ask(
  method: "GET" | "POST",
  folder: string,
  { params = {}, query = "", json, body, type }: Ask = {},
) {
  const sent = json === undefined ? body : JSON.stringify(json);
  const request = new Request(`http://127.0.0.1/${folder}${query}`, {
    method,
    ...(sent !== undefined && { body: sent }),
    headers: { "content-type": type ?? "application/json" },
  });
  return (await load(folder))[method]!(request, { params: Promise.resolve(params) });
}

const textsOf = (folder: string) => captures(folder).slice(0, 4);
const RUN = { id: "r-tho-b" };
/** A sheet that makes two sets, one of which cannot be made. */
const SETS = { id: "b-wrk-st1" };
/** A sheet of a family with an answer file, whose drive is agreed to be erased; of the other one it is not. */
const ERASES = { id: "b-tho-a" };
const DRIVE = "SLW5129931";
const NOWHERE = { id: "r-nowhere" };

beforeAll(async () => {
  await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), { rebase: false });
  const sets = [
    { id: "1", name: "depot", keeper: "ZFS", type: "stripe", members: ["CDB12T4480"] },
    { id: "2", name: "none", keeper: "ZFS", type: "raidz2", members: [] },
  ];
  const { build } = (await buildView(await desk(), SETS.id))!;
  const saved = await saveEdits(await desk(), SETS.id, build.version, [
    { path: "storage.sets", before: [], after: sets },
  ]);
  expect(saved).toMatchObject({ ok: true });
  const erased = (await buildView(await desk(), ERASES.id))!.build;
  expect(await agreeToErase(await desk(), ERASES.id, erased.version, DRIVE, DRIVE)).toMatchObject({
    ok: true,
  });
});

/** What each route gives for something that is there: its kind, and a piece of its body. */
const GIVES: [method: "GET" | "POST", folder: string, ask: Ask, type: RegExp, body: RegExp][] = [
  ["GET", "api/health", {}, /json/, /"ok":true/],
  ["GET", "api/v1/drives.csv", {}, /csv/, /serial/i],
  ["GET", "api/v1/machines.csv", {}, /csv/, /wrk-hv1/],
  [
    "GET",
    "api/v1/damaged/[kind]/[id]",
    { params: { kind: "site", id: "s-works" } },
    /json/,
    /"name": "Works"/,
  ],
  [
    "GET",
    "api/v1/profiles/[key]/[version]",
    { params: { key: "hopper-backup", version: "3" } },
    /yaml/,
    /profile: hopper-backup/,
  ],
  ["GET", "api/v1/schemas/profile.json", {}, /json/, /\$schema/],
  ["GET", "api/v1/schemas/record.json", {}, /json/, /\$schema/],
  ["GET", "api/v1/find", { query: "?q=wrk-hv1" }, /json/, /wrk-hv1/],
  ["GET", "api/v1/marks", { query: "?ids=b-wrk-hv2,b-none" }, /json/, /^\{"b-wrk-hv2":\{"hook":"[A-K]"/],
  ["GET", "api/v1/hands", {}, /json/, /"runs":\[/],
  ["GET", "api/v1/image-folder", {}, /json/, /"ok":true/],
  ["GET", "api/v1/runs/[id]/events", { params: RUN }, /json/, /"log":\[/],
  ["GET", "api/v1/runs/[id]/record.json", { params: RUN }, /json/, /"revision"/],
  ["GET", "api/v1/builds/[id]/ground", { params: { id: "b-wrk-hv2" } }, /json/, /"rivals":\[/],
  ["GET", "api/v1/runs/[id]/record.md", { params: RUN }, /markdown/, /^# /],
  [
    "GET",
    "api/v1/builds/[id]/scripts/[set]",
    { params: { ...SETS, set: "1" } },
    /shellscript/,
    /zpool create/,
  ],
  ["GET", "api/v1/builds/[id]/answers", { params: ERASES }, /plain/, /^%pre --erroronfail/m],
  ["GET", "api/v1/builds/[id]/answers", { params: { id: "b-wrk-hv1" } }, /plain/, /^require drive serial/m],
  ["GET", "api/v1/builds/[id]/secrets", { params: ERASES }, /json/, /"salt":"[0-9a-f]{16}","known":\[\]/],
  [
    "POST",
    "api/v1/builds/[id]/secrets",
    { params: ERASES, json: { forget: "jpell" } },
    /json/,
    /"known":\[\]/,
  ],
  ["GET", "api/v1/export", {}, /gzip/, /./],
  ["GET", "api/v1/stream", {}, /event-stream/, /retry: 2000/],
  ["GET", "collect.sh", {}, /shellscript/, /^#!\/bin\/sh/],
  ["GET", "collect-bsd.sh", {}, /shellscript/, /^#!\/bin\/sh/],
  [
    "POST",
    "api/v1/imports/preview",
    { json: { machineId: null, texts: textsOf("server-uefi-2socket") } },
    /json/,
    /"understood"/,
  ],
  [
    "POST",
    "api/v1/runs/[id]/events",
    {
      params: { id: "r-wrk-hv1" },
      json: { key: "route-note-1", command: { kind: "note", step: null, text: "t" } },
    },
    /json/,
    /"ok":true/,
  ],
  [
    "POST",
    "api/v1/machines/[id]/pictures",
    {
      params: { id: "m-wrk-hv1" },
      query: "?caption=front",
      body: new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 1, 2]),
      type: "image/jpeg",
    },
    /json/,
    /"ok":true/,
  ],
];

/** What each route refuses: with which status, and in which words. */
const REFUSES: [method: "GET" | "POST", folder: string, ask: Ask, status: number, words: RegExp][] = [
  [
    "GET",
    "api/v1/damaged/[kind]/[id]",
    { params: { kind: "site", id: "s-none" } },
    404,
    /Document not found/,
  ],
  ["GET", "api/v1/damaged/[kind]/[id]", { params: { kind: "secrets", id: "x" } }, 404, /Document not found/],
  [
    "GET",
    "api/v1/profiles/[key]/[version]",
    { params: { key: "none", version: "1" } },
    404,
    /OS profile not found/,
  ],
  ["GET", "api/v1/pictures/[id]", { params: { id: "p-none" } }, 404, /no longer exists/],
  ["GET", "api/v1/jobs/[id]", { params: { id: "j-none" } }, 404, /Job not found/],
  ["POST", "api/v1/jobs/[id]", { params: { id: "j-none" }, json: { stop: true } }, 404, /Job not found/],
  ["POST", "api/v1/jobs/[id]", { params: { id: "j-none" }, json: {} }, 400, /stop/],
  ["GET", "api/v1/runs/[id]/events", { params: NOWHERE }, 422, /no longer exists/],
  ["GET", "api/v1/runs/[id]/record.json", { params: NOWHERE }, 404, /Run not found/],
  ["GET", "api/v1/builds/[id]/ground", { params: NOWHERE }, 404, /Build sheet not found/],
  [
    "GET",
    "api/v1/builds/[id]/scripts/[set]",
    { params: { ...NOWHERE, set: "1" } },
    404,
    /Build sheet not found/,
  ],
  ["GET", "api/v1/builds/[id]/scripts/[set]", { params: { ...SETS, set: "2" } }, 409, /has no drives/],
  [
    "GET",
    "api/v1/builds/[id]/scripts/[set]",
    { params: { ...SETS, set: "3" } },
    404,
    /Build sheet not found/,
  ],
  ["GET", "api/v1/builds/[id]/answers", { params: NOWHERE }, 404, /Build sheet not found/],
  ["GET", "api/v1/builds/[id]/secrets", { params: NOWHERE }, 404, /Build sheet not found/],
  [
    "POST",
    "api/v1/builds/[id]/secrets",
    { params: ERASES, json: { opens: "jpell", password: "plum" } },
    400,
    /./,
  ],
  ["GET", "api/v1/builds/[id]/answers", { params: { id: "b-tho-b" } }, 409, /storage\.erase: the erasure of/],
  [
    "GET",
    "api/v1/builds/[id]/answers",
    { params: ERASES, query: "?file=x" },
    404,
    /The build sheet has no file with this name/,
  ],
  [
    "GET",
    "api/v1/builds/[id]/answers",
    { params: SETS, query: "?of=image" },
    409,
    /This OS family reads no file at first boot/,
  ],
  [
    "GET",
    "api/v1/builds/[id]/answers",
    { params: ERASES, query: "?of=image" },
    409,
    /answers\.accounts: no login possible/,
  ],
  ["GET", "api/v1/builds/[id]/answers", { params: SETS }, 409, /type the values from the answer card/],
  ["GET", "api/v1/runs/[id]/record.md", { params: NOWHERE }, 404, /Run not found/],
  ["POST", "api/v1/runs/[id]/events", { params: RUN, json: { key: "short", command: {} } }, 400, /^.*key/],
  [
    "POST",
    "api/v1/runs/[id]/events",
    { params: RUN, json: { key: "long-enough-1", command: { kind: "dance" } } },
    422,
    /./,
  ],
  ["POST", "api/v1/runs/[id]/acceptance", { params: RUN, json: { texts: [] } }, 400, /texts/],
  [
    "POST",
    "api/v1/runs/[id]/acceptance",
    { params: NOWHERE, json: { texts: [{ name: "a", text: "b" }] } },
    422,
    /no longer exists/,
  ],
  ["POST", "api/v1/imports", { json: { machineId: 7 } }, 400, /machineId/],
  ["POST", "api/v1/imports", { body: "{ not json" }, 400, /The request is not valid JSON/],
  [
    "POST",
    "api/v1/imports",
    { json: { machineId: "m-none", version: 1, texts: [{ name: "a", text: "b" }] } },
    422,
    /no longer exists/,
  ],
  ["POST", "api/v1/imports/preview", { json: { machineId: null, texts: [] } }, 400, /texts/],
  [
    "POST",
    "api/v1/machines/[id]/pictures",
    { params: { id: "m-wrk-hv1" }, body: "<html>", type: "image/png" },
    422,
    /./,
  ],
  ["POST", "api/v1/export", { json: {} }, 422, /./],
  [
    "POST",
    "api/collect/[code]",
    { params: { code: "wrong" }, body: "x", type: "text/plain" },
    422,
    /^refused: /,
  ],
];

it("every route has a case here", () => {
  const tried = new Set([...GIVES, ...REFUSES].map(([, folder]) => folder));
  expect([...tried].sort()).toEqual([...FOLDERS].sort());
});

describe("a route gives what is there", () => {
  it.each(GIVES)("%s %s", async (method, folder, given, type, body) => {
    const answer = await ask(method, folder, given);
    expect(answer.status).toBe(200);
    expect(answer.headers.get("content-type")).toMatch(type);
    const reader = answer.body!.getReader();
    const first = await reader.read();
    let text = new TextDecoder().decode(first.value);
    if (!folder.endsWith("stream"))
      for (let part = await reader.read(); !part.done; part = await reader.read())
        text += new TextDecoder().decode(part.value);
    await reader.cancel();
    expect(text).toMatch(body);
    if (/json/.test(type.source)) expect(() => JSON.parse(text) as unknown).not.toThrow();
  });
});

describe("a route refuses in words what it cannot do, and changes nothing", () => {
  it.each(REFUSES)("%s %s %j", async (method, folder, given, status, words) => {
    const { db } = await desk();
    const { changeRows } = await import("@/db");
    const before = await changeRows.last(db);
    const answer = await ask(method, folder, given);
    expect(answer.status).toBe(status);
    const text = await answer.text();
    const said = text.startsWith("{")
      ? (JSON.parse(text) as { problems: { message: string }[] }).problems[0]!.message
      : text;
    expect(said.length).toBeGreaterThan(10);
    expect(said).toMatch(words);
    expect(await changeRows.last(db)).toBe(before);
  });

  it("a body that is larger than it may be, in the words of the limit", async () => {
    const body = "x".repeat(7_000_000);
    const answer = await ask("POST", "api/v1/machines/[id]/pictures", {
      params: { id: "m-wrk-hv1" },
      body,
      type: "image/png",
    });
    expect([answer.status, await answer.text()]).toEqual([413, expect.stringContaining("larger than 6 MB")]);
  });

  it("JSON that is nested so deep that nobody wrote it", async () => {
    const body = `${"[".repeat(400)}${"]".repeat(400)}`;
    expect((await ask("POST", "api/v1/imports", { body })).status).toBe(413);
  });
});

it("a failure that nobody foresaw is JSON with a sentence, and stands in the log", async () => {
  const log = vi.spyOn(console, "error").mockImplementation(() => undefined);
  const { route } = await import("@/app/api/answer");
  const failing = route(() => {
    throw new TypeError("x is not a function");
  });
  const response = await failing(new Request("http://127.0.0.1/x"));
  expect([response.status, await response.json()]).toEqual([
    500,
    { ok: false, problems: [{ message: expect.stringMatching(/Derrick failed with an unexpected error/) }] },
  ]);
  expect(log).toHaveBeenCalledWith(expect.objectContaining({ message: "x is not a function" }));
  log.mockRestore();
});
