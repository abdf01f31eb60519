import { readFileSync } from "node:fs";
import { createClient } from "@libsql/client";
import { describe, expect, it } from "vitest";
import { DatabaseTooNewError, openDatabase } from "@/db";
import { buildHistory, buildView, createBuild, issueRevision } from "@/server/builds";
import { agreeToErase, saveEdits, undoSave, waive } from "@/server/sheet-acts";
import { database } from "@/server/database";
import { importAll } from "@/server/exports";
import { find } from "@/server/find";
import { createImage } from "@/server/images";
import { addShippedProfiles, importProfile, listProfiles } from "@/server/profiles";
import { issueCode, receiveBundle } from "@/server/collector";
import { createMachine, previewImport, takeOver } from "@/server/imports";
import { machineView } from "@/server/machines";
import { accept, command, recordOf, runView, startRun } from "@/server/runs";
import { isOpen } from "@/core/run";
import type { Operation } from "@/core/work";
import { registerLine } from "@/server/drives";
import { createSite, siteView } from "@/server/sites";
import { todayView } from "@/server/today";
import { bundleOf, capture } from "../support/formats";
import { ownDatabase } from "../support/database";
import { exportAll } from "../support/whole";
import { desk } from "../support/desk";
import { cryptOf } from "@/core/secret";
import { hashesOf, sealSecret, secretsView } from "@/server/seals";
import { SITE } from "@/server/written";
import { readBack } from "../support/runs";
import { write } from "../support/written";

const { url, folder } = ownDatabase();
/** What an operator answers to a step for whom everything goes as planned. */
const answerTo = (step: Operation) =>
  step.kind === "name drive"
    ? { kind: "guard", step: step.id, typed: step.drives[0]!.proof }
    : (readBack(step) ?? {
        kind: "as expected",
        step: step.id,
        ...(step.records && { words: "file server, folder big-1" }),
      });
const by = "J. Pell";
const must = <T>(answer: { ok: true; value: T } | { ok: false; problems: { message: string }[] }): T => {
  if (!answer.ok) throw new Error(answer.problems.map((p) => p.message).join("; "));
  return answer.value;
};
const captured = (file: string) => capture("server-uefi-2socket", file);
const bundle = bundleOf("big-1", {
  lsblk: captured("lsblk.json"),
  lscpu: captured("lscpu.json"),
  dmidecode: captured("dmidecode.txt"),
  "ip-address": captured("ip-addr.json"),
});
const texts = [{ name: "bundle.txt", text: bundle }];

