import { factsOf, type Facts } from "../../machine";
import { wayOf } from "../../media";
import type { BootPlan } from "../ground";
import {
  deviceMeant,
  knownOf,
  standIn,
  FALLBACK,
  type BootDevice,
  type BootEntry,
  type BootMachine,
  type LegacyMachine,
  type UefiMachine,
} from "../resolve";
import { parseDevicePath } from "../path";
import { isSecureAt } from "../secure";
import { seenMachine } from "../seen";
import { MEDIUM, type Moment } from "./view";
import { installerName, mediumDevice } from "./medium";

const NEW = "new";
/** The partition that an installation will make has no GUID yet; this one stands for it. */
const NEW_PARTITION = "HD(1,GPT,new,0x800,0x100000)";

/** What is started once the plan is carried out: the system of the first leg, and of the last. */
export function systemAt(ground: BootPlan, moment: Moment): string {
  const legs = ground.legs;
  const leg = moment === "first restart" ? legs[0] : legs.at(-1);
  if (leg) return `${leg.profile.name} ${leg.version}`;
  return ground.profile ? `${ground.profile.name} ${ground.profile.version}` : "the new system";
}

/** Some leg of the road writes a new table: the installer makes an entry for what it brings. */
const isFresh = ({ legs }: BootPlan): boolean => legs.some((l) => l.kind === "fresh");

/** The target after the installation: a new system on a new table, or the old drive with another version on it. */
function installed(ground: BootPlan, device: BootDevice, moment: Moment): BootDevice {
  const name = systemAt(ground, moment);
  const { mode } = ground.sheet.boot;
  if (!isFresh(ground)) return { ...device, system: { name, isSure: true } };
  const arch = ground.image?.architecture === "aarch64" ? "aa64" : "x64";
  const signed = ground.profile ? ground.profile.secureBoot === "works" : null;
  const loader = { path: FALLBACK[arch], arch, signed, conduct: "starts the system", starts: name } as const;
  return {
    ...device,
    system: null,
    contents: {
      ...{ sectorBytes: sectorOf(ground, device), sizeBytes: 0, unreadable: false, images: null },
      volumes: [
        {
          partition: { number: 1, scheme: "GPT", signature: NEW },
          ...{ start: null, sectors: null, fat: true, loaders: mode === "uefi" ? [loader] : [] },
        },
      ],
      code: { signature: mode === "legacy", conduct: "starts the system", starts: name },
    },
  };
}

const sectorOf = (ground: BootPlan, { id }: BootDevice): number =>
  factsOf(ground)?.drives.find((d) => d.id === id)?.logicalSectorBytes ?? 512;

/** The devices of a moment: the medium is in from the installation on, and stays in unless somebody takes it out. */
function devicesAt(ground: BootPlan, seen: readonly BootDevice[], moment: Moment): BootDevice[] {
  const { sheet } = ground;
  const medium = mediumDevice(ground);
  // The slot of the medium may be in the list already: a virtual disc drive is one and the same.
  const others = seen.filter((d) => !medium || d.kind !== medium.kind || d.kind === "stick");
  const answering = others.map((d) => (serves(ground, d) ? answered(ground, d) : d));
  const after = moment === "first restart" || moment === "power loss";
  const drives = answering.map((d) =>
    after && d.id === sheet.storage.target
      ? installed(ground, d, moment)
      : after && sheet.storage.free.includes(d.id)
        ? { ...d, system: null, contents: null }
        : d,
  );
  const slot = seen.find((d) => medium && d.kind === medium.kind && d.kind !== "stick");
  return medium ? [...drives, { ...medium, path: slot?.path ?? null }] : drives;
}

/** The port that the plan starts from; the boot service answers it. */
const serves = ({ sheet, fromMedia }: BootPlan, device: BootDevice): boolean =>
  fromMedia && sheet.image.way === "network" && device.id === sheet.network.port;

function answered(ground: BootPlan, device: BootDevice): BootDevice {
  const program = { kind: "program" as const, starts: installerName(ground) };
  return { ...device, answers: { pxe: program, http: program } };
}

