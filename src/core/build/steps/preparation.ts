import { writingEstimate, WRITE_HANDS } from "../../boot";
import { takes } from "../../estimate";
import { verificationOf } from "../../image";
import { contentWords, driveLook, holdsData, isUnread } from "../../machine";
import { formatExactBytes } from "../../units";
import { installedOn, keepsSystem, legsOf, roadOf } from "../roads";
import { stickOf, targetsOf, type BuildContext } from "../context";
import type { Guard, Step } from "../step";
import { isAtMachine, wayOf, type LegView } from "./leg";
import { HAZARD, step } from "./make";

/** What is done once, before anything else: the machine is the right one, and what would be lost is saved. */
export function beginning(context: BuildContext): Step[] {
  const { machine } = context;
  const chassis = machine?.document.facts.chassis;
  const atMachine = isAtMachine(context);
  return [
    step("identity", "A", takes(60, 180), {
      title: "Make sure that this is the machine",
      kind: "confirm",
      place: atMachine ? "at the machine" : "console",
      see: [
        chassis?.serial ? `Serial number ${chassis.serial}` : `The label ${machine?.name}`,
        ...(chassis?.assetTag ? [`Asset tag ${chassis.assetTag}`] : []),
      ],
      do: ["Compare on the label or on the controller's first page; read it aloud when two people work."],
      hazards: atMachine ? [HAZARD.lift, HAZARD.mains, HAZARD.static] : [],
    }),
    ...saving(context),
  ];
}

const inPlaceAspects = ["guests", "data pools", "shares", "accounts", "dataset keys"] as const;

/**
 * What has to be saved first, with the place where it was put: on a road that keeps things so that the keeping can be
 * proved, on a fresh installation what the profile says is lost with what stands there now.
 */
function saving(context: BuildContext): Step[] {
  const road = roadOf(context);
  const erased = targetsOf(context).filter(({ drive }) => holdsData(drive) || isUnread(drive));
  if (!keepsSystem(context)) {
    const system = installedOn(context);
    const loses = legsOf(context)[0]?.fate.loses ?? [];
    if (!system && erased.length === 0) return [];
    return [
      saved("Save what this installation loses", [
        ...(loses.length > 0
          ? [`Save outside this machine, as far as it is there: ${loses.join(", ")}.`]
          : []),
        ...erased.map(({ drive }) => `From ${driveLook(drive)}: ${contentWords(drive)}.`),
      ]),
    ];
  }
  const kept = inPlaceAspects.filter((a) => road?.keeps.includes(a));
  const lost = road?.loses ?? [];
  return [
    saved("Save what must still be there afterwards", [
      `Save the lists of ${kept.join(", ") || "what runs on it"} as text, outside this machine.`,
      ...(lost.length > 0
        ? [`These do not come along, and are saved as far as they are there: ${lost.join(", ")}.`]
        : []),
      ...new Set(road?.needs),
    ]),
  ];
}

const saved = (title: string, doing: string[]): Step =>
  step("save-lists", "A", takes(600, 1800), {
    title,
    kind: "read",
    place: "console",
    do: doing,
    see: ["Each part can be opened on another machine"],
    never: ["A part that is there and cannot be saved: then this is not begun"],
    asks: "Where it was put",
    must: "What was not saved is gone once the drive is written, or once the upgrade fails half-way.",
  });

/** The image of a leg is compared with what was published. */
export function imageCompared({ context, prefix, leg, last, imageId }: LegView): Step[] {
  const { image } = context;
  // A jump inside the running system needs the file only where one of its screens names it.
  const needed = leg.through === "installer" || JSON.stringify(leg.screens).includes("{image.file}");
  if (!image || !needed) return [];
  const file = image.fileName || image.name;
  const which = last ? "the image" : image.name;
  if (!image.published || verificationOf(image) === "matches") return [];
  return [
    step(`${prefix}checksum`, "B", takes(60 + image.sizeBytes / 100e6, 240 + image.sizeBytes / 40e6, 0.5), {
      title: `Compare the checksum of ${which}`,
      kind: "confirm",
      type: [
        { label: "Command", value: `${image.published.algorithm}sum '${file.replaceAll("'", "'\\''")}'` },
      ],
      see: [image.published.value],
      do: ["Run it over the very file that will be used. Differs means: stop, fetch the image again."],
      does:
        imageId === null
          ? null
          : { kind: "checksum compared", imageId, image: image.name, checksum: image.published },
    }),
  ];
}

/** The image of a leg is brought onto its medium. */
export function mediumReady(view: LegView): Step[] {
  const { context, prefix, leg } = view;
  const { image } = context;
  if (!image || leg.through !== "installer") return [];
  const file = image.fileName || image.name;
  const way = wayOf(context);
  if (way === "stick" && !context.sheet.image.stick.ready) return writeStick(view, file);
  if (way === "disc") return [burn(context, prefix, file)];
  return way === "network" ? [serve(context, prefix, file)] : [];
}

