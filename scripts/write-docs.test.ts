import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { profileJsonSchema } from "@/core/image";
import { renderLadder } from "./ladder-page";
import { renderChecks } from "./write-docs";

it("docs say what the code says", () => {
  expect(readFileSync("docs/checks.md", "utf8")).toBe(renderChecks());
  expect(readFileSync("docs/pool-ladder.md", "utf8")).toBe(renderLadder());
  expect(JSON.parse(readFileSync("docs/profile.schema.json", "utf8"))).toEqual(profileJsonSchema());
});
