import { writingEstimate, WRITE_HANDS } from "../../boot";
import { takes } from "../../estimate";
import { ASPECTS, verificationOf } from "../../image";
import { formatExactBytes } from "../../units";
import { roadOf } from "../roads";
import { stickOf, type BuildContext } from "../context";
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

/** What has to be written down or saved before a road that keeps things, so that the keeping can be proved. */
function saving(context: BuildContext): Step[] {
  const road = roadOf(context);
  if (!road || road.road === "fresh" || road.legs.length === 0) return [];
  const listed = ASPECTS.filter((a) =>
    ["guests", "data pools", "shares", "accounts", "dataset keys"].includes(a),
  );
  return [
    step("save-lists", "A", takes(600, 1800), {
      title: "Save what must still be there afterwards",
      kind: "read",
      place: "console",
      do: [
        `Save the lists of ${listed.filter((a) => road.keeps.includes(a)).join(", ") || "what runs on it"} as text, outside this machine.`,
        ...[...new Set(road.needs)],
      ],
      see: ["Each list can be opened on another machine"],
      never: ["A need above that is not met: then this road is not begun"],
    }),
  ];
}

/** The image of a leg is compared and brought onto its medium. */
export function imageReady({ context, prefix, leg, last }: LegView): Step[] {
  const { image } = context;
  // A jump inside the running system needs the file only where one of its screens names it.
  const needed = leg.through === "installer" || JSON.stringify(leg.screens).includes("{image.file}");
  if (!image || !needed) return [];
  const file = image.fileName || image.name;
  const which = last ? "the image" : image.name;
  const steps: Step[] = [];
  if (image.published && verificationOf(image) !== "matches")
    steps.push(
      step(`${prefix}checksum`, "B", takes(60 + image.sizeBytes / 100e6, 240 + image.sizeBytes / 40e6, 0.5), {
        title: `Compare the checksum of ${which}`,
        kind: "confirm",
        type: [
          { label: "Command", value: `${image.published.algorithm}sum '${file.replaceAll("'", "'\\''")}'` },
        ],
        see: [image.published.value],
        do: ["Run it over the very file that will be used. Differs means: stop, fetch the image again."],
      }),
    );
  if (leg.through !== "installer") return steps;
  const way = wayOf(context);
  if (way === "stick" && !context.sheet.image.stick.ready) steps.push(...writeStick(context, prefix, file));
  if (way === "disc") steps.push(burn(context, prefix, file));
  if (way === "network") steps.push(serve(context, prefix, file));
  return steps;
}

/** The stick is named by the tail of its serial before it is overwritten, like any drive. */
function stickGuard(context: BuildContext): Guard | null {
  const { known, name, serial, sizeBytes, holds } = stickOf(context);
  if (!serial) return null;
  const tail = serial.slice(-4);
  return {
    expect: tail,
    asks: "the last 4 characters of the stick's serial, as the writing program or lsblk shows it",
    target: [name, sizeBytes ? formatExactBytes(sizeBytes) : "", `serial …${tail}`, holds]
      .filter(Boolean)
      .join(", "),
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

function writeStick(context: BuildContext, prefix: string, file: string): Step[] {
  const { image, sheet, samples } = context;
  const { known, name, sizeBytes, holds, serial } = stickOf(context);
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
            see: [guard.target],
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
        see: [
          `${title}, ${sizeBytes ? formatExactBytes(sizeBytes) : "size not noted"}${serial ? `, serial ${serial}` : ""}`,
        ],
        do: [
          `Write ${file} ${written === "as the image" ? "byte for byte" : `for ${written} firmware`}, then read it back and compare.`,
          "The writing program often chooses a stick by itself: check size and name before agreeing.",
        ],
        hazards: holds ? [`Everything on the stick is lost: ${holds}.`] : [],
        figure,
        moves: known ? { way: "stick", through: known.key, bytes } : null,
      },
    ),
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
