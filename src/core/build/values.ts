import { modeWords } from "../boot";
import type { PLACEHOLDERS } from "../image";
import { driveLook, type Drive } from "../machine";
import { netmaskOf, prefixLengthOf } from "../network";
import { installerSize } from "../storage";
import { portOf, segmentOf, targetOf, targetsOf, type BuildContext } from "./context";

function systemFound({ machine }: BuildContext): string {
  const { osName, osVersion } = machine?.document.facts.system ?? {};
  return osName ?? osVersion ?? "";
}

/**
 * Every value that a profile's texts may name, from its one home in the sheet, the machine or the site; "" when open. None
 * holds a character of the target's serial: that is what the guards ask for.
 */
export function valuesOf(context: BuildContext): Record<(typeof PLACEHOLDERS)[number], string> {
  const { sheet, image, machine } = context;
  const { answers, network } = sheet;
  const target = targetOf(context);
  const members = targetsOf(context)
    .filter((t) => t.role === "member")
    .map((t) => t.drive);
  const each = (word: (drive: Drive) => string): string => [...new Set(members.map(word))].join("; ");
  const port = portOf(context);
  const prefix = segmentOf(context)?.prefix ?? "";
  const length = prefixLengthOf(prefix);
  const account = (role: string): string => answers.accounts.find((a) => a.role === role)?.name ?? "";
  return {
    "account.admin": account("administrator") || account("super-user"),
    "account.super": account("super-user") || "root",
    "account.where": answers.secretsKept,
    "boot.mode": modeWords(sheet.boot.mode),
    "host.address": network.address,
    "host.domain": answers.domain,
    "host.fqdn": [answers.hostName, answers.domain].filter(Boolean).join("."),
    "host.gateway": network.gateway,
    "host.mac": port?.mac ?? "",
    "host.name": answers.hostName,
    "host.nameServers": network.nameServers.join(", "),
    "host.netmask":
      length === null ? "" : prefix.includes(":") ? `prefix length ${length}` : netmaskOf(length),
    "host.port": port?.seenAs ?? "",
    "host.prefix": length === null ? "" : String(length),
    "image.file": image?.fileName || image?.name || "",
    "image.name": image?.name ?? "",
    "image.version": image?.version ?? "",
    "keyboard.layout": answers.keyboard,
    "locale.name": answers.locale,
    "machine.name": machine?.name ?? "",
    "management.address": machine?.document.facts.controller?.address ?? "",
    "system.found": systemFound(context),
    "target.count": members.length === 1 ? "1 drive" : `${members.length} drives`,
    "target.layout": members.length > 1 ? `${sheet.storage.layout} of ${members.length}` : "single drive",
    "target.model": each((d) => d.model ?? ""),
    "target.name": each(driveLook),
    "target.seenAs": target ? `${each((d) => d.seenAs)} (as it was at the import)` : "",
    "target.size": each(installerSize),
    "time.zone": answers.timeZone,
  };
}
