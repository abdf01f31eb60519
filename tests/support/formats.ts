import { readdirSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";

const root = fileURLToPath(new URL("../fixtures/formats/", import.meta.url));

/** One captured output of a real tool, by folder and file name. */
export const capture = (machine: string, file: string): string =>
  readFileSync(`${root}${machine}/${file}`, "utf8");

/** All captured outputs of one machine, as a person would drop them. */
export const captures = (
  machine: string,
  without: RegExp = /blank|default/,
): { name: string; text: string }[] =>
  readdirSync(root + machine)
    .filter((name) => !without.test(name))
    .map((name) => ({ name, text: capture(machine, name) }));

/** A collector bundle made of given sections, in the grammar that the collector script writes. */
export function bundleOf(
  host: string,
  sections: Record<string, string>,
  taken = "2026-11-20T10:00:00Z",
): string {
  const body = Object.entries(sections).flatMap(([tool, text]) => {
    const lines = text.replace(/\n$/, "").split("\n");
    return [`begin ${tool}`, ...lines.map((l) => `| ${l}`), `end ${tool} lines=${lines.length} exit=0`];
  });
  return ["derrick-bundle 1", `host ${host}`, `taken ${taken}`, "user 0", ...body, "done", ""].join("\n");
}
