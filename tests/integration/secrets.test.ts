import { readFileSync, statSync, writeFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { textOf } from "@/core/answers";
import { cryptOf } from "@/core/secret";
import { buildView } from "@/server/builds";
import { closeDatabase } from "@/server/database";
import { importAll } from "@/server/exports";
import { answersShown, answersView } from "@/server/scripts";
import { destroySecrets, forgetSecret, hashesOf, sealSecret, secretsView } from "@/server/seals";
import { agreeToErase } from "@/server/sheet-acts";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

vi.mock("next/headers", () => ({ cookies: async () => ({ get: () => ({ value: "J. Pell" }) }) }));
const { folder, url } = ownDatabase();
const BUILD = "b-tho-a";
const OTHER = "b-tho-b";
const PASSWORD = "plum-tango7-Oak-river";
const HASH = cryptOf(PASSWORD, "saltsaltsalt0001");
const DRIVE = "SLW5129931";

beforeAll(async () => {
  await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), { rebase: false });
  const { build } = (await buildView(await desk(), BUILD))!;
  await agreeToErase(await desk(), BUILD, build.version, DRIVE, DRIVE);
});
afterAll(closeDatabase);

const toMark = async (password: string) => cryptOf(password, (await secretsView(await desk(), BUILD))!.salt);
const sealIt = async (build: string, opens: string, password: string, hash: string | null = HASH) =>
  sealSecret(await desk(), build, { opens, hash, toMark: await toMark(password) });

describe("a sealed hash", () => {
  it("stands in the file that is fetched, and not on the page that shows it", async () => {
    expect(await sealIt(BUILD, "jpell", PASSWORD)).toMatchObject({
      ok: true,
      value: { known: [{ opens: "jpell", isSealed: true, isLost: false, same: [] }] },
    });
    const { answer } = (await answersView(await desk(), BUILD))!;
    expect(answer.kind === "file" && textOf(answer.file)).toContain(`--password="${HASH}"`);
    const shown = JSON.stringify(await answersShown(await desk(), BUILD));
    expect(shown).toContain("(stored hash)");
    expect(shown).not.toContain(HASH);
  });

  it("stands nowhere in clear: in no table, no file of the database, no export, no sheet, no history", async () => {
    const files = [`${folder}/test.db`, `${folder}/test.db-wal`].map((f) => readFileSync(f, "latin1"));
    const { GET } = (await import("@/app/api/v1/export/route")) as { GET: (r: Request) => Promise<Response> };
    const exported = gunzipSync(
      Buffer.from(await (await GET(new Request("http://127.0.0.1/api/v1/export"))).arrayBuffer()),
    ).toString("latin1");
    const sheet = JSON.stringify(await buildView(await desk(), BUILD));
    const end = HASH.slice(-40);
    for (const text of [...files, exported, sheet]) {
      expect(text).not.toContain(end);
      expect(text).not.toContain(PASSWORD);
    }
    // What it looks through is what is there: the export holds the sheet.
    expect(exported).toContain("tho-a");
  });

  it("is sealed with a key that only its owner reads, and with another key it does not open", async () => {
    const file = `${folder}/derrick.key`;
    expect(statSync(file).mode & 0o777).toBe(0o600);
    const key = readFileSync(file, "utf8");
    writeFileSync(file, `${"ab".repeat(32)}\n`);
    expect(await hashesOf(await desk(), BUILD)).toEqual(new Map());
    expect((await secretsView(await desk(), BUILD))!.known[0]).toMatchObject({
      isSealed: true,
      isLost: true,
    });
    writeFileSync(file, "short\n");
    await expect(secretsView(await desk(), BUILD)).rejects.toThrow(/does not have 32 bytes/);
    writeFileSync(file, key);
    expect((await hashesOf(await desk(), BUILD)).get("jpell")).toBe(HASH);
  });

  it("is destroyed when the run is over: its mark stays, the file asks again", async () => {
    await sealIt(BUILD, "arkle", "another-Plum-7-tango");
    const here = await desk();
    const words = await here.write((tx) => destroySecrets(tx, BUILD, here.stamp()));
    expect(words).toBe("The stored hashes of arkle, jpell were destroyed.");
    expect(await here.write((tx) => destroySecrets(tx, BUILD, here.stamp()))).toBeNull();
    const known = (await secretsView(here, BUILD))!.known;
    expect(known.map((k) => [k.isSealed, k.destroyedAt !== null])).toEqual([
      [false, true],
      [false, true],
    ]);
    const { answer } = (await answersView(here, BUILD))!;
    expect(answer.kind === "file" && textOf(answer.file)).not.toContain("$6$");
  });
});

describe("a mark", () => {
  it("knows the same password again, here and on another machine, and the sheet says so", async () => {
    await sealIt(BUILD, "jpell", PASSWORD);
    await sealIt(BUILD, "the management controller", PASSWORD, null);
    await sealIt(OTHER, "the management controller", PASSWORD, null);
    const { known } = (await secretsView(await desk(), BUILD))!;
    expect(known.find((k) => k.opens === "jpell")!.same).toEqual([
      "the management controller",
      expect.stringMatching(/^the management controller of /),
    ]);
    const { evaluation } = (await buildView(await desk(), BUILD))!;
    expect(evaluation.findings.filter((f) => f.code === "answers.same-password").length).toBeGreaterThan(0);
    await forgetSecret(await desk(), OTHER, "the management controller");
    await forgetSecret(await desk(), BUILD, "the management controller");
    expect((await secretsView(await desk(), BUILD))!.known.find((k) => k.opens === "jpell")!.same).toEqual(
      [],
    );
  });

  it.each([
    [
      "a password instead of a hash",
      { opens: "jpell", hash: PASSWORD, toMark: HASH },
      /This is not a hash in the format of crypt\(3\)/,
    ],
    ["a salt that is not this server's", { opens: "jpell", hash: null, toMark: HASH }, /salt of this server/],
  ])("%s is refused", async (_, given, words) => {
    const answer = await sealSecret(await desk(), BUILD, given);
    expect(answer.ok ? "" : answer.problems[0]?.message).toMatch(words);
  });

  it("the hash for the file has a salt of its own", async () => {
    const same = await toMark(PASSWORD);
    const answer = await sealSecret(await desk(), BUILD, { opens: "jpell", hash: same, toMark: same });
    expect(answer.ok ? "" : answer.problems[0]?.message).toMatch(/its own salt/);
  });
});

it("the database is a file here, or the test above would look at nothing", () =>
  expect(url).toMatch(/^file:/));
