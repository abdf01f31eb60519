import { procedureSchema } from "@/core/procedure";
import { readFileSync } from "node:fs";
import fc from "fast-check";
import Papa from "papaparse";
import { expect, it } from "vitest";
import { isBag } from "@/core/document";
import { writeCsv } from "@/core/machine";
import { makeRecord, recordSchema, renderRecordMarkdown } from "@/core/record";
import { type LoggedEvent } from "@/core/run";

// What people and tools have said, in what is read by others: the record as Markdown, and a list as CSV.

const LINE = "injected-line";
interface Demo {
  runs: { id: string; plan: unknown; log: LoggedEvent[] }[];
}
const { runs } = JSON.parse(readFileSync("demo/marrowby-water.json", "utf8")) as Demo;
const run = runs.find(({ id }) => id === "r-tho-b")!;
const record = makeRecord(procedureSchema.parse(run.plan), run.log);

/** The same with each text below it changed in its turn. */
function* changed(
  value: unknown,
  change: (text: string) => string,
): Generator<[path: string, value: unknown]> {
  if (typeof value === "string") return yield ["", change(value)];
  const entries = Array.isArray(value) ? value.entries() : isBag(value) ? Object.entries(value) : [];
  for (const [key, inner] of entries)
    for (const [path, next] of changed(inner, change)) {
      const copy = Array.isArray(value) ? [...(value as unknown[])] : { ...(value as object) };
      (copy as Record<string, unknown>)[key] = next;
      yield [`${key}.${path}`, copy];
    }
}

it("a record as Markdown has no line, heading or cell of what somebody has typed", () => {
  const sound = renderRecordMarkdown(record);
  const shape = (text: string): number[] => text.split("\n").map((l) => l.match(/(?<!\\)\|/g)?.length ?? 0);
  let kept = 0;
  for (const hostile of [
    `\n${LINE}`,
    `a\r\n# ${LINE}`,
    `| ${LINE} |`,
    `\u2028${LINE}`,
    `<b>${LINE}`,
    `](${LINE})`,
  ])
    for (const [path, next] of changed(record, (text) => `${text}x${hostile}`)) {
      // A record of a state or a time that there is not is none.
      const read = recordSchema.safeParse(next);
      if (!read.success || /(\bat|At|timeZone)\.$/.test(path)) continue;
      const text = renderRecordMarkdown(read.data);
      kept += 1;
      expect([path, shape(text).filter((n) => n > 0)]).toEqual([path, shape(sound).filter((n) => n > 0)]);
      expect([path, /^\s*(#+ )?injected-line|[^\\]<b>|[^\\]\]\(/m.test(text)]).toEqual([path, false]);
    }
  expect(kept).toBeGreaterThan(300);
});

it("a list as CSV reads back cell by cell, whatever stands in it", () => {
  const cell = fc.string({ unit: "binary", maxLength: 20 }).map((text) => text.replaceAll("\0", ""));
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 5 }), (rows) => {
      const text = writeCsv(["name", "notes"], rows);
      const read = Papa.parse<string[]>(text.trimEnd(), { newline: "\r\n" }).data;
      expect(read).toHaveLength(rows.length + 1);
      expect(read.every((r) => r.length === 2)).toBe(true);
      // No spreadsheet takes a cell for a formula.
      for (const one of read.flat()) expect(one).not.toMatch(/^[=+@\t\r]|^-/);
    }),
  );
});
