import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import {
  checksumProblem,
  imageSchema,
  parseProfileYaml,
  profileJsonSchema,
  renderProfileYaml,
  verificationOf,
} from "..";

const shipped = readdirSync("profiles").map((name) => ({
  name,
  text: readFileSync(`profiles/${name}`, "utf8"),
}));
const text = shipped.find((p) => p.name.startsWith("lowland"))!.text;

describe("profiles", () => {
  it.each(shipped)("$name is valid and survives a round trip", (file) => {
    const read = parseProfileYaml(file.text);
    expect(read).toMatchObject({ ok: true });
    if (read.ok) expect(parseProfileYaml(renderProfileYaml(read.value))).toEqual(read);
  });

  it.each([
    ["installer: graphical", "installer: holographic", /^installer: /],
    ["evaluationDays: null", "evaluationDays: -3", /^evaluationDays: /],
    ["- id: language", "- idd: language", /^screens\.1/],
    ["{target.size}", "{target.colour}", /\{target\.colour\} is not a value of the build/],
    ["likely: 780", "likely: 7800", /the maximum is below the expected time/],
    ["destroys: true", "destroys: false", /so no guard would precede the erasure of the disk/],
    ["drive: chooses", "drive: none", /so that a guard precedes it/],
    [
      "    drive: writes\n    reads: [version, size]\n    destroys: true",
      "    destroys: true",
      /so that a guard precedes it/,
    ],
    [
      "    drive: writes\n    reads: [version, size]\n    destroys: true",
      "    drive: chooses\n    reads: [size]",
      /a value to verify must be marked/,
    ],
    ["- id: begin", "- id: accounts", /two screens have the id "accounts"/],
    ["least: 2147483648", "least: 9947483648", /recommended is less than the minimum/],
  ])("%s → %s is refused with field and line", (from, to, message) => {
    const changed = text.replace(from, to);
    const read = parseProfileYaml(changed);
    if (read.ok) throw new Error("was accepted");
    expect(read.problems[0]?.message).toMatch(message);
    expect(read.problems[0]?.line).toBeGreaterThan(0);
  });

  it("of the first schema get guards where their screens work on drives, and no serial on a screen", () => {
    const old = text
      .replace("schema: 2", "schema: 1")
      .replace(/^ *drive: .*\n/gm, "")
      .replace("{target.size}", "{target.tail}");
    const read = parseProfileYaml(old);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const marked = (screens: { id: string; drive: string }[]) =>
      screens.filter((s) => s.drive !== "none").map((s) => `${s.id} ${s.drive}`);
    expect(marked(read.value.screens)).toEqual(["destination chooses", "begin writes"]);
    expect(marked(read.value.upgrades[0]!.screens)).toEqual(["transform writes"]);
    expect(JSON.stringify(read.value)).not.toContain("target.tail");
    expect(parseProfileYaml("schema: 1\nx: &a [*a]\nscreens: [1, {}]").ok).toBe(false);
  });

  it("points at the line of the wrong value", () => {
    const read = parseProfileYaml(text.replace("installer: graphical", "installer: holographic"));
    const wanted = text.split("\n").findIndex((l) => l.startsWith("installer:")) + 1;
    expect(!read.ok && read.problems[0]).toMatchObject({ line: wanted, column: 12 });
  });

  it.each(["", "a: [", "- 1", "\t", "&a [*a, *a]", "x: &a [1]\n".repeat(3)])(
    "refuses %j without throwing",
    (bad) => expect(parseProfileYaml(bad).ok).toBe(false),
  );

  it("publishes a JSON Schema that names its required fields", () => {
    expect(profileJsonSchema()).toMatchObject({
      type: "object",
      required: expect.arrayContaining(["profile", "screens"]),
    });
  });
});

describe("checksums", () => {
  const image = imageSchema.parse({
    schemaVersion: 1,
    name: "i",
    profile: "lowland-server",
    version: "7.4",
    architecture: "x86_64",
    sizeBytes: 5,
    bootModes: ["uefi"],
  });
  const sum = (value: string) => ({ algorithm: "sha256" as const, value });
  const computed = (value: string) => ({ checksum: sum(value), at: "2026-11-24T08:00:00Z", by: "J. Pell" });

  it("has the digits of its algorithm", () => {
    expect([
      checksumProblem(sum("a".repeat(64))),
      checksumProblem(sum("abc")),
      checksumProblem(sum("x")),
    ]).toEqual([null, "SHA-256 has 64 digits; this has 3", "a checksum has hexadecimal digits only"]);
  });

  it.each([
    [null, null, "not published"],
    [sum("aa"), null, "not computed"],
    [sum("aa"), computed(" AA "), "matches"],
    [sum("aa"), computed("ab"), "differs"],
    [{ algorithm: "md5" as const, value: "aa" }, computed("aa"), "other algorithm"],
  ])("published %j against computed %j: %s", (published, made, verdict) =>
    expect(verificationOf({ ...image, published, computed: made })).toBe(verdict),
  );
});
