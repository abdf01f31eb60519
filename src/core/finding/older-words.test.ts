import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { inWordsOfToday } from "./older-words";

const ROWS = readFileSync("tests/fixtures/older/waiver-words.tsv", "utf8").trimEnd().split("\n");

it("knows what an earlier Derrick called each thing that a waiver is given for", () => {
  expect(ROWS.length).toBeGreaterThan(150);
  const lost = ROWS.map((row) => row.split("\t")).filter(
    ([, old = "", now = ""]) => inWordsOfToday(old) !== inWordsOfToday(now),
  );
  expect(lost).toEqual([]);
});

it("leaves what is told by its value alone: another value ends the waiver still", () => {
  expect(inWordsOfToday("role: storage | made for: hypervisor")).toBe(
    "role: storage | suitable for: hypervisor",
  );
  expect(inWordsOfToday("on the drive: ext4")).not.toBe(inWordsOfToday("on the drive: xfs"));
});
