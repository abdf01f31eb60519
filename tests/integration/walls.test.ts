import { existsSync, readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";

const read = (path: string): string => readFileSync(path, "utf8");
const folders = (path: string): string[] =>
  readdirSync(path, { withFileTypes: true }).flatMap((e) => (e.isDirectory() ? [e.name] : []));

describe("what a reader is told of the rooms", () => {
  const architecture = read("docs/architecture.md");
  it.each(folders("src/core"))("core/%s stands in docs/architecture.md, and has a README", (domain) => {
    expect(architecture).toContain(`\`${domain}\``);
    expect(existsSync(`src/core/${domain}/README.md`)).toBe(true);
  });

  it.each(["server", "db", "ui"])("the README of src/%s names all that is in it", (layer) => {
    const told = read(`src/${layer}/README.md`);
    const names = readdirSync(`src/${layer}`).filter((n) => n !== "README.md" && !n.includes(".test."));
    expect(names.filter((n) => !told.includes(n))).toEqual([]);
  });
});
