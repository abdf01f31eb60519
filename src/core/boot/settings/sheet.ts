import { factsOf, sourceWords, type Facts } from "../../machine";
import { modeWords } from "../../media";
import type { BootPlan } from "../ground";
import type { MomentView } from "../picture/view";
import { SETTINGS, type SettingKey } from "./catalogue";
import type { SettingView, Wanted } from "./view";
import { wantedSettings } from "./wanted";

const onOff = (value: boolean | null | undefined): string | null =>
  value == null ? null : value ? "on" : "off";

/** What the running system tells of a setting, whoever asked it. */
function toldBySystem(facts: Facts, key: SettingKey): { value: string; path: string } | null {
  const { firmware, processors } = facts;
  const told: Partial<Record<SettingKey, [string | null, string]>> = {
    mode: [firmware?.mode ? modeWords(firmware.mode) : null, "firmware.mode"],
    secureBoot: [onOff(firmware?.secureBoot), "firmware.secureBoot"],
    virtualisation: [onOff(processors?.virtualisation), "processors.virtualisation"],
    iommu: [onOff(processors?.iommu), "processors.iommu"],
  };
  const [value = null, path = ""] = told[key] ?? [];
  return value === null ? null : { value, path };
}

const seenAt = ({ sheet }: BootPlan, key: SettingKey) => sheet.boot.settings.find((s) => s.key === key);

/** As it was found: typed at the machine, told by the firmware itself, or by the system that was running. */
function found(plan: BootPlan, key: SettingKey): SettingView["found"] {
  const typed = seenAt(plan, key)?.found.trim();
  if (typed) return { value: typed, from: "typed at the machine" };
  const facts = factsOf(plan);
  if (!facts) return null;
  const { named } = SETTINGS[key];
  const own = Object.entries(facts.firmware?.settings ?? {}).find(([name]) => named.test(name));
  if (own) return { value: own[1], from: `${own[0]}, ${sourceWords(plan, "firmware.settings")}` };
  const told = toldBySystem(facts, key);
  return told && { value: told.value, from: sourceWords(plan, told.path) };
}

const ON = /^((always)?on|yes|true|enabled?|active|uefi)$/i;
const OFF = /^((always)?off|no|false|disabled?|inactive|legacy)$/i;
const MODES = /^(uefi|legacy|bios)/i;

/** Whether two values are the same setting; null for texts that only a person can compare. */
export function sameSetting(key: SettingKey, wanted: string, value: string): boolean | null {
  if (key === "mode") {
    const [a, b] = [wanted, value].map((v) => MODES.exec(v)?.[1]?.toLowerCase().replace("bios", "legacy"));
    return b === undefined ? null : a === b;
  }
  const [a, b] = [wanted, value].map((v) => (ON.test(v) ? true : OFF.test(v) ? false : null));
  return a === null || b === null ? (wanted.toLowerCase() === value.toLowerCase() ? true : null) : a === b;
}

function lineOf(plan: BootPlan, wanted: Wanted): SettingView {
  const { title, words, where } = SETTINGS[wanted.key];
  const as = found(plan, wanted.key);
  return {
    ...wanted,
    ...{ title, words, where, found: as },
    done: seenAt(plan, wanted.key)?.done ?? "",
    isAsWanted: as && sameSetting(wanted.key, wanted.value, as.value),
  };
}

/** The settings sheet of a build: wanted and why, as found, and what was done. */
export const settingsSheet = (plan: BootPlan, moments: readonly MomentView[]): SettingView[] =>
  wantedSettings(plan, moments).map((w) => lineOf(plan, w));

/** The sheet as plain text, for a ticket or a printer. */
export const settingsText = (lines: readonly SettingView[]): string =>
  lines
    .map((l) => {
      const was = l.found ? `; found ${l.found.value} (${l.found.from})` : "; not looked at";
      return `${l.title}: ${l.value}${was}${l.done ? `; ${l.done}` : ""}\n  because: ${l.why}\n  also called: ${l.words}; under ${l.where}`;
    })
    .join("\n");
