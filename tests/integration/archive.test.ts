import { createWriteStream, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { gunzipSync, gzipSync } from "node:zlib";
import { createClient } from "@libsql/client";
import { extract, pack as newPack, type Headers } from "tar-stream";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { sweepTemporary } from "@/server/archive/temporary";
import { writeArchive } from "@/server/archive/write";
import { closeDatabase, database } from "@/server/database";
import { importAll, importArchive } from "@/server/exports";
import { addPicture } from "@/server/machines";
import { createMachine } from "@/server/imports";
import { addShippedProfiles, listProfiles, saveProfile } from "@/server/profiles";
import { bundleOf, capture } from "../support/formats";
import { exportAll } from "../support/whole";
import { desk } from "../support/desk";

const folder = mkdtempSync("/tmp/derrick-archive-");
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Another installation, empty. */
async function anew(name: string): Promise<string> {
  await closeDatabase();
  const url = `file:${join(folder, name)}.db`;
  process.env.DERRICK_DB_URL = url;
  await database();
  await addShippedProfiles(await desk());
  return url;
}

async function saveTo(name: string): Promise<string> {
  const path = join(folder, `${name}.tar.gz`);
  const { stream } = await writeArchive(await desk());
  await pipeline(Readable.fromWeb(stream as never), createWriteStream(path));
  return path;
}

type File = { header: Headers; bytes: Buffer };
async function filesIn(path: string): Promise<File[]> {
  const tar = extract();
  Readable.from([gunzipSync(readFileSync(path))]).pipe(tar);
  const files: File[] = [];
  for await (const entry of tar) {
    const chunks: Buffer[] = [];
    for await (const chunk of entry) chunks.push(chunk as Buffer);
    files.push({ header: entry.header, bytes: Buffer.concat(chunks) });
  }
  return files;
}

/** An archive of other files: what a hand or a disk may have made of it. */
async function packed(name: string, files: File[]): Promise<string> {
  const tar = newPack();
  for (const { header, bytes } of files) {
    if (header.type === "file") tar.entry({ ...header, size: bytes.length }, bytes);
    else tar.entry(header);
  }
  tar.finalize();
  const chunks: Buffer[] = [];
  for await (const chunk of tar) chunks.push(chunk as Buffer);
  const path = join(folder, `${name}.tar.gz`);
  writeFileSync(path, gzipSync(Buffer.concat(chunks)));
  return path;
}

const PNG = Buffer.from("89504e470d0a1a0a0000000d", "hex");
const said = async (path: string): Promise<string> => {
  const answer = await importArchive(await desk(), path, { rebase: false });
  return answer.ok ? "taken" : answer.problems.map((p) => p.message).join("; ");
};

let path = "";
let url = "";
beforeAll(async () => {
  url = await anew("from");
  await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), { rebase: true });
  for (let i = 0; i < 3; i += 1)
    await addPicture(await desk(), "m-wrk-hv1", {
      type: "image/png",
      caption: `label ${i}`,
      bytes: Buffer.concat([PNG, Buffer.alloc(40_000, i)]),
    });
  const bundle = bundleOf("twin-1", { dmidecode: capture("server-bios-small", "dmidecode.txt") });
  const texts = [{ name: "über bundle.txt", text: bundle }];
  expect((await createMachine(await desk(), "s-works", "arc-1", texts)).ok).toBe(true);
  path = await saveTo("whole");
});

it("brings back everything, pictures and raw texts too, and is the same archive again", async () => {
  const before = await exportAll();
  const raw = async () =>
    (
      await createClient({ url: process.env.DERRICK_DB_URL! }).execute(
        "SELECT * FROM machine_imports ORDER BY id",
      )
    ).rows;
  const imports = await raw();
  expect(imports.length).toBeGreaterThan(0);
  await anew("to");
  expect(await importArchive(await desk(), path, { rebase: false })).toEqual({
    ok: true,
    value: { machines: before.machines.length, builds: before.builds.length, pictures: 3 },
  });
  expect({ ...(await exportAll()), exportedAt: "" }).toEqual({ ...before, exportedAt: "" });
  expect(await raw()).toEqual(imports);
  const [first, second] = [await filesIn(path), await filesIn(await saveTo("again"))];
  const named = (files: File[]) => files.slice(1, -1).map((f) => [f.header.name, f.bytes.toString("base64")]);
  expect(named(second)).toEqual(named(first));
  expect(await said(path)).toContain("This installation already has data");
});

