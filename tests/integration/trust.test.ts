import { readFileSync } from "node:fs";
import { createClient } from "@libsql/client";
import { beforeAll, describe, expect, it, vi } from "vitest";
import { buildView, createBuild, issueRevision } from "@/server/builds";
import { agreeToErase, saveEdits, undoSave } from "@/server/sheet-acts";
import { importAll } from "@/server/exports";
import { machineView } from "@/server/machines";
import { accept, command, runView, startRun } from "@/server/runs";
import { handsCalls, todayView } from "@/server/today";
import { ownDatabase } from "../support/database";
import { bundleOf, capture } from "../support/formats";
import { exportAll } from "../support/whole";
import { desk } from "../support/desk";

const { url } = ownDatabase();
const by = "J. Pell";
const build = async (id: string) => (await buildView(await desk(), id))!;
const save = async (id: string, changes: Record<string, unknown>) => {
  const { version } = (await build(id)).build;
  const edits = Object.entries(changes).map(([path, after]) => ({ path, before: null, after }));
  return saveEdits(await desk(), id, version, edits);
};

beforeAll(async () => {
  const answer = await importAll(await desk(), readFileSync("demo/marrowby-water.json", "utf8"), {
    rebase: true,
  });
  expect(answer.ok).toBe(true);
});

describe("F2: one build, one run", () => {
  it("ten starts in the same moment make one run", async () => {
    const { evaluation, build: sheet } = await build("b-wrk-st1");
    expect(evaluation.stops).toEqual([]);
    await issueRevision(await desk(), "b-wrk-st1", sheet.version);
    const { version } = (await build("b-wrk-st1")).build;
    const starts = await Promise.all(
      Array.from({ length: 10 }, async () => startRun(await desk(), "b-wrk-st1", version)),
    );
    expect(starts.filter((s) => s.ok)).toHaveLength(1);
    const refused = starts.find((s) => !s.ok);
    expect(refused && !refused.ok && refused.problems[0]?.message).toContain("This build is already running");
  });

  it("the database itself holds no second open run of a build", async () => {
    const client = createClient({ url });
    await expect(
      client.execute(
        "INSERT INTO runs (id, build_id, started_at, plan) SELECT 'r-second', build_id, started_at, plan FROM runs WHERE ended_at IS NULL LIMIT 1",
      ),
    ).rejects.toThrow(/UNIQUE/);
    client.close();
  });
});

describe("F3: the server signs", () => {
  it("takes neither a name nor a consent nor a waiver from an edit", async () => {
    const { build: sheet } = await build("b-wrk-hv2");
    const forged = [
      { drive: "BM4471907F58", typed: "907F58", holds: "x", by: "M. Arkle", at: "2020-01-01T00:00:00Z" },
    ];
    const consent = await save("b-wrk-hv2", { "storage.erase": forged });
    expect(!consent.ok && consent.problems[0]?.message).toContain(
      "Erasing a drive is confirmed by identifying the drive",
    );
    const waiver = [
      { key: "network.in-pool", reason: "because I say so", by: "M. Arkle", at: "2020-01-01T00:00:00Z" },
    ];
    const waived = await save("b-wrk-hv2", { waivers: waiver });
    expect(!waived.ok && waived.problems[0]?.message).toContain("with a reason");
    expect((await build("b-wrk-hv2")).build.version).toBe(sheet.version);
  });

  it("writes its own name and time under a consent, and what was typed", async () => {
    const { version } = (await build("b-wrk-hv2")).build;
    const wrong = await agreeToErase(await desk(), "b-wrk-hv2", version, "BM4471907F58", "907F31");
    expect(!wrong.ok && wrong.problems[0]?.message).toContain("This does not identify boot module");
    const agreed = await agreeToErase(await desk(), "b-wrk-hv2", version, "BM4471907F58", "bm4471907f58");
    if (!agreed.ok) throw new Error(agreed.problems[0]?.message);
    const [consent] = agreed.view.build.sheet.storage.erase;
    expect(consent).toMatchObject({ by, typed: "bm4471907f58", holds: 'vfat "BOOT", vfat "CAIRN6"' });
    expect(Math.abs(Date.parse(consent!.at) - Date.now())).toBeLessThan(60_000);
  });

  it("signs a command with the name that the server knows", async () => {
    const forged = { kind: "note", step: null, text: "hello", by: "M. Arkle" };
    const noted = await command(await desk(), "r-wrk-hv1", "trust-note-1", forged);
    expect(noted.ok && noted.value.log.at(-1)?.event).toMatchObject({ text: "hello", by });
  });
});