/** The stick is named by the tail of its serial before it is overwritten, like any drive. */
function stickGuard(context: BuildContext): Guard | null {
  const { known, name, serial, sizeBytes, holds } = stickOf(context);
  if (!serial) return null;
  const tail = serial.slice(-4);
  return {
    group: "stick",
    asks: "the last 4 characters of the stick's serial, as the writing program or lsblk shows it",
    drives: [
      {
        id: known?.key ?? "",
        proof: tail,
        name: [name, sizeBytes ? formatExactBytes(sizeBytes) : ""].filter(Boolean).join(", "),
        holds: holds || "not noted",
      },
    ],
    leaveAlone: context.sticks
      .filter((s) => s.key !== known?.key && s.entry.serial)
      .map(({ entry }) => ({
        tail: (entry.serial ?? "").slice(-4),
        name: entry.label || entry.model || "another stick",
        holds: entry.holds,
      }))
      .filter((other) => other.tail.toUpperCase() !== tail.toUpperCase()),
  };
}

function writeStick({ context, prefix, imageId }: LegView, file: string): Step[] {
  const { image, sheet, samples } = context;
  const { known, name, sizeBytes, holds } = stickOf(context);
  const guard = stickGuard(context);
  const bytes = image?.sizeBytes ?? 0;
  const { duration, figure } = writingEstimate(bytes, known, samples);
  const { written } = sheet.image.stick;
  const title = name || "the stick";
  return [
    ...(guard
      ? [
          step(`${prefix}guard-stick`, "B", takes(30, 90), {
            title: `Make sure that it is ${title}`,
            kind: "guard",
            see: guard.drives.map((d) => `${d.name} – ${d.holds}`),
            do: [
              "The writing program often chooses a stick by itself. Read the serial of the one it offers.",
            ],
            hazards: ["Everything on the stick is lost."],
            guard,
          }),
        ]
      : []),
    step(
      `${prefix}write-stick`,
      "B",
      {
        ...duration,
        likelySeconds: duration.likelySeconds + 60,
        lateSeconds: duration.lateSeconds + 180,
        handsShare: WRITE_HANDS,
      },
      {
        title: `Write the image to ${title}`,
        see: [`${title}, ${sizeBytes ? formatExactBytes(sizeBytes) : "size not noted"}`],
        do: [
          `Write ${file} ${written === "as the image" ? "byte for byte" : `for ${written} firmware`}.`,
          "The writing program often chooses a stick by itself: check size and name before agreeing.",
        ],
        hazards: holds ? [`Everything on the stick is lost: ${holds}.`] : [],
        figure,
        moves: known ? { way: "stick", through: known.key, bytes } : null,
        does:
          known && image
            ? { kind: "stick written", stick: known.key, imageId: imageId ?? "", image: image.name, written }
            : null,
      },
    ),
    step(`${prefix}read-back`, "B", takes(30 + bytes / 60e6, 120 + bytes / 15e6, 0.2), {
      title: `Read ${title} back and compare`,
      kind: "confirm",
      do: [
        "Let the writing program compare, or read as many bytes as the image has and compute their checksum.",
      ],
      see: ["The same checksum, or the program's word that both are the same"],
      never: ["A difference in any byte: a worn stick takes what is written and gives something else back"],
      must: "A stick that was not read back may fail in the middle of the installation.",
      does: known ? { kind: "stick read back", stick: known.key } : null,
    }),
  ];
}

const burn = (context: BuildContext, prefix: string, file: string): Step =>
  step(
    `${prefix}burn`,
    "B",
    takes(120 + (context.image?.sizeBytes ?? 0) / 6e6, 300 + (context.image?.sizeBytes ?? 0) / 3e6, 0.1),
    {
      title: "Burn the image to a disc",
      do: [
        `Burn ${file} as an image, not as a file on a data disc, and read it back.`,
        "Write name, version and date on it.",
      ],
      see: ["The program says that what it read back is the same"],
      hazards: [HAZARD.laser],
    },
  );

const serve = (context: BuildContext, prefix: string, file: string): Step =>
  step(`${prefix}serve`, "B", takes(300, 1200), {
    title: "Put the image on the boot service",
    do: [
      `Copy loader, kernel and files of ${file} to the boot service, for this machine's MAC only.`,
      "Only one DHCP service may answer on the segment.",
    ],
    see: [`The boot service lists ${context.sheet.network.port ?? "the machine's MAC"}`],
    never: ["An entry that holds for every machine of the segment"],
  });