it("holds documents, pictures and texts as files that any program opens, and their sums", async () => {
  const files = await filesIn(path);
  const names = files.map((f) => f.header.name);
  expect(names[0]).toBe("derrick-archive.json");
  expect(names.at(-1)).toBe("manifest.json");
  for (const name of [
    "sites/s-works.json",
    "machines/m-wrk-hv1.json",
    "builds/b-wrk-hv2.json",
    "runs/r-wrk-hv1.json",
  ])
    expect(names).toContain(name);
  expect(names.filter((n) => /^pictures\/p-\w+-\w+\.png$/.test(n))).toHaveLength(3);
  const text = files.find((f) => f.header.name.startsWith("imports/") && f.header.name.endsWith("/0.txt"))!;
  expect(text.bytes.toString()).toContain("dmidecode");
});

describe("an archive that is not as it was written is refused as a whole", () => {
  const change = (files: File[], name: RegExp, to: (file: File) => File[]): File[] =>
    files.flatMap((f) => (name.test(f.header.name) ? to(f) : [f]));
  const text = (from: string, to: string) => (file: File) => [
    { ...file, bytes: Buffer.from(file.bytes.toString().replace(from, to)) },
  ];
  const cases: [string, (files: File[]) => File[], RegExp][] = [
    [
      "a word changed",
      (f) => change(f, /^sites\/s-works/, text("Works", "Wrecks")),
      /^sites\/s-works\.json: changed since/,
    ],
    [
      "a picture changed",
      (f) => change(f, /\.png$/, (x) => [{ ...x, bytes: Buffer.from("x") }]),
      /changed since the archive was written \(checksum differs\)/,
    ],
    ["a file lost", (f) => change(f, /^images\//, () => []), /^images\/.*: in the manifest, but not in/],
    [
      "a picture lost",
      (f) => change(f, /\.png$/, () => []),
      /^pictures\/p-.*\.json: its file .* does not follow/,
    ],
    [
      "a file too many",
      (f) =>
        change(f, /^manifest/, (x) => [{ ...f[1]!, header: { ...f[1]!.header, name: "sites/s-9.json" } }, x]),
      /belongs into sites|sites\/s-9\.json: /,
    ],
    ["a file twice", (f) => change(f, /^sites\/s-works/, (x) => [x, x]), /in the archive twice/],
    ["no manifest", (f) => f.slice(0, -1), /ends before its manifest/],
    [
      "something behind the manifest",
      (f) => [...f, { ...f[1]!, header: { ...f[1]!.header, name: "sites/late.json" } }],
      /after the manifest/,
    ],
    ["another program's files", (f) => f.slice(1), /begins with derrick-archive\.json/],
    [
      "a field of another kind",
      (f) => change(f, /^runs\/r-wrk-hv1/, text('"seq": 1,', '"seq": "1",')),
      /^runs\/r-wrk-hv1\.json: log\.0\.seq/,
    ],
    [
      "a log with a gap",
      (f) => change(f, /^runs\/r-wrk-hv1/, text('"seq": 2,', '"seq": 9,')),
      /goes on with number 9|changed since/,
    ],
    [
      "a link",
      (f) => [
        f[0]!,
        {
          header: { name: "sites/x.json", type: "symlink", linkname: "/etc/passwd" },
          bytes: Buffer.alloc(0),
        },
        ...f.slice(1),
      ],
      /sites\/x\.json: an archive of Derrick has plain files only/,
    ],
  ];
  it.each(cases)("%s", async (name, make, problem) => {
    await anew(`broken-${cases.findIndex((c) => c[0] === name)}`);
    expect(await said(await packed(`broken ${name}`, make(await filesIn(path))))).toMatch(problem);
    const { sites, machines, builds, drives } = await exportAll();
    expect([sites, machines, builds, drives]).toEqual([[], [], [], []]);
    expect((await listProfiles(await desk())).length).toBeGreaterThan(5);
  });

  it("cut off anywhere", async () => {
    await anew("cut");
    const whole = readFileSync(path);
    for (const share of [0, 0.0001, 0.3, 0.7, 0.95, 0.9999]) {
      const cut = join(folder, "cut.tar.gz");
      writeFileSync(cut, whole.subarray(0, Math.floor(whole.length * share)));
      expect(await said(cut), String(share)).toMatch(/truncated/);
    }
    expect((await exportAll()).sites).toEqual([]);
  });
});

it("comes back with what was damaged as damaged as it was, and with all that stands on it", async () => {
  process.env.DERRICK_DB_URL = url;
  await closeDatabase();
  const client = createClient({ url });
  await client.execute("UPDATE sites SET document = '{\"cut' WHERE id = 's-works'");
  await client.execute("UPDATE builds SET sheet = '[]' WHERE id = 'b-wrk-hv1'");
  const rows = async (at: string) =>
    (
      await createClient({ url: at }).execute(
        "SELECT id, document FROM sites UNION SELECT id, sheet FROM builds UNION SELECT build_id || version, edits FROM build_history",
      )
    ).rows;
  const before = await rows(url);
  const archive = await saveTo("damaged");
  const other = await anew("damaged-to");
  expect(await said(archive)).toBe("taken");
  expect(await rows(other)).toEqual(before);
});

it("is not read over the profile editions of an installation that has no site yet", async () => {
  await anew("own-editions");
  const [profile] = await listProfiles(await desk());
  const { key, version, edition, profile: fields } = profile!;
  const made = await saveProfile(await desk(), key, version, edition, { ...fields, name: "Our own" });
  expect(made.ok).toBe(true);
  expect(await said(path)).toContain("This installation already has data");
  expect((await listProfiles(await desk())).some((p) => p.by === "J. Pell")).toBe(true);
});

it("of a hundred megabytes of pictures is written and read in a small part of that memory", async () => {
  const from = await anew("large");
  await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), { rebase: true });
  const { write } = await database();
  const { pictureRows } = await import("@/db");
  const bytes = Buffer.alloc(5_700_000);
  for (let i = 0; i < bytes.length; i += 4) bytes.writeUInt32LE((i * 2654435761) >>> 0, i);
  for (let i = 0; i < 18; i += 1)
    await write((tx) =>
      pictureRows.insert(tx, {
        id: `p-${i}`,
        machineId: "m-wrk-hv1",
        at: "2026-11-26T00:00:00.000Z",
        by: "J",
        caption: "",
        type: "image/png",
        bytes,
      }),
    );
  globalThis.gc?.();
  const start = process.memoryUsage().rss;
  let most = 0;
  const watch = setInterval(() => (most = Math.max(most, process.memoryUsage().rss - start)), 20);
  const archive = await saveTo("large");
  await anew("large-to");
  expect(await importArchive(await desk(), archive, { rebase: false })).toMatchObject({
    ok: true,
    value: { pictures: 18 },
  });
  clearInterval(watch);
  expect(from).not.toBe(process.env.DERRICK_DB_URL);
  expect(most / 1e6).toBeLessThan(90);
});

it("that grows without measure, or is filled up with zeros, is refused soon", async () => {
  await anew("bombs");
  const path = join(folder, "bomb.tar.gz");
  const said = async (bytes: Buffer): Promise<string> => {
    writeFileSync(path, gzipSync(bytes));
    const answer = await importArchive(await desk(), path, { rebase: false });
    return answer.ok ? "" : answer.problems.map((p) => p.message).join(" ");
  };
  expect(await said(Buffer.alloc(40_000_000))).toMatch(/The archive is filled with zeros/);
  expect(await said(Buffer.alloc(120_000_000, "derrick"))).toMatch(
    /more than 200 times its size|not an archive/,
  );
  expect((await exportAll()).sites).toEqual([]);
});

it("whose upload was stopped in the middle leaves nothing behind once Derrick has started again", async () => {
  await anew("stopped");
  const [left, others] = ["stopped.db-incoming-t1.tmp", "other.db-incoming-t1.tmp"].map((n) =>
    join(folder, n),
  );
  for (const path of [left!, others!]) writeFileSync(path, "half of it");
  await sweepTemporary();
  expect([existsSync(left!), existsSync(others!)]).toEqual([false, true]);
});
