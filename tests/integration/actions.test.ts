import { readdirSync } from "node:fs";
import { expect, it, vi } from "vitest";
import { ownDatabase } from "../support/database";

vi.mock("next/cache", () => ({ revalidatePath: () => undefined }));
vi.mock("next/headers", () => ({ cookies: async () => ({ get: () => ({ value: "J. Pell" }) }) }));
vi.mock("next/navigation", () => ({ redirect: (to: string) => to }));
ownDatabase();

type Action = (...args: unknown[]) => Promise<unknown>;
/** Every file of actions in the folders of pages. */
const files = readdirSync("src/app", { recursive: true, encoding: "utf8" }).filter((f) =>
  f.endsWith("actions.ts"),
);
const modules = Object.fromEntries(
  await Promise.all(
    files.map(
      async (f) =>
        [f, (await import(/* @vite-ignore */ `../../src/app/${f}`)) as Record<string, unknown>] as const,
    ),
  ),
);
const actions = Object.entries(modules).flatMap(([area, exports]) =>
  Object.entries(exports).map(([name, action]) => [`${area} ${name}`, action as unknown as Action] as const),
);
const WRONG: unknown[][] = [
  [],
  [null],
  [{ toString: "x" }, {}, {}],
  ["b-1", "1", "no edits"],
  ["b-1", 1, [{ path: 5 }]],
  ["b-1", 1, { __proto__: null, kind: [] }, 7, 8],
  ["x".repeat(10_000), -1, null, null],
];

it("F8: there are as many doors as it takes, and each of them is tried", () => {
  expect(files.length).toBeGreaterThanOrEqual(6);
  expect(actions.length).toBeGreaterThanOrEqual(45);
});

it.each(actions)(
  "F8: %s answers arguments of a wrong shape in words, and does not throw",
  async (_, action) => {
    for (const args of WRONG) {
      const answer = await action(...args);
      const refused = answer as { ok?: boolean; problems?: { message: string }[] } | string | undefined;
      // Two doors answer nothing, and one goes to another page; the others refuse.
      if (refused === undefined || typeof refused === "string") continue;
      expect(refused.ok, JSON.stringify(args).slice(0, 80)).toBe(false);
      expect(refused.problems?.[0]?.message.length).toBeGreaterThan(10);
    }
  },
);