describe("one machine, from its facts to its record", () => {
  let machineId = "";
  let buildId = "";
  const version = async (): Promise<number> => (await buildView(await desk(), buildId))!.build.version;
  const edit = async (changes: Record<string, unknown>) => {
    const answer = await saveEdits(
      await desk(),
      buildId,
      await version(),
      Object.entries(changes).map(([path, after]) => ({ path, before: null, after })),
    );
    if (!answer.ok) throw new Error(JSON.stringify(answer.problems));
    return answer.view;
  };

  it("is previewed without a change, then taken over", async () => {
    await addShippedProfiles(await desk());
    const site = must(await createSite(await desk(), "Works"));
    const view = (await siteView(await desk(), site))!;
    const segment = {
      id: "mgmt",
      name: "Works management",
      purpose: "management",
      prefix: "10.61.10.0/24",
      gateway: "10.61.10.1",
      nameServers: ["10.61.10.2"],
    };
    must(
      await write(await desk(), SITE, site, view.version, {
        segments: [segment],
        domain: "marrowby.example",
        timeZone: "Europe/London",
      }),
    );
    const preview = must(await previewImport(await desk(), null, texts));
    expect(preview.changes.length).toBeGreaterThan(40);
    expect(preview.suggestedName).toBe("big-1");
    machineId = must(await createMachine(await desk(), site, "big-1", texts));
    expect(must(await previewImport(await desk(), machineId, texts)).changes).toEqual([]);
    expect(must(await previewImport(await desk(), null, texts)).sameSerial).toEqual([
      { id: machineId, name: "big-1" },
    ]);
    expect((await createMachine(await desk(), site, "big-1", [])).ok).toBe(false);
  });

  it("gets a sheet with every drive left alone and the site's answers", async () => {
    buildId = await createBuild(await desk(), machineId);
    const { build, nextFree } = (await buildView(await desk(), buildId))!;
    expect(build.number).toBe("B-0001");
    expect(build.sheet.storage).toMatchObject({
      target: null,
      leaveAlone: expect.arrayContaining(["SAMPLESAS0001", "SAMPLENVME0001"]),
    });
    expect(build.sheet.answers).toMatchObject({
      hostName: "big-1",
      domain: "marrowby.example",
      timeZone: "Europe/London",
    });
    expect([build.sheet.network.port, build.sheet.network.gateway, nextFree]).toEqual([
      "52:54:00:aa:00:01",
      "10.61.10.1",
      "10.61.10.3",
    ]);
  });

  it("cannot start with stops, and says which", async () => {
    must(await issueRevision(await desk(), buildId, await version()));
    const refused = await startRun(await desk(), buildId, await version());
    expect(!refused.ok && refused.problems[0]?.message).toMatch(/D1 Target missing/);
  });

  it("refuses a stale save, shows both versions, and changes nothing", async () => {
    const before = await version();
    await edit({ "network.address": "10.61.10.20" });
    const stale = await saveEdits(await desk("M. Arkle"), buildId, before, [
      { path: "network.address", before: "", after: "10.61.10.99" },
    ]);
    expect(stale).toMatchObject({ ok: false, stale: { by } });
    expect(!stale.ok && stale.stale?.view.build.sheet.network.address).toBe("10.61.10.20");
    expect((await buildView(await desk(), buildId))!.build.sheet.network.address).toBe("10.61.10.20");
  });

  it("keeps a history in which one change can be taken back, unless it was changed again", async () => {
    await edit({ "handOver.owner": "Nobody" });
    const [last] = await buildHistory(await desk(), buildId);
    expect(last).toMatchObject({ by, edits: [{ path: "handOver.owner", before: "", after: "Nobody" }] });
    expect((await undoSave(await desk(), buildId, last!.version)).ok).toBe(true);
    expect((await buildView(await desk(), buildId))!.build.sheet.handOver.owner).toBe("");
    await edit({ "handOver.owner": "Control room" });
    expect((await undoSave(await desk(), buildId, last!.version)).ok).toBe(false);
  });

  it("waives with a reason, but not what protects data", async () => {
    const image = must(
      await createImage(await desk(), {
        name: "Lowland 7.4",
        profile: "lowland-server",
        version: "7.4",
        architecture: "x86_64",
        sizeBytes: 2e9,
        bootModes: ["uefi"],
        loaderSigned: "signed",
      }),
    );
    await edit({
      "image.id": image,
      "storage.target": "SAMPLESATA0001",
      "storage.leaveAlone": (await buildView(await desk(), buildId))!.build.sheet.storage.leaveAlone.filter(
        (d) => d !== "SAMPLESATA0001",
      ),
      "answers.accounts": [{ name: "jpell", role: "administrator", logIn: "key" }],
    });
    const data = await waive(
      await desk(),
      buildId,
      await version(),
      "storage.holds-data",
      "it is only scratch",
    );
    expect(!data.ok && data.problems[0]?.message).toContain("protects data");
    const short = await waive(await desk(), buildId, await version(), "storage.single", "ok");
    expect(short.ok).toBe(false);
    expect(
      (
        await waive(
          await desk(),
          buildId,
          await version(),
          "storage.single",
          "scratch space, rebuilt in an hour",
        )
      ).ok,
    ).toBe(true);
    await edit({ "boot.mode": "uefi" });
    expect(
      await agreeToErase(await desk(), buildId, await version(), "SAMPLESATA0001", "TA0001"),
    ).toMatchObject({
      ok: true,
    });
  });

  it("runs to its end, is accepted against a second bundle, and gives its record", async () => {
    const { evaluation } = (await buildView(await desk(), buildId))!;
    expect(evaluation.stops).toEqual([]);
    must(await issueRevision(await desk(), buildId, await version()));
    const runId = must(await startRun(await desk(), buildId, await version()));
    expect((await startRun(await desk(), buildId, await version())).ok).toBe(false);
    for (let n = 0; ; n += 1) {
      const { state, plan } = (await runView(await desk(), runId))!;
      const step = plan.steps[state.current];
      if (!step) break;
      const body = answerTo(step);
      must(await command(await desk(), runId, `test-key-${n}`, body));
      must(await command(await desk(), runId, `test-key-${n}`, body));
    }
    const installed = bundleOf("big-1", {
      lsblk: captured("lsblk.json"),
      dmidecode: captured("dmidecode.txt"),
      "os-release": 'ID=lowland\nVERSION_ID="7.4"\nPRETTY_NAME="Lowland Server 7.4"',
      settings: "collector.settings=1\nhost.name=big-1\nfirmware.mode=uefi\ntime.zone=Europe/London",
    });
    must(await accept(await desk(), runId, "test-key-accept", [{ name: "after.txt", text: installed }]));
    const over = async () =>
      command(await desk(), runId, `over-${Math.random()}`, { kind: "handed over", to: "Control room" });
    const early = await over();
    expect(!early.ok && early.problems[0]?.message).toMatch(/Gateway \(not verified\)/);
    for (const line of (await runView(await desk(), runId))!.acceptance.filter(isOpen)) {
      const how = line.verdict === "not seen" ? "seen" : "taken as it is";
      const settled = { kind: "settled", line: line.id, how, words: "looked at on the console" };
      must(await command(await desk(), runId, `settle-${line.id}`, settled));
    }
    const { salt } = (await secretsView(await desk(), buildId))!;
    const [hash, toMark] = ["saltsaltsalt0001", salt].map((s) => cryptOf("plum-tango7-Oak", s));
    must(await sealSecret(await desk(), buildId, { opens: "jpell", hash: hash!, toMark: toMark! }));
    must(await over());
    expect(await hashesOf(await desk(), buildId)).toEqual(new Map());
    expect((await runView(await desk(), runId))!.log.at(-1)!.event).toMatchObject({
      ...{ kind: "note", text: "The stored hash of jpell was destroyed." },
    });
    const record = (await recordOf(await desk(), runId))!;
    expect(record).toMatchObject({ state: "handed over", revision: "B", handedTo: "Control room" });
    const line = (id: string) => record.acceptance?.lines.find((l) => l.id === id);
    expect(["system", "serial", "gateway", "untouched-SAMPLESAS0001"].map((id) => line(id)?.verdict)).toEqual(
      ["as planned", "as planned", "not seen", "as planned"],
    );
    expect(line("gateway")?.settled).toMatchObject({ how: "seen", by, words: "looked at on the console" });
    expect(record.saved).toMatchObject([{ where: "file server, folder big-1", by }]);
    expect(await registerLine(await desk(), "SAMPLESATA0001")).toMatchObject({
      entry: { wipes: [{ method: "installed over", by, remark: "Lowland 7.4, B-0001" }] },
    });
    const home = (await machineView(await desk(), machineId))!;
    expect(home.machine.document.facts.system).toMatchObject({
      osName: "Lowland Server 7.4",
      hostName: "big-1",
    });
    expect(home.imports[0]).toMatchObject({ by, names: ["after.txt"] });
  });

  it("shows on the home page and is found", async () => {
    expect((await todayView(await desk())).running).toEqual([]);
    expect((await find(await desk(), "sample0001", null)).found.map((f) => f.kind)).toEqual(["machine"]);
    expect((await find(await desk(), "d1", buildId)).found[0]?.kind).toBe("finding");
    const { machine } = (await machineView(await desk(), machineId))!;
    const { found } = await find(await desk(), `${machine.name} mac`, null);
    expect(found.map((f) => f.detail)).toEqual(machine.document.facts.ports.map((p) => p.mac));
    expect(found[0]?.title).toMatch(`${machine.name}: MAC of `);
  });
});

