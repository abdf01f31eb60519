import { takes } from "../../estimate";
import { bayWords, driveLook, type Drive } from "../../machine";
import { HAZARD, operation, output, statement, type CommonParts, type Operation } from "../../work";
import { formatBytes, formatDuration } from "../../units";
import { layoutName } from "../bench/words.en";
import type { StorageGround } from "../ground";
import {
  figuresOf,
  kindWords,
  madeId,
  scriptFile,
  seatsOf,
  setName,
  setsNow,
  volumesOf,
  type PlannedSet,
  type SeatRole,
  type SetFigures,
} from "../sets";
import { guardSteps } from "./guards";

const byController = ({ keeper }: PlannedSet): boolean => keeper === "RAID controller";
/** The guard before asks for the serial, so nothing of it stands here. */
const placeOf = (drive: Drive): string =>
  drive.bay ? bayWords(drive.bay) : `${driveLook(drive)}, was ${drive.seenAs}`;

const HELPERS = {
  special: "Special devices, mirrored",
  log: "Log devices",
  cache: "Cache devices",
} as const;

/** What is made on a set, each with its size. */
function volumeLines(set: PlannedSet, figures: SetFigures): string[] {
  const { volumes = [] } = volumesOf(set, figures) ?? {};
  const on = set.keeper === "ZFS" ? "in it" : `in the volume group ${set.name}`;
  return volumes.map(({ name, promisedBytes, dfBytes }) =>
    promisedBytes === null
      ? `${name}: a file system ${on}.`
      : `${name}: ${set.provision} volume ${on}, ${formatBytes(promisedBytes)}${dfBytes === null ? "" : `; df shows ${formatBytes(dfBytes)}`}.`,
  );
}

/** "raidz2 of 10, 1 spare, of bay 0, bay 1 …; 86.9 TB can be used then"; without figures while its drives make none. */
function inWords(plan: StorageGround, set: PlannedSet): string[] {
  const seats = seatsOf(plan, set);
  const places = (role: SeatRole): string =>
    seats
      .filter((s) => s.role === role)
      .map((s) => placeOf(s.drive))
      .join(", ");
  const figures = figuresOf(plan, set);
  const spares = places("spare");
  const helpers = (["special", "log", "cache"] as const).flatMap((role) => {
    const own = places(role);
    return own ? [`${HELPERS[role]}: ${own}.`] : [];
  });
  return [
    `${setName(set)}: ${figures.ok ? layoutName(figures.value.candidate.layout) : set.type}. Members: ${places("member")}.${spares ? ` Hot spares: ${spares}.` : ""}`,
    ...helpers,
    ...(figures.ok ? [`Usable: ${formatBytes(figures.value.candidate.usableBytes)}.`] : []),
    ...(figures.ok ? volumeLines(set, figures.value) : []),
  ];
}

/** What a page of an appliance is told about the sets that it makes. */
export const setLines = (plan: StorageGround): string[] =>
  setsNow(plan.sheet.storage.sets)
    .filter((s) => !byController(s))
    .flatMap((set) => inWords(plan, set));

/** An array with parity or copies is made whole behind the first use, and bears nothing until then. */
function firstSync(plan: StorageGround, set: PlannedSet): string[] {
  const figures = figuresOf(plan, set);
  if (!figures.ok || set.keeper === "ZFS" || figures.value.candidate.survival.worst === 0) return [];
  const { likely, late } = figures.value.candidate.rebuild;
  return [
    `The first synchronisation takes about ${formatDuration(likely)}, up to ${formatDuration(late)}. Until it ends, a drive failure can lose data.`,
  ];
}

const erasing = (plan: StorageGround, set: PlannedSet): Pick<CommonParts, "hazards" | "effects"> => ({
  hazards: [HAZARD.erase],
  effects: [
    { do: "write drives", drives: seatsOf(plan, set).map((s) => s.drive.id), erases: true, of: "free" },
  ],
});

/**
 * The sets that are made by a script once the system runs, each behind a guard that names one of its drives; the script
 * compares all of them itself. A system whose own page makes sets gets them there, and none here.
 */
export function setSteps(plan: StorageGround): Operation[] {
  const isScripted = ({ keeper }: PlannedSet): boolean =>
    keeper === "RAID controller" || plan.profile?.sets?.[keeper] !== "by hand";
  if (plan.profile?.firstBoot.some((screen) => screen.drive === "others")) return [];
  const scripted = setsNow(plan.sheet.storage.sets).filter((s) => !byController(s));
  return scripted.flatMap((set) => [
    ...guardSteps(
      plan,
      seatsOf(plan, set).map((s) => s.drive),
      {
        ...{ id: `set-guard-${set.id}`, group: `set-${set.id}`, zone: "I" as const, count: 1 },
        ...{ chooses: false, changes: false },
      },
    ),
    operation(`set-${set.id}`, "I", takes(180, 600), {
      title: `Create the ${setName(set)}`,
      kind: "act",
      place: "console",
      ...erasing(plan, set),
      do: [
        ...inWords(plan, set),
        isScripted(set)
          ? "Download the script from the page Commands of the sheet, read it, and run it as root. It compares serial number and size of every drive before it writes."
          : "Create it manually with the tools of the system, and use stable drive names; read each serial number again before you write.",
        ...firstSync(plan, set),
      ],
      lines: isScripted(set) ? [{ label: "Command", value: `sh ${scriptFile(set)}` }] : [],
      sees: [
        output(set.name),
        output(set.keeper === "ZFS" ? "ONLINE" : "State : clean, or active with a resync"),
      ],
      normal: isScripted(set)
        ? [
            {
              sight: output("STOP, nothing was written"),
              means:
                "A drive does not match the plan; the rest of the line says which. Compare, correct the sheet, and download the script again.",
            },
          ]
        : [],
      must: "Without it, data is stored on the system drive.",
    }),
  ]);
}

/** The virtual drives that a controller makes in its set-up pages before anything is installed. */
export function controllerSetSteps(plan: StorageGround): Operation[] {
  return setsNow(plan.sheet.storage.sets)
    .filter(byController)
    .flatMap((set) => {
      const drives = seatsOf(plan, set).map((s) => s.drive);
      return [
        ...guardSteps(plan, drives, {
          ...{ id: `set-guard-${set.id}`, group: `set-${set.id}`, zone: "C" as const, count: drives.length },
          ...{ chooses: false, changes: false },
        }),
        operation(`set-${set.id}`, "C", takes(300, 900), {
          title: `Create the ${setName(set)} in the setup of the controller`,
          kind: "act",
          place: "console",
          ...erasing(plan, set),
          do: [
            ...inWords(plan, set),
            `Stripe size: ${set.stripeKib === null ? "controller default" : `${set.stripeKib} KiB`}. Cache: ${set.cache === "not said" ? "controller default; write-back only with a battery" : set.cache}.`,
            ...(plan.sheet.storage.target === madeId(set)
              ? ["Make it the boot drive of the controller: the system is installed on it."]
              : []),
            "Choose fast initialisation; a full initialisation writes every sector and continues in the background.",
            ...firstSync(plan, set),
          ],
          sees: [output(`${kindWords(set)} ${set.name}`), statement("optimal, or initialising")],
          never: [
            statement("Clearing the configuration: that deletes all other virtual drives of the controller"),
          ],
          records: "Size and identifier (WWN) of the virtual drive, as the controller shows them",
        }),
      ];
    });
}
