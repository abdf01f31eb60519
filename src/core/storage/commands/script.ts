import { drivesOf, holdsData, isUnread } from "../../machine";
import { fail, ok, type Result } from "../../result";
import { formatBytes } from "../../units";
import { layoutName } from "../bench/words.en";
import { consentFor, type StorageGround } from "../ground";
import {
  figuresOf,
  nameFault,
  scriptFile,
  seatsOf,
  setName,
  volumesOf,
  type PlannedSet,
  type SeatRole,
} from "../sets";
import { preamble, wiping, type NamedDrive } from "./preamble";
import { comment, quoted } from "./quote";
import { inPool, onArray, volumePrograms } from "./volumes";

const variables = (drives: readonly NamedDrive[]): string => drives.map((d) => `"$${d.variable}"`).join(" ");

/** "raidz2", or of a dRAID "draid2:4d:11c:1s". */
const vdevWord = (set: PlannedSet, width: number): string =>
  set.type.startsWith("draid")
    ? `${set.type}:${Math.max(1, set.data)}d:${width}c:${set.distributed}s`
    : set.type;

/** The named drives of a set by what they are there for. */
type Cast = Record<SeatRole, readonly NamedDrive[]>;

/** Devices that stand beside the data: mirrored where there are several, but for a cache. */
const beside = (role: "special" | "log" | "cache", drives: readonly NamedDrive[]): string[] =>
  drives.length === 0
    ? []
    : [`  ${role} ${role !== "cache" && drives.length > 1 ? "mirror " : ""}${variables(drives)}`];

/** The tool refuses special devices of another redundancy than the data (zpool_vdev.c of OpenZFS), unless it is told twice. */
const isUneven = ({ special, type, members, groups }: PlannedSet): boolean =>
  special.length > 0 &&
  (special.length > 1 ? type !== "mirror" || members.length / groups !== special.length : type !== "stripe");

/** Drives to a line, so that a long command can be read. */
function zpool(set: PlannedSet, cast: Cast): string[] {
  const { member: members, spare: spares } = cast;
  const width = members.length / set.groups;
  const name = quoted(set.name);
  const groups = Array.from({ length: set.groups }, (_, i) => {
    const own = variables(members.slice(i * width, (i + 1) * width));
    return set.type === "stripe" ? `  ${own}` : `  ${vdevWord(set, width)} ${own}`;
  });
  const all = [
    ...groups,
    ...beside("special", cast.special),
    ...beside("log", cast.log),
    ...beside("cache", cast.cache),
    ...(spares.length > 0 ? [`  spare ${variables(spares)}`] : []),
  ];
  return [
    ...(isUneven(set)
      ? [
          comment(
            "-f: the tool asks for it where special devices are not laid out as the data are; the sheet says what follows.",
          ),
        ]
      : []),
    ...[`zpool create ${isUneven(set) ? "-f " : ""}-o ashift=12 ${name}`, ...all].map((line, i) =>
      i < all.length ? `${line} \\` : line,
    ),
    ...inPool(set),
    `zpool status ${name}`,
    `zfs list -r ${name}`,
  ];
}

function mdadm(set: PlannedSet, { member: members, spare: spares }: Cast): string[] {
  const device = quoted(`/dev/md/${set.name}`);
  return [
    `mdadm --create ${device} --run --name=${quoted(set.name)} --metadata=1.2 \\`,
    `  --level=${set.type} --raid-devices=${members.length}${spares.length > 0 ? ` --spare-devices=${spares.length}` : ""}${set.stripeKib !== null && set.type !== "1" ? ` --chunk=${set.stripeKib}` : ""} \\`,
    `  ${variables([...members, ...spares])}`,
    comment("So that it is put together at every start."),
    "conf=/etc/mdadm.conf",
    "[ ! -d /etc/mdadm ] || conf=/etc/mdadm/mdadm.conf",
    `mdadm --detail --brief ${device} >>"$conf"`,
    `mdadm --detail ${device}`,
    ...onArray(set, device),
  ];
}

