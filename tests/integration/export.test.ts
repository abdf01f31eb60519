import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { parseExport, rebaseExport } from "@/core/record";
import { importAll } from "@/server/exports";
import { ownDatabase } from "../support/database";
import { exportAll } from "../support/whole";
import { desk } from "../support/desk";

ownDatabase();
const text = readFileSync("demo/marrowby-water.json", "utf8");
const demo = () => {
  const read = parseExport(text);
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return read.value;
};
const said = async (file: string): Promise<string> => {
  const answer = await importAll(await desk(), file, { rebase: false });
  return answer.ok ? "" : answer.problems.map((p) => p.message).join("; ");
};

it("refuses a file that is none, and one whose profile is broken, and keeps nothing of them", async () => {
  expect(await said("<html>")).not.toBe("");
  expect(await said(text.slice(0, text.length / 2))).not.toBe("");
  expect(await said(JSON.stringify({ ...demo(), version: 2 }))).not.toBe("");
  const broken = { ...demo(), profiles: [{ key: "x", version: "1", yaml: "name: only a name" }] };
  expect(await said(JSON.stringify(broken))).toContain("profile x 1");
  const { machines, builds, drives, profiles } = await exportAll();
  expect([machines, builds, drives, profiles]).toEqual([[], [], [], []]);
});

it("gives back exactly what it was given, and is taken once", async () => {
  expect(await said(text)).toBe("");
  const out = await exportAll();
  const byId = <T extends object>(rows: T[]): T[] =>
    rows.toSorted((a, b) => JSON.stringify(a).localeCompare(JSON.stringify(b)));
  for (const [key, rows] of Object.entries(demo())) {
    if (key === "exportedAt") continue;
    const again = (out as Record<string, unknown>)[key];
    expect(Array.isArray(rows) ? byId(again as object[]) : again, key).toEqual(
      Array.isArray(rows) ? byId(rows as object[]) : rows,
    );
  }
  expect(await said(text)).toContain("This installation already has data");
});

it("is moved in time as a whole: distances stay, identities stay", () => {
  const file = demo();
  const later = rebaseExport(file, "2031-03-01T08:00:00.000Z");
  const shift = Date.parse("2031-03-01T08:00:00.000Z") - Date.parse(file.exportedAt);
  const log = (f: typeof file) => f.runs.flatMap((r) => r.log.map((l) => Date.parse(l.at)));
  expect(log(later)).toEqual(log(file).map((at) => at + shift));
  expect(later.machines.map((m) => m.id)).toEqual(file.machines.map((m) => m.id));
  expect(later.drives.map((d) => d.key)).toEqual(file.drives.map((d) => d.key));
});
