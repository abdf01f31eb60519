import { visibleDrives, type MachineDocument, type Port } from "../machine";
import type { Site } from "../site";
import { emptySheet, type Sheet } from "./sheet";

/** A machine as a sheet takes it over. */
export interface ChosenMachine {
  id: string;
  name: string;
  document: MachineDocument;
}

/** The port that a cable is in; else the first that could have one. */
const likelyPort = (ports: readonly Port[]): Port | undefined =>
  ports.find((p) => p.link === "up" && p.kind === "ethernet") ?? ports.find((p) => p.kind === "ethernet");

/** The site's usual answers, in its network for management where it has one. */
function usualAnswers(sheet: Sheet, site: Site, name: string): Pick<Sheet, "network" | "answers"> {
  const segment = site.segments.find((s) => s.purpose === "management") ?? site.segments[0];
  const { domain, keyboard, locale, timeZone } = site;
  return {
    network: {
      ...sheet.network,
      segment: segment?.id ?? null,
      school: site.addressSchool,
      gateway: segment?.gateway ?? "",
      nameServers: segment?.nameServers ?? [],
    },
    answers: {
      ...{ ...sheet.answers, domain, keyboard, locale, timeZone },
      hostName: sheet.answers.hostName || name,
    },
  };
}

/**
 * The sheet for a machine, with what follows from choosing it: every drive left alone and no target, its boot mode, its
 * port with a link, the way of a stick where it has no controller, and the usual answers of its site.
 */
export function adoptMachine(sheet: Sheet, { id, name, document }: ChosenMachine, site: Site | null): Sheet {
  const { facts } = document;
  const adopted: Sheet = {
    ...sheet,
    machine: { id },
    storage: { ...emptySheet().storage, leaveAlone: visibleDrives(facts).map((d) => d.id) },
    boot: { ...sheet.boot, mode: facts.firmware?.mode ?? sheet.boot.mode },
    network: { ...sheet.network, port: likelyPort(facts.ports)?.mac ?? null },
    image: { ...sheet.image, way: facts.controller?.present === false ? "stick" : sheet.image.way },
  };
  return site ? { ...adopted, ...usualAnswers(adopted, site, name) } : adopted;
}
