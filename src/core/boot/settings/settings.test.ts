import { describe, expect, it } from "vitest";
import { aBuild, type BuildChanges } from "../../../../tests/support/builds";
import { sameSetting, SETTING_KEYS, settingsSheet, settingsText, type SettingKey } from ".";

const sheet = (changes: BuildChanges = {}) => {
  const plan = aBuild(changes);
  return settingsSheet(plan, plan.boot?.moments ?? []);
};
const line = (key: SettingKey, changes: BuildChanges = {}) => sheet(changes).find((l) => l.key === key);

describe("the settings that a build wants", () => {
  it.each<[SettingKey, BuildChanges, string | undefined]>([
    ["mode", { sheet: { "boot.mode": "legacy" } }, "legacy"],
    ["compatibility", { sheet: { "boot.mode": "legacy" } }, "on"],
    ["compatibility", {}, "off"],
    ["secureBoot", {}, "on"],
    ["secureBoot", { sheet: { "boot.mode": "legacy" } }, undefined],
    ["virtualisation", {}, "on"],
    ["powerLoss", {}, "on"],
    ["powerLoss", { document: { typed: { use: "lab" } } }, "as before"],
    ["wake", {}, undefined],
    ["wake", { facts: { controller: { present: false } } }, "on"],
    ["networkBoot", {}, "off"],
    ["networkBoot", { sheet: { "image.way": "network" } }, "on"],
    ["order", {}, "as it is"],
    ["order", { sheet: { "boot.order": ["NV-0001"] } }, "Alder 480"],
    ["clock", {}, "UTC, right to the minute"],
  ])("%s follows from the decisions: %j gives %s", (key, changes, value) => {
    expect(line(key, changes)?.value).toBe(value);
  });

  it("names the decision that each follows from, and words under which firmware has it", () => {
    for (const l of sheet()) expect([l.why, l.words, l.where, l.title].every((t) => t !== "")).toBe(true);
    expect(line("virtualisation")?.why).toBe("Cairn Hypervisor 9: required");
    expect(new Set(sheet().map((l) => l.key)).size).toBe(sheet().length);
    expect(SETTING_KEYS).toEqual(expect.arrayContaining(sheet().map((l) => l.key)));
  });
});

describe("a setting as it was found", () => {
  const told = (settings: Record<string, string>): BuildChanges => ({
    facts: { firmware: { mode: "uefi", order: [], entries: [], secureBoot: false, settings } },
  });

  it("is what the firmware itself reports, with the name that it has there", () => {
    expect(line("powerLoss", told({ AcPwrRcvry: "Off" }))?.found).toBeNull();
    expect(line("powerLoss", told({ AcPowerRecovery: "Off" }))?.found).toMatchObject({ value: "Off" });
    expect(line("powerLoss", told({ AcPowerRecovery: "Off" }))?.found?.from).toContain("AcPowerRecovery");
  });

  it("is else what the running system tells, and nothing where nobody looked", () => {
    expect(line("secureBoot", told({}))).toMatchObject({ found: { value: "off" }, isAsWanted: false });
    expect(line("virtualisation")).toMatchObject({ found: { value: "on" }, isAsWanted: true });
    expect(line("clock")).toMatchObject({ found: null, isAsWanted: null });
  });

  it("is before all what was typed at the machine", () => {
    const typed = [{ key: "secureBoot", found: "Enabled", done: "left" }];
    expect(line("secureBoot", { ...told({}), sheet: { "boot.settings": typed } })).toMatchObject({
      found: { value: "Enabled", from: "typed at the machine" },
      ...{ isAsWanted: true, done: "left" },
    });
  });
});

it.each<[SettingKey, string, string, boolean | null]>([
  ["secureBoot", "on", "Enabled", true],
  ["secureBoot", "on", "disabled", false],
  ["mode", "UEFI", "Uefi", true],
  ["mode", "UEFI", "Bios", false],
  ["mode", "legacy", "BIOS boot mode", true],
  ["mode", "UEFI", "dual", null],
  ["powerLoss", "on", "last state", null],
  ["powerLoss", "on", "AlwaysOff", false],
  ["order", "as it is", "As it is", true],
])("%s: wanted %s and found %s is the same: %s", (key, wanted, found, same) => {
  expect(sameSetting(key, wanted, found)).toBe(same);
});

it("is told as plain text, each line with its reason and its other words", () => {
  const text = settingsText(sheet());
  expect(text).toContain(
    "Boot mode: UEFI; found UEFI (imported)\n  because: this sheet\n  also called: boot list option",
  );
  expect(text).toContain("Clock: UTC, right to the minute; not looked at");
});