describe("the collector's way back", () => {
  it("takes a bundle once for a code, and it waits to be looked at", async () => {
    const site = must(await createSite(await desk(), "Thornhope"));
    const id = must(await createMachine(await desk(), site, "tho-a", []));
    const { code } = must(await issueCode(await desk(), id));
    expect(must(await receiveBundle(await desk(), code, bundle))).toBe(id);
    expect((await receiveBundle(await desk(), code, bundle)).ok).toBe(false);
    expect((await receiveBundle(await desk(), "aaaaa-bbbbb-ccccc-ddddd", bundle)).ok).toBe(false);
    const view = (await machineView(await desk(), id))!;
    expect(view.waiting).toHaveLength(1);
    expect(view.machine.document.facts.drives).toEqual([]);
    must(await takeOver(await desk(), id, view.machine.version, texts));
    expect((await takeOver(await desk(), id, view.machine.version, texts)).ok).toBe(false);
    expect((await machineView(await desk(), id))!.machine.document.facts.drives).toHaveLength(11);
  });
});

describe("the database", () => {
  it("refuses a change of the run log", async () => {
    const client = createClient({ url });
    await expect(client.execute("UPDATE run_events SET at = ''")).rejects.toThrow("append-only");
    await expect(client.execute("DELETE FROM run_events")).rejects.toThrow("append-only");
    await client.execute(
      "INSERT INTO readings (machine_id, at, by, kind, what, state, value, source) SELECT id, 'x', 'x', 'power', 'x', 'idle', 1, 'typed' FROM machines LIMIT 1",
    );
    await expect(client.execute("UPDATE readings SET value = 2")).rejects.toThrow("never changed");
    await client.execute("DELETE FROM readings WHERE at = 'x'");
    client.close();
  });

  it("carries twenty writes at once without one lost", async () => {
    const { write } = await database();
    const before = (await exportAll()).sites.length;
    await Promise.all(Array.from({ length: 20 }, async (_, i) => createSite(await desk(), `Site ${i}`)));
    expect((await exportAll()).sites.length).toBe(before + 20);
    await expect(write(async () => Promise.reject(new Error("planned")))).rejects.toThrow("planned");
    expect((await createSite(await desk(), "after a failure")).ok).toBe(true);
  });

  it("is not opened when it is newer than this program", async () => {
    const file = `file:${folder}/newer.db`;
    const first = await openDatabase(file, undefined, "src/db/migrations");
    await first.db.run("INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('x', 9999999999999)");
    await first.close();
    await expect(openDatabase(file, undefined, "src/db/migrations")).rejects.toThrow(DatabaseTooNewError);
  });
});

describe("the export", () => {
  it("reads back into an empty installation only", async () => {
    const file = await exportAll();
    expect(file.runs).toHaveLength(1);
    const refused = await importAll(await desk(), JSON.stringify(file), { rebase: false });
    expect(!refused.ok && refused.problems[0]?.message).toContain("This installation already has data");
  });

  it("that ships as the demo is valid", async () => {
    const { parseExport } = await import("@/core/record");
    expect(parseExport(readFileSync("demo/marrowby-water.json", "utf8"))).toMatchObject({ ok: true });
  });
});

it("imports a profile from YAML and replaces it by its version", async () => {
  const yaml = readFileSync("profiles/cairn-hypervisor-9.yaml", "utf8").replace(
    "name: Cairn Hypervisor",
    "name: Cairn Upland",
  );
  expect(must(await importProfile(await desk(), yaml))).toMatchObject({
    key: "cairn-hypervisor",
    version: "9",
  });
  expect(
    (await listProfiles(await desk())).filter((p) => p.key === "cairn-hypervisor").map((p) => p.profile.name),
  ).toEqual(["Cairn Upland", "Cairn Hypervisor"]);
  expect((await importProfile(await desk(), "name: x")).ok).toBe(false);
});