/** Stops a second run: what is to be made is there already. */
const isThere = ({ keeper, name, volumes }: PlannedSet): string =>
  keeper === "ZFS"
    ? `if zpool list -H -o name ${quoted(name)} >/dev/null 2>&1; then stop "a pool of this name is here already"; fi`
    : `if [ -e ${quoted(`/dev/md/${name}`)} ]; then stop "an array of this name is here already"; fi${
        volumes.length > 0
          ? `\nif vgs ${quoted(name)} >/dev/null 2>&1; then stop "a volume group of this name is here already"; fi`
          : ""
      }`;

/**
 * The script that makes a planned set on a system with the tools of Linux: a head that reads every serial and size and
 * refuses anything but the planned drives, then the commands, all drives by their lasting names. Fails where the set cannot
 * be made so, in words that go on after its name. Same sheet, same bytes.
 */
export function setScript(ground: StorageGround, set: PlannedSet, sheet: string): Result<string> {
  const wrong = (message: string): Result<string> => fail({ message });
  if (set.keeper === "RAID controller") return wrong("is created manually in the setup of its controller");
  if (ground.profile?.sets?.[set.keeper] === "by hand")
    return wrong("is created manually: the system has no Linux tools");
  if (set.later !== null) return wrong(`is planned for ${set.later}: the erasure is not confirmed yet`);
  const fault = nameFault(set);
  if (fault) return wrong(`cannot be created: ${fault}`);
  const figures = figuresOf(ground, set);
  if (!figures.ok) return wrong(`cannot be created: ${figures.problems[0]!.message}`);
  const seats = seatsOf(ground, set);
  if (seats.some(({ drive }) => !drive.serial?.trim()))
    return wrong("has a drive without a serial number, which no script can identify");
  const open = seats.filter(
    ({ drive }) => (holdsData(drive) || isUnread(drive)) && !consentFor(ground, drive)?.holds,
  );
  if (open.length > 0)
    return wrong(`erases ${open.length} of its drives, and the erasure is not confirmed on the sheet`);
  const volumes = volumesOf(set, figures.value);
  if (volumes?.fault) return wrong(`cannot be created: ${volumes.fault}`);
  const named = seats.map(({ drive }, i): NamedDrive => {
    return { variable: `d${i + 1}`, drive, mayErase: holdsData(drive) || isUnread(drive) };
  });
  const as = (role: SeatRole) => named.filter((_, i) => seats[i]!.role === role);
  const cast: Cast = {
    ...{ member: as("member"), spare: as("spare") },
    ...{ special: as("special"), log: as("log"), cache: as("cache") },
  };
  const kept = drivesOf(ground).filter((d) => !seats.some((s) => s.drive.id === d.id));
  const isPool = set.keeper === "ZFS";
  const lines = [
    "#!/bin/sh",
    comment(`${sheet}: ${setName(set)}, ${layoutName(figures.value.candidate.layout)}.`),
    comment(`Usable: ${formatBytes(figures.value.candidate.usableBytes)}.`),
    comment(
      "It stops before the first write if a drive does not match the plan, and does nothing if run again.",
    ),
    ...preamble(named, kept, isPool ? ["zpool", "zfs"] : ["mdadm", ...volumePrograms(set)]),
    ...wiping(named),
    ...(isPool ? zpool(set, cast) : mdadm(set, cast)),
  ];
  const at = lines.indexOf(comment("Every drive is the planned one. From here on they are written."));
  return ok([...lines.slice(0, at), isThere(set), ...lines.slice(at), ""].join("\n"));
}

/** A planned set with its script, or with why none is written. */
export interface SetScript {
  id: string;
  title: string;
  /** Name of the file. */
  file: string;
  text: string | null;
  why: string;
}

/** The scripts of all planned sets; `sheet` is how the sheet is called in them. */
export const setScripts = (ground: StorageGround, sheet: string): SetScript[] =>
  ground.sheet.storage.sets.map((set) => {
    const script = setScript(ground, set, sheet);
    return {
      ...{ id: set.id, title: setName(set), file: scriptFile(set) },
      ...(script.ok
        ? { text: script.value, why: "" }
        : { text: null, why: `The ${setName(set)} ${script.problems[0]!.message}.` }),
    };
  });
