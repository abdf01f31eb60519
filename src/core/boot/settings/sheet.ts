import { factsOf, sourceWords, type Facts, type OnMachine } from "../../machine";
import { modeWords } from "../../work";
import type { Site } from "../../site";
import type { BootPlan } from "../ground";
import type { MomentView } from "../picture/view";
import { SETTINGS, type SettingKey } from "./catalogue";
import { sameSetting } from "./same";
import type { SettingView, Wanted } from "./view";
import { siteSettings, wantedSettings } from "./wanted";

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

/** As the firmware itself told it, or else the system that was running; null where neither was read. */
function toldBy(machine: OnMachine, key: SettingKey): SettingView["found"] {
  const facts = factsOf(machine);
  if (!facts) return null;
  const { named } = SETTINGS[key];
  const own = Object.entries(facts.firmware?.settings ?? {}).find(([name]) => named.test(name));
  if (own) return { value: own[1], from: `${own[0]}, ${sourceWords(machine, "firmware.settings")}` };
  const told = toldBySystem(facts, key);
  return told && { value: told.value, from: sourceWords(machine, told.path) };
}

type Seen = BootPlan["sheet"]["boot"]["settings"][number];

/** As it was found: typed at the machine, or told by a tool. */
function found(machine: OnMachine, key: SettingKey, seen: Seen | undefined): SettingView["found"] {
  const typed = seen?.found.trim();
  return typed ? { value: typed, from: "entered at the machine" } : toldBy(machine, key);
}

function lineOf(machine: OnMachine, wanted: Wanted, seen: Seen | undefined): SettingView {
  const { title, words, where } = SETTINGS[wanted.key];
  const as = found(machine, wanted.key, seen);
  return {
    ...wanted,
    ...{ title, words, where, found: as },
    done: seen?.done ?? "",
    isAsWanted: as && sameSetting(wanted.key, wanted.value, as.value),
  };
}

/** The settings sheet of a build: wanted and why, as found, and what was done. */
export const settingsSheet = (plan: BootPlan, moments: readonly MomentView[]): SettingView[] =>
  wantedSettings(plan, moments).map((w) =>
    lineOf(
      plan,
      w,
      plan.sheet.boot.settings.find((s) => s.key === w.key),
    ),
  );

/** What a site wants of a machine, beside how it was found; without a build. */
export const siteSettingsOf = (machine: OnMachine, site: Site | null): SettingView[] =>
  siteSettings(site, machine.machine?.document.typed.role ?? null).map((w) => lineOf(machine, w, undefined));

/** The sheet as plain text, for a ticket or a printer. */
export const settingsText = (lines: readonly SettingView[]): string =>
  lines
    .map((l) => {
      const was = l.found ? `; found ${l.found.value} (${l.found.from})` : "; not inspected";
      return `${l.title}: ${l.value}${was}${l.done ? `; ${l.done}` : ""}\n  reason: ${l.why}\n  also named: ${l.words}; menu: ${l.where}`;
    })
    .join("\n");
