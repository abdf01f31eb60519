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
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
