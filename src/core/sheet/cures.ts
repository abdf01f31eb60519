import type { PlacedFinding } from "../finding";
import { bayWords, type Drive } from "../machine";
import { withFate } from "../storage";
import type { BuildView } from "./view";
import type { SheetChanges } from "./sheet";

/** An edit that does away with a finding, in the words of its button: "take 10.61.10.6". */
export interface Cure {
  words: string;
  changes: SheetChanges;
}

/** What a cure is worked out from: the sheet with what stands around it. */
export type CureGround = Pick<BuildView, "nextFree" | "nextName"> & {
  build: { sheet: BuildView["build"]["sheet"] };
  context: BuildView["context"];
};

type Cures = (ground: CureGround, finding: PlacedFinding) => Cure | null;

const facts = ({ context }: CureGround) => context.machine?.document.facts ?? null;
const segment = ({ build, context }: CureGround) =>
  context.site?.segments.find((s) => s.id === build.sheet.network.segment) ?? null;

const address: Cures = ({ nextFree, build }) =>
  nextFree && nextFree !== build.sheet.network.address
    ? { words: `Use ${nextFree}`, changes: { "network.address": nextFree } }
    : null;

const hostName: Cures = ({ nextName, build }) =>
  nextName && nextName !== build.sheet.answers.hostName
    ? { words: `Use ${nextName}`, changes: { "answers.hostName": nextName } }
    : null;

const gateway: Cures = (ground) => {
  const own = segment(ground)?.gateway;
  return own && own !== ground.build.sheet.network.gateway
    ? { words: `Use ${own}`, changes: { "network.gateway": own } }
    : null;
};

const nameServers: Cures = (ground) => {
  const own = segment(ground)?.nameServers ?? [];
  return own.length > 0 && own.join() !== ground.build.sheet.network.nameServers.join()
    ? { words: `Use ${own.join(", ")}`, changes: { "network.nameServers": own } }
    : null;
};

/** The only wired port with a link; of none with a link, the only wired one. */
const port: Cures = (ground) => {
  const wired = (facts(ground)?.ports ?? []).filter((p) => p.kind === "ethernet");
  const linked = wired.filter((p) => p.link === "up");
  const [only, ...more] = linked.length > 0 ? linked : wired;
  return only && more.length === 0 && only.mac !== ground.build.sheet.network.port
    ? { words: `Use ${only.seenAs}`, changes: { "network.port": only.mac } }
    : null;
};

const onlySegment: Cures = ({ context }) => {
  const [only, ...more] = context.site?.segments ?? [];
  return only && more.length === 0
    ? { words: `Use ${only.name}`, changes: { "network.segment": only.id } }
    : null;
};

/** What the site usually answers, where the sheet answers otherwise. */
const usual =
  (field: "domain" | "timeZone" | "keyboard"): Cures =>
  ({ build, context }) => {
    const own = context.site?.[field] ?? "";
    return own !== "" && own !== build.sheet.answers[field]
      ? { words: `Use ${own}`, changes: { [`answers.${field}`]: own } }
      : null;
  };

/** The other mode of the firmware, where profile and image both know it. */
const otherMode: Cures = ({ build, context }) => {
  const other = build.sheet.boot.mode === "uefi" ? "legacy" : "uefi";
  const isKnown = context.profile?.firmware.modes.includes(other) && context.image?.bootModes.includes(other);
  return isKnown
    ? { words: `Boot in ${other === "uefi" ? "UEFI" : "legacy BIOS"} mode`, changes: { "boot.mode": other } }
    : null;
};

const once: Cures = ({ build }) =>
  build.sheet.boot.start === "one-time boot"
    ? null
    : { words: "Use one-time boot", changes: { "boot.start": "one-time boot" } };

const nameOf = (drive: Drive): string => (drive.bay ? bayWords(drive.bay) : (drive.model ?? "the drive"));

/** A drive that is not to be touched; it is the subject of its finding, behind that of its set. */
const spared: Cures = (ground, { subject }) => {
  const drive = facts(ground)?.drives.find((d) => subject === d.id || subject?.endsWith(` ${d.id}`));
  if (!drive) return null;
  const { target, partners, layout, leaveAlone, free, sets } = withFate(
    ground.build.sheet.storage,
    drive.id,
    "leave alone",
  );
  return {
    words: `Protect ${nameOf(drive)}`,
    changes: {
      ...{ "storage.target": target, "storage.partners": partners, "storage.layout": layout },
      ...{ "storage.leaveAlone": leaveAlone, "storage.free": free, "storage.sets": sets },
      "storage.erase": ground.build.sheet.storage.erase.filter((c) => c.drive !== drive.id),
    },
  };
};

/** A set is made by this build after all. */
const now: Cures = ({ build }, { subject }) => ({
  words: "Create it with this build",
  changes: {
    "storage.sets": build.sheet.storage.sets.map((s) => (s.id === subject ? { ...s, later: null } : s)),
  },
});

const plainSwap: Cures = () => ({
  words: "Use the swap of the installer",
  changes: { "storage.swap": "as the installer does" },
});

const edition: Cures = ({ context }) =>
  context.edition
    ? {
        words: `Use revision ${context.edition.newest}`,
        changes: { "image.edition": context.edition.newest },
      }
    : null;

/**
 * By the code of a finding: what the site, the machine's own reading or a list answers already. What a person has to weigh –
 * what is erased, secure boot, a layout – has no cure.
 */
const CURES: Readonly<Record<string, Cures>> = {
  "network.no-address": address,
  "network.not-an-address": address,
  "network.outside": address,
  "network.edge": address,
  "network.taken": address,
  "network.in-pool": address,
  "network.gateway": gateway,
  "network.no-gateway": gateway,
  "network.name-servers": nameServers,
  "network.no-port": port,
  "network.wireless-port": port,
  "network.no-link": port,
  "network.no-segment": onlySegment,
  "answers.name-pattern": hostName,
  "answers.name-taken": hostName,
  "answers.domain": usual("domain"),
  "answers.time-zone": usual("timeZone"),
  "answers.keyboard": usual("keyboard"),
  "boot.image-mode": otherMode,
  "boot.profile-mode": otherMode,
  "boot.media-first": once,
  "storage.undecided": spared,
  "storage.set-failing": spared,
  "storage.set-flash": spared,
  "storage.set-san": spared,
  "storage.set-shingled": spared,
  "storage.set-letter": spared,
  "storage.set-later": now,
  "storage.swap-by-hand": plainSwap,
  "storage.swap-pool": plainSwap,
  "image.profile-newer": edition,
};

/** The edit by which Derrick would do away with a finding; null where it takes a person to decide. */
export const cureOf = (ground: CureGround, finding: PlacedFinding): Cure | null =>
  finding.waiver ? null : (CURES[finding.code]?.(ground, finding) ?? null);

export const CURED: readonly string[] = Object.keys(CURES);
