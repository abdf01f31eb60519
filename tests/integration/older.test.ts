import { readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { beforeAll, expect, it } from "vitest";
import { buildView, listBuilds } from "@/server/builds";
import { importAll } from "@/server/exports";
import { machineView } from "@/server/machines";
import { command, recordOf, runView } from "@/server/runs";
import { todayView } from "@/server/today";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

ownDatabase();

// The demo as it was exported before targets could be sets, before waivers kept what they were given for, and when
// "nobody has read it" and "nothing stands there" were the same empty list.
beforeAll(async () => {
  const text = gunzipSync(readFileSync("tests/fixtures/older/export-1.json.gz")).toString("utf8");
  expect(await importAll(await desk(), text, { rebase: true })).toEqual({
    ok: true,
    value: { builds: 6, machines: 8, pictures: 0 },
  });
});

it("opens every sheet, and Today says of each what it says itself", async () => {
  const { preparing } = await todayView(await desk());
  expect(preparing).toHaveLength(3);
  for (const p of preparing)
    expect((await buildView(await desk(), p.id))!.evaluation.stops.length, p.number).toBe(p.stops);
  expect(await listBuilds(await desk())).toHaveLength(6);
});

it("ends a consent and a waiver that do not say for what they were given, and says so", async () => {
  const { evaluation } = (await buildView(await desk(), "b-wrk-hv1"))!;
  const consent = evaluation.findings.find((f) => f.code === "storage.holds-data");
  expect([consent?.severity, consent?.says]).toEqual([
    "stop",
    expect.stringContaining("its scope was not recorded"),
  ]);
  const waived = evaluation.findings.find((f) => f.code === "storage.removable");
  expect(waived).toMatchObject({ waiver: null, ended: { by: "M. Arkle" } });
});

it("F1: names the sheet's drive in the record of a build that wrote a stick, and not the stick", async () => {
  const { drives, acceptance } = (await recordOf(await desk(), "r-tho-b"))!;
  expect(drives?.target).toBe("Sallow 512 …129944, 512 GB (477 GiB)");
  expect(acceptance?.lines.find((l) => l.id === "target")?.verdict).toBe("as planned");
});

it("goes on with a run that was begun then, its guards as they were", async () => {
  const before = (await runView(await desk(), "r-wrk-hv1"))!;
  expect(before.plan.steps[before.state.current]?.id).toBe("screen-writing");
  const guard = before.plan.steps.find((s) => s.kind === "name drive");
  expect(guard?.drives).toEqual([
    { id: "", proof: "907F31", name: "boot module, BOOTCARD-A, 64.0 GB (59.6 GiB)", holds: "" },
  ]);
  const back = { kind: "differs", step: "screen-writing", seen: "it stands still", decision: "go back" };
  expect((await command(await desk(), "r-wrk-hv1", "older-key-1", back)).ok).toBe(true);
});

it("tells drives that nobody had read from those that were read and empty", async () => {
  const contents = async (id: string) =>
    (await machineView(await desk(), id))!.machine.document.facts.drives.map(
      (d) => d.contents?.length ?? null,
    );
  expect(await contents("m-tho-b")).toEqual([0]);
  expect(await contents("m-wrk-hv1")).toEqual([2, 1, null, null, null, null]);
});