it("F4: a sheet that an older Derrick wrote says the same on Today and on itself", async () => {
  const id = await createBuild(await desk(), "m-wrk-hv2");
  const client = createClient({ url });
  const old = {
    schemaVersion: 1,
    subject: "written long ago",
    machine: { id: "m-wrk-hv2" },
    image: { id: "i-cairn-9", way: "virtual media" },
    storage: { target: "BM4471907F58", leaveAlone: ["R5D9A00515"], free: [], erase: null },
    network: { school: "fixed", address: "10.61.10.122", segment: "works-mgmt" },
  };
  await client.execute({ sql: "UPDATE builds SET sheet = ? WHERE id = ?", args: [JSON.stringify(old), id] });
  client.close();
  const { evaluation } = await build(id);
  const onToday = (await todayView(await desk())).preparing.find((p) => p.id === id);
  expect(evaluation.stops.length).toBeGreaterThan(2);
  expect(onToday?.stops).toBe(evaluation.stops.length);
  expect((await exportAll()).builds.find((b) => b.id === id)?.sheet.storage.erase).toEqual([]);
});

it("F5: taking back a change of machine gives the target drive back, and everything that came with it", async () => {
  const before = (await build("b-tho-a")).build;
  const moved = await save("b-tho-a", { "machine.id": "m-cl-ws1" });
  if (!moved.ok) throw new Error(moved.problems[0]?.message);
  expect(moved.view.build.sheet.storage.target).toBeNull();
  const back = await undoSave(await desk(), "b-tho-a", moved.view.build.version);
  expect(back.ok && back.view.build.sheet).toEqual(before.sheet);
  const twice = await undoSave(await desk(), "b-tho-a", moved.view.build.version);
  expect(!twice.ok && twice.problems[0]?.message).toContain("Changed again since then");
});

it("a bundle of another chassis stops the run, and brings nothing home", async () => {
  const before = (await machineView(await desk(), "m-wrk-hv1"))!.machine;
  const other = bundleOf("big-1", { dmidecode: capture("server-uefi-2socket", "dmidecode.txt") });
  const answer = await accept(await desk(), "r-wrk-hv1", "trust-other-1", [
    { name: "other.txt", text: other },
  ]);
  expect(answer.ok && answer.value.state).toMatchObject({ status: "stopped", acceptance: null });
  expect((await machineView(await desk(), "m-wrk-hv1"))!.machine).toEqual(before);
  await command(await desk(), "r-wrk-hv1", "trust-resume-1", {
    kind: "resumed",
    reason: "it was the wrong file",
  });
  expect((await runView(await desk(), "r-wrk-hv1"))!.state.status).toBe("running");
});

it("calls for hands when a wait has come to its end, and not before", async () => {
  const call = async () => {
    const { runs, now } = await handsCalls(await desk());
    const own = runs.find((r) => r.id === "r-wrk-hv1")!;
    return { waits: own.waits, due: own.hands!.at <= now };
  };
  expect(await call()).toEqual({ waits: true, due: false });
  vi.useFakeTimers({ toFake: ["Date"], now: Date.now() + 3 * 3600_000 });
  expect(await call()).toEqual({ waits: true, due: true });
  vi.useRealTimers();
});
