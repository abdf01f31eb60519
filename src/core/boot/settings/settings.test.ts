import { describe, expect, it } from "vitest";
import { aBuild, type BuildChanges } from "../../../../tests/support/builds";
import type { Site } from "../../site";
import { sameSetting, SETTING_KEYS, settingsSheet, settingsText, siteSettingsOf, type SettingKey } from ".";

const sheet = (changes: BuildChanges = {}) => {
  const plan = aBuild(changes);
  return settingsSheet(plan, plan.boot?.moments ?? []);
};
const line = (key: SettingKey, changes: BuildChanges = {}) => sheet(changes).find((l) => l.key === key);

describe("the settings that a build wants", () => {
  it.each<[SettingKey, BuildChanges, string | undefined]>([
    ["mode", { sheet: { "boot.mode": "legacy" } }, "legacy BIOS"],
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
    ["clock", {}, "UTC, correct to the minute"],
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

describe("what the site lays down", () => {
  type Rule = Site["firmware"][number];
  const ruled = (...firmware: Partial<Rule>[]): BuildChanges => ({
    site: { firmware: firmware.map((r) => ({ role: null, setting: "fans", value: "quiet", why: "", ...r })) },
    document: { typed: { role: "hypervisor" } },
  });
  it("joins the sheet where the build decides nothing, with whose rule it is and why", () => {
    expect(line("fans")).toBeUndefined();
    expect(line("fans", ruled({ why: "beside the desk" }))).toMatchObject({
      ...{ value: "quiet", why: "Works, for all machines: beside the desk" },
    });
  });
  it("goes by the role before every machine, and not at all for another role", () => {
    const roles = ruled({ value: "full" }, { role: "hypervisor" });
    expect(line("fans", roles)?.value).toBe("quiet");
    expect(line("fans", ruled({ role: "backup" }))).toBeUndefined();
  });
  it("goes before what is usual, and is told where the build cannot do with it", () => {
    expect(line("powerLoss", ruled({ setting: "powerLoss", value: "last state" }))).toMatchObject({
      ...{ value: "last state" },
    });
    const against = line("secureBoot", ruled({ setting: "secureBoot", value: "disabled" }));
    expect(against).toMatchObject({ value: "on", siteWants: "disabled" });
    expect(line("secureBoot", ruled({ setting: "secureBoot", value: "Enabled" }))?.siteWants).toBeUndefined();
  });
  it("is compared with a machine of which no sheet was made", () => {
    const plan = aBuild(ruled({ setting: "virtualisation", value: "off" }, { setting: "fans" }));
    expect(siteSettingsOf(plan, plan.site).map((l) => [l.title, l.found?.value, l.isAsWanted])).toEqual([
      ["Virtualisation", "on", false],
      ["Fan profile", undefined, null],
    ]);
    expect(siteSettingsOf(plan, null)).toEqual([]);
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

  it("is before all what was entered at the machine", () => {
    const typed = [{ key: "secureBoot", found: "Enabled", done: "left" }];
    expect(line("secureBoot", { ...told({}), sheet: { "boot.settings": typed } })).toMatchObject({
      found: { value: "Enabled", from: "entered at the machine" },
      ...{ isAsWanted: true, done: "left" },
    });
  });
});

it.each<[SettingKey, string, string, boolean | null]>([
  ["secureBoot", "on", "Enabled", true],
  ["secureBoot", "on", "disabled", false],
  ["mode", "UEFI", "Uefi", true],
  ["mode", "UEFI", "Bios", false],
  ["mode", "legacy BIOS", "BIOS boot mode", true],
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
    "Boot mode: UEFI; found UEFI (imported)\n  reason: this sheet\n  also named: boot list option",
  );
  expect(text).toContain("Clock: UTC, correct to the minute; not inspected");
});
