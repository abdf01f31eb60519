import { expect, it } from "vitest";
import { KEY_GROUPS } from "./keys";

it("every key is named by what is printed on it, and says what it does", () => {
  const all = KEY_GROUPS.flatMap(({ title, keys }) => keys.map(([key, does]) => ({ title, key, does })));
  for (const { key, does } of all) {
    expect(key).toMatch(/^(arrows|Enter|Esc|[A-Z\d](( to | {2})[A-Z\d])?|Shift \S+( \S+)?|\W( {1,2}\W)?)$/);
    expect(does).toMatch(/\w{3}/);
  }
  const twice = all.filter((a) => all.some((b) => a !== b && a.title === b.title && a.key === b.key));
  expect(twice).toEqual([]);
});
