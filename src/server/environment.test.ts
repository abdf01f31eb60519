import { afterEach, expect, it, vi } from "vitest";
import { readEnvironment } from "./environment";

afterEach(() => vi.unstubAllEnvs());

const origin = (value: string): string => {
  vi.stubEnv("DERRICK_ORIGIN", value);
  return readEnvironment().DERRICK_ORIGIN;
};

it("takes an address without a path, and keeps nothing but the origin", () => {
  expect(origin("https://Derrick.Marrowby.example/")).toBe("https://derrick.marrowby.example");
  expect(origin("http://10.61.10.5:4360")).toBe("http://10.61.10.5:4360");
  expect(origin("http://[fd00:61::5]:4360")).toBe("http://[fd00:61::5]:4360");
});

// The collector's line stands in a shell, between single quotes.
it.each([
  "http://a'b.example",
  "http://a.example/'; reboot #",
  "http://$(reboot).example",
  "javascript:alert(1)",
  "a.example",
  "",
])("refuses %j and names the variable", (value) =>
  expect(() => origin(value)).toThrow("DERRICK_ORIGIN: must be an address without a path"),
);
