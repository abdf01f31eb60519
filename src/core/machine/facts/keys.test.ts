import { expect, it } from "vitest";
import { KEY_READINGS, keysRead } from "./keys";

it.each<[string, string, object | null]>([
  ["boot-menu key", "F11, 12 s", { bootMenu: "F11", seconds: 12 }],
  ["Boot menu key", "F11 after 9 seconds", { bootMenu: "F11", seconds: 9 }],
  ["set-up key", "Del", { setup: "Del" }],
  ["setup key", "Ctrl+Alt+S 30s", { setup: "Ctrl+Alt+S", seconds: 30 }],
  ["network-boot key", " F12 ", { network: "F12" }],
  ["boot-menu key", "0 s", { bootMenu: "0 s" }],
  ["boot-menu key", "F11, 0 s", { bootMenu: "F11" }],
  ["inlet temperature", "24 s", null],
  ["boot-menu key", "  ", null],
  ["boot-menu key", "x".repeat(41), null],
])("reads %s, %j", (what, value, keys) => expect(keysRead(what, value)).toEqual(keys));

it("understands each reading that it offers", () =>
  expect(KEY_READINGS.map((what) => Object.keys(keysRead(what, "F2, 5 s") ?? {}))).toEqual([
    ["bootMenu", "seconds"],
    ["setup", "seconds"],
    ["network", "seconds"],
  ]));
