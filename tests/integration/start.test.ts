import { spawnSync } from "node:child_process";
import { expect, it } from "vitest";

const start = (script: string, environment: Record<string, string>) => {
  const { status, stderr } = spawnSync(process.execPath, [`scripts/${script}.mjs`], {
    env: { ...process.env, ...environment },
    encoding: "utf8",
    timeout: 120_000,
  });
  return { status, stderr };
};

it.each([
  ["", "PORT is set but empty"],
  ["http", 'PORT is "http"'],
  ["70000", 'PORT is "70000"'],
  ["0", 'PORT is "0"'],
])("npm start and the demo with PORT=%s say what is wrong with it, and begin nothing", (PORT, words) => {
  for (const script of ["start", "demo"]) {
    const { status, stderr } = start(script, { PORT });
    expect([status, stderr]).toEqual([
      1,
      expect.stringContaining(`${words}; set it to a number from 1 to 65535`),
    ]);
  }
});
