import type { BuildView, Sheet } from "@/core/sheet";

type Context = Pick<BuildView["context"], "machine" | "site">;

/** The address that the machine was read to have at the planned port, or at the bridge or bond that the port belongs to. */
function readAddress({ machine }: Context, mac: string | null): string | undefined {
  const facts = machine?.document.facts;
  const port = facts?.ports.find((p) => p.mac === mac);
  const on = (facts?.system?.addresses ?? []).find(
    (a) => port && (a.interface === port.seenAs || a.interface === port.memberOf) && !a.address.includes(":"),
  );
  return port?.addresses.find((a) => a.family === "ipv4" && a.scope === "global")?.address ?? on?.address;
}

/** The other places where a value of the sheet stands, each with the words for a value that is the same there. */
export const KNOWN = {
  "network.address": ({ network }: Sheet, context: Context) => [
    [
      network.address,
      readAddress(context, network.port),
      "current setting of the machine, from its hardware data",
    ],
  ],
  "network.gateway": ({ network }: Sheet, { site }: Context) => [
    [network.gateway, segmentOf(site, network)?.gateway ?? "", "from the network"],
  ],
  "network.nameServers": ({ network }: Sheet, { site }: Context) => [
    [network.nameServers.join(), segmentOf(site, network)?.nameServers.join() ?? "", "from the network"],
  ],
  "answers.hostName": ({ answers }: Sheet, { machine }: Context) => [
    [answers.hostName, machine?.name, "from the machine name"],
  ],
  "answers.keyboard": ({ answers }: Sheet, { machine, site }: Context) => [
    [answers.keyboard, machine?.document.facts.system?.keyboard, "found on the machine"],
    [answers.keyboard, site?.keyboard, "site default"],
  ],
  "answers.locale": ({ answers }: Sheet, { machine, site }: Context) => [
    [answers.locale, machine?.document.facts.system?.locale, "found on the machine"],
    [answers.locale, site?.locale, "site default"],
  ],
  "answers.timeZone": ({ answers }: Sheet, { machine, site }: Context) => [
    [answers.timeZone, machine?.document.facts.system?.timeZone, "found on the machine"],
    [answers.timeZone, site?.timeZone, "site default"],
  ],
  "answers.domain": ({ answers }: Sheet, { site }: Context) => [
    [answers.domain, site?.domain, "site default"],
  ],
} satisfies Record<string, (sheet: Sheet, context: Context) => [string, string | null | undefined, string][]>;

const segmentOf = (site: Context["site"], { segment }: Sheet["network"]) =>
  site?.segments.find((s) => s.id === segment);

/** Where a value that nobody had to type comes from; nothing where it stands on the sheet alone, or is empty. */
export function originOf(path: keyof typeof KNOWN, sheet: Sheet, context: Context): string | undefined {
  const same = KNOWN[path](sheet, context).find(([own, other]) => own !== "" && own === other);
  return same?.[2];
}
