import { term } from "../../text";
import { factsOf, type Typed } from "../../machine";
import { modeWords } from "../../work";
import type { BootPlan } from "../ground";
import type { MomentView } from "../picture/view";
import { firmwareRule, type Site } from "../../site";
import { SETTING_KEYS, type SettingKey } from "./catalogue";
import { sameSetting } from "./same";
import type { Wanted } from "./view";

const want = (key: SettingKey, value: string, why: string): Wanted[] => [{ key, value, why }];
const usual = (key: SettingKey, value: string, why: string): Wanted[] => [{ key, value, why, isUsual: true }];

/** Why a profile asks for a switch of the processor; nothing where it does not. */
function asked({ profile }: BootPlan, key: "virtualisation" | "iommu"): Wanted[] {
  const need = profile?.requirements[key];
  if (!profile || !need || need === "not needed") return [];
  return want(key, "on", `${profile.name} ${profile.version}: ${need}`);
}

function secureBoot({ sheet, legs }: BootPlan): Wanted[] {
  const { mode, secureBoot: planned } = sheet.boot;
  if (mode !== "uefi") return [];
  if (planned === "off to install")
    return want(
      "secureBoot",
      "off",
      "this sheet, for the installation only: on again before the last restart",
    );
  const refuses = legs.find((l) => l.profile.secureBoot === "must be off")?.profile;
  return want(
    "secureBoot",
    planned,
    refuses ? `${refuses.name} ${refuses.version} does not boot with it` : "this sheet",
  );
}

/** By the names of the picture, what the permanent order is to begin with. */
export function namesInOrder({ sheet }: BootPlan, moments: readonly MomentView[]): string[] {
  const after = moments.find((m) => m.moment === "first restart");
  const known = [...(after?.tries ?? []), ...(after?.rest ?? [])];
  return sheet.boot.order.flatMap((id) => known.find((k) => k.device === id)?.name ?? []);
}

/** What the site wants on this machine goes before what is usual, and never before what the build needs. */
function withSite(wanted: readonly Wanted[], site: Site | null, role: Typed["role"]): Wanted[] {
  const ruled = SETTING_KEYS.flatMap((key): Wanted[] => {
    const rule = firmwareRule(site, role, key);
    const own = wanted.find((w) => w.key === key);
    if (!rule) return own ? [own] : [];
    if (own && sameSetting(key, own.value, rule.value)) return [own];
    if (own && !own.isUsual) return [{ ...own, siteWants: rule.value }];
    const whose = `${site?.name}, for ${rule.role ? `machines with the role ${term(rule.role)}` : "all machines"}`;
    return want(key, rule.value, rule.why ? `${whose}: ${rule.why}` : whose);
  });
  return ruled;
}

/** What the site alone wants of a machine, whatever is built on it. */
export const siteSettings = (site: Site | null, role: Typed["role"]): Wanted[] => withSite([], site, role);

/** What this build wants its firmware to be set to, each with the decision or the rule of the site that it follows from. */
export const wantedSettings = (plan: BootPlan, moments: readonly MomentView[]): Wanted[] =>
  withSite(byDecisions(plan, moments), plan.site, plan.machine?.document.typed.role ?? null);

function byDecisions(plan: BootPlan, moments: readonly MomentView[]): Wanted[] {
  const { sheet, machine, fromMedia } = plan;
  const isLegacy = sheet.boot.mode === "legacy";
  const overNetwork = fromMedia && sheet.image.way === "network";
  const remote = factsOf(plan)?.controller?.present;
  const isLab = machine?.document.typed.use === "lab";
  const order = namesInOrder(plan, moments);
  return [
    ...want("mode", modeWords(sheet.boot.mode), "this sheet"),
    ...(isLegacy ? want : usual)(
      "compatibility",
      isLegacy ? "on" : "off",
      isLegacy ? "required for legacy BIOS mode" : "it shows every device twice in the boot menu",
    ),
    ...secureBoot(plan),
    ...asked(plan, "virtualisation"),
    ...asked(plan, "iommu"),
    ...usual(
      "powerLoss",
      isLab ? "as before" : "on",
      isLab ? "a lab machine" : "the machine returns without an operator",
    ),
    ...(remote === false
      ? usual("wake", "on", "no management controller: the only way to turn it on remotely")
      : []),
    ...(remote === true ? usual("graphics", "onboard", "the remote console shows only this one") : []),
    ...(overNetwork ? want : usual)(
      "networkBoot",
      overNetwork ? "on" : "off",
      overNetwork ? "the boot source is the network" : "without a response, each boot waits a minute",
    ),
    ...want(
      "clock",
      "UTC, correct to the minute",
      "an installer writes the time of this clock into the new system",
    ),
    ...want(
      "order",
      order.length > 0 ? order.join(", then ") : "as it is",
      order.length > 0 ? "this sheet" : "one-time boot does not change the permanent order",
    ),
  ];
}
