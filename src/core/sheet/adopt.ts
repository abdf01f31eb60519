import {
  likelyPort,
  onlyDrive,
  ownAddress,
  visibleDrives,
  type Facts,
  type MachineDocument,
} from "../machine";
import { contains } from "../network";
import type { Site } from "../site";
import { emptySheet, type Sheet } from "./sheet";

/** A machine as a sheet takes it over. */
export interface ChosenMachine {
  id: string;
  name: string;
  document: MachineDocument;
}

/** Cases that stand on a desk; nobody reaches those through a controller unless one was read. */
const DESK = /desktop|mini|tower|notebook|laptop|all in one|stick pc/i;

/** Whether somebody stands at the machine: it has no controller, or nothing tells of one and it is none for a rack. */
const wantsStick = ({ chassis, controller }: Facts): boolean =>
  controller?.present === false || (controller === undefined && DESK.test(chassis?.form ?? ""));

/** How a machine that stands in a network already is reached there: as it was read, unless the site does it otherwise. */
function readAddress({ addressSchool }: Site, prefix: string | undefined, facts: Facts) {
  const own = ownAddress(facts);
  if (!own || prefix === undefined || !contains(prefix, own.address)) return { school: addressSchool };
  // An address that was lent belongs to the server that lends it: it is kept only where it can be reserved there.
  if (own.dynamic && addressSchool === "fixed") return { school: addressSchool };
  return { school: addressSchool, address: own.address };
}

/** The site's usual answers, in its network for management where it has one. */
function usualAnswers(
  sheet: Sheet,
  site: Site,
  name: string,
  facts: Facts,
): Pick<Sheet, "network" | "answers"> {
  const segment = site.segments.find((s) => s.purpose === "management") ?? site.segments[0];
  const { domain, keyboard, locale, timeZone, proxy } = site;
  return {
    network: {
      ...sheet.network,
      segment: segment?.id ?? null,
      ...readAddress(site, segment?.prefix, facts),
      gateway: segment?.gateway ?? "",
      nameServers: segment?.nameServers ?? [],
    },
    answers: {
      ...{ ...sheet.answers, domain, keyboard, locale, timeZone, proxy },
      hostName: sheet.answers.hostName || name,
    },
  };
}

/**
 * The sheet for a machine, with what follows from choosing it: every drive left alone and no target, unless there is only
 * one drive; its boot mode, its port with a link, the way of a stick where somebody stands at it, the usual answers of its
 * site, and the address that it has in its network.
 */
export function adoptMachine(sheet: Sheet, { id, name, document }: ChosenMachine, site: Site | null): Sheet {
  const { facts } = document;
  const only = onlyDrive(facts);
  const adopted: Sheet = {
    ...sheet,
    machine: { id },
    storage: {
      ...emptySheet().storage,
      target: only?.id ?? null,
      leaveAlone: visibleDrives(facts).flatMap((d) => (d.id === only?.id ? [] : d.id)),
    },
    boot: { ...sheet.boot, mode: facts.firmware?.mode ?? sheet.boot.mode },
    network: { ...sheet.network, port: likelyPort(facts)?.mac ?? null },
    image: { ...sheet.image, way: wantsStick(facts) ? "stick" : sheet.image.way },
  };
  return site ? { ...adopted, ...usualAnswers(adopted, site, name, facts) } : adopted;
}
