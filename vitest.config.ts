import { availableParallelism } from "node:os";
import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: {
    alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) },
  },
  test: {
    include: [
      "src/**/*.test.{ts,tsx}",
      "tests/integration/**/*.test.ts",
      "demo/**/*.test.ts",
      "scripts/**/*.test.ts",
      "tests/truth/**/*.test.ts",
    ],
    // They take both processors, and others beside them wait too long: npm test runs each alone (npm run netboot, npm run real).
    exclude: [
      ...(process.env["DERRICK_EMULATED"] ? [] : ["tests/integration/emulated-pc.test.ts"]),
      ...(process.env["DERRICK_REAL"] ? [] : ["tests/integration/real-installer.test.ts"]),
    ],
    // Long: programs that end in a second take a minute on a machine that has much else to do.
    // As many as there are processors; by itself it leaves one to watch for changes.
    maxWorkers: availableParallelism(),
    testTimeout: 240_000,
    hookTimeout: 240_000,
  },
});
