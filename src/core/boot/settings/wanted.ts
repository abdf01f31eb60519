import { factsOf } from "../../machine";
import { modeWords } from "../../media";
import type { BootPlan } from "../ground";
import type { MomentView } from "../picture/view";
import type { SettingKey } from "./catalogue";
import type { Wanted } from "./view";

const want = (key: SettingKey, value: string, why: string): Wanted[] => [{ key, value, why }];

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
    refuses ? `${refuses.name} ${refuses.version} does not start with it` : "this sheet",
  );
}

/** By the names of the picture, what the permanent order is to begin with. */
export function namesInOrder({ sheet }: BootPlan, moments: readonly MomentView[]): string[] {
  const after = moments.find((m) => m.moment === "first restart");
  const known = [...(after?.tries ?? []), ...(after?.rest ?? [])];
  return sheet.boot.order.flatMap((id) => known.find((k) => k.device === id)?.name ?? []);
}

/** What this build wants its firmware to be set to, each with the decision that it follows from. */
export function wantedSettings(plan: BootPlan, moments: readonly MomentView[]): Wanted[] {
  const { sheet, machine, fromMedia } = plan;
  const isLegacy = sheet.boot.mode === "legacy";
  const overNetwork = fromMedia && sheet.image.way === "network";
  const remote = factsOf(plan)?.controller?.present;
  const isLab = machine?.document.typed.use === "lab";
  const order = namesInOrder(plan, moments);
  return [
    ...want("mode", modeWords(sheet.boot.mode), "this sheet"),
    ...want(
      "compatibility",
      isLegacy ? "on" : "off",
      isLegacy ? "legacy mode needs it" : "with it every device stands in the boot menu twice",
    ),
    ...secureBoot(plan),
    ...asked(plan, "virtualisation"),
    ...asked(plan, "iommu"),
    ...want(
      "powerLoss",
      isLab ? "as before" : "on",
      isLab ? "a lab machine" : "it comes back without anybody",
    ),
    ...(remote === false
      ? want("wake", "on", "no management controller: it is the only switch from afar")
      : []),
    ...want(
      "networkBoot",
      overNetwork ? "on" : "off",
      overNetwork
        ? "the way to the machine is the network"
        : "where nothing answers, each start waits a minute",
    ),
    ...want(
      "clock",
      "UTC, right to the minute",
      "an installer writes the time of this clock into what it makes",
    ),
    ...want(
      "order",
      order.length > 0 ? order.join(", then ") : "as it is",
      order.length > 0 ? "this sheet" : "one-time boot changes nothing for good",
    ),
  ];
}
