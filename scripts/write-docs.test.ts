import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { profileJsonSchema } from "@/core/image";
import { renderChecks } from "./write-docs";

it("docs say what the code says", () => {
  expect(readFileSync("docs/checks.md", "utf8")).toBe(renderChecks());
  expect(JSON.parse(readFileSync("docs/profile.schema.json", "utf8"))).toEqual(profileJsonSchema());
});
