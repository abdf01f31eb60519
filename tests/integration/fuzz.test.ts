import { expect, it } from "vitest";
import { IMPORTERS, readTexts } from "@/core/machine";
import { firstFault, SAMPLES } from "../support/fuzz";

const CASES = 10_000;

it("there is a short output of every tool, and it is read", () => {
  const plain = (tool = "") => tool.replace(/[^a-z]+/g, "-");
  const read = [...SAMPLES].map(([name, text]) => readTexts([{ name, text }]).readings[0]?.tool);
  expect(read.map(plain)).toEqual([...SAMPLES.keys()]);
  expect(new Set(read)).toEqual(new Set(IMPORTERS.map((i) => i.tool)));
});

it.each([...SAMPLES.keys()])("ten thousand changed outputs of %s are read or refused, in words", (tool) =>
  expect(firstFault(tool, CASES, 14)).toBeNull(),
);