/** Entries that the plan brings: the medium's, and the one that the installer makes for the new system. */
function entriesAt(ground: BootPlan, machine: UefiMachine, moment: Moment): BootEntry[] {
  const made = { active: true, application: false, own: false };
  const slot = machine.devices.find((d) => d.id === MEDIUM);
  const { port } = ground.sheet.network;
  const medium: BootEntry[] = slot
    ? [{ ...made, id: MEDIUM, label: slot.name, path: slot.path ?? standIn(slot) }]
    : wayOf(ground) === "network" && ground.fromMedia && port
      ? [
          {
            ...made,
            id: MEDIUM,
            label: "network",
            path: parseDevicePath(`MAC(${port.replaceAll(":", "")},1)`),
          },
        ]
      : [];
  const after = moment !== "to install" && isFresh(ground);
  const arch = ground.image?.architecture === "aarch64" ? "aa64" : "x64";
  const system: BootEntry = {
    ...made,
    ...{ id: NEW, label: systemAt(ground, moment) },
    path: parseDevicePath(`${NEW_PARTITION}/File(${FALLBACK[arch]})`),
  };
  const entries = [...machine.entries, ...medium, ...(after ? [system] : [])];
  const known = knownOf(machine);
  // What is put into the order by hand, and had no entry, gets one of its own.
  const bare = ground.sheet.boot.order
    .flatMap((id) => machine.devices.find((d) => d.id === id && id !== MEDIUM) ?? [])
    .filter((d) => !entries.some((e) => deviceMeant(known, e) === d));
  return [...entries, ...bare.map((d) => ({ ...made, id: d.id, label: d.name, path: d.path ?? standIn(d) }))];
}

/** The permanent order of the plan: media that stay first, then what is wanted first, then as it was found. */
function orderAt(ground: BootPlan, machine: UefiMachine, moment: Moment): readonly string[] | null {
  const { boot } = ground.sheet;
  const wanted = mediaFirst(ground) ? [MEDIUM, ...boot.order] : boot.order;
  const bare = machine.entries.map((e) => e.id).filter((id) => boot.order.includes(id) && id !== MEDIUM);
  const ids = (id: string) => machine.entries.filter((e) => e.id === id).map((e) => e.id);
  const listed = boot.order.includes(MEDIUM) || mediaFirst(ground) ? ids(MEDIUM) : [];
  const order = [...ids(NEW), ...(machine.order ?? []), ...listed, ...bare];
  // The order is put as it is wanted when the settings are looked at, so it holds for the installation as well.
  if (order.length === 0) return machine.order;
  const known = knownOf(machine);
  const rank = (id: string): number => {
    const entry = machine.entries.find((e) => e.id === id);
    const device = id === MEDIUM ? MEDIUM : entry && deviceMeant(known, entry)?.id;
    const at = wanted.indexOf(device ?? "");
    return at === -1 ? wanted.length : at;
  };
  return moment === "now" ? order : order.toSorted((a, b) => rank(a) - rank(b));
}

const mediaFirst = ({ sheet, fromMedia }: BootPlan): boolean =>
  fromMedia && sheet.boot.start === "media first in the boot order";

function uefiAt(ground: BootPlan, seen: UefiMachine, moment: Moment): UefiMachine {
  const machine = { ...seen, devices: devicesAt(ground, seen.devices, moment), once: null };
  const entries = entriesAt(ground, machine, moment);
  const brought = entries.some((e) => e.id === MEDIUM);
  return {
    ...machine,
    ...{ entries, secureBoot: isSecureAt(ground.sheet.boot, moment, ground.legs.length) },
    order: orderAt(ground, { ...machine, entries }, moment),
    once: moment === "to install" && brought && !mediaFirst(ground) ? MEDIUM : null,
  };
}

function legacyAt(ground: BootPlan, seen: LegacyMachine, moment: Moment): LegacyMachine {
  const { boot, storage, network, image } = ground.sheet;
  const medium = { device: image.way === "network" ? (network.port ?? "") : MEDIUM };
  const target = storage.target ? [{ device: storage.target }] : [];
  const wanted = boot.order.map((device) => (device === MEDIUM ? medium : { device }));
  const first = mediaFirst(ground) ? [medium] : [];
  return {
    ...seen,
    ...{ devices: devicesAt(ground, seen.devices, moment) },
    order: [...first, ...wanted, ...target, ...seen.order],
    once:
      moment === "to install" && ground.fromMedia && first.length === 0
        ? [medium, ...wanted, ...seen.order]
        : null,
  };
}

/** By which labels the profile of the running system knows the drives of that. */
export const marksOf = ({ profiles, installed }: BootPlan): string[] =>
  profiles.filter((p) => p.profile === installed?.profile).flatMap((p) => p.identify.marks);

/** The machine as it will stand at a moment of the plan. */
export function machineAt(ground: BootPlan, facts: Facts, moment: Moment): BootMachine {
  const { mode } = ground.sheet.boot;
  const marks = marksOf(ground);
  if (moment === "now") return seenMachine(facts, facts.firmware?.mode ?? mode, marks);
  const seen = seenMachine(facts, mode, marks);
  return seen.mode === "uefi" ? uefiAt(ground, seen, moment) : legacyAt(ground, seen, moment);
}
