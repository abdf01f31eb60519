import { takes } from "../../estimate";
import { verificationOf, type LegView } from "../../image";
import { HAZARD, step, type Guard, type Step } from "../../stage";
import { formatExactBytes } from "../../units";
import { isServed, stickOf, wayOf, type MediaGround } from "../ground";
import { WRITE_HANDS, writingEstimate } from "../ways";

type Ground = MediaGround & { sheet: { network: { port: string | null } } };
type View = LegView<Ground>;

/** The image of a leg is compared with what was published. */
export function imageCompared({ plan, prefix, leg, last, imageId }: View): Step[] {
  const { image } = plan;
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
export function mediumReady(view: View): Step[] {
  const { plan, prefix, leg } = view;
  const { image } = plan;
  if (!image || leg.through !== "installer") return [];
  const file = image.fileName || image.name;
  const way = wayOf(plan);
  if (way === "stick" && !plan.sheet.image.stick.ready) return writeStick(view, file);
  if (way === "disc") return [burn(plan, prefix, file)];
  if (way !== "network") return [];
  return [isServed(plan) ? lead(prefix) : serve(plan, prefix, file)];
}

/** The stick is named by the tail of its serial before it is overwritten, like any drive. */
function stickGuard(plan: MediaGround): Guard | null {
  const { known, name, serial, sizeBytes, holds } = stickOf(plan);
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
    leaveAlone: plan.sticks
      .filter((s) => s.key !== known?.key && s.entry.serial)
      .map(({ entry }) => ({
        tail: (entry.serial ?? "").slice(-4),
        name: entry.label || entry.model || "another stick",
        holds: entry.holds,
      }))
      .filter((other) => other.tail.toUpperCase() !== tail.toUpperCase()),
  };
}

function writeStick({ plan, prefix, imageId }: View, file: string): Step[] {
  const { image, sheet, samples } = plan;
  const { known, name, sizeBytes, holds } = stickOf(plan);
  const guard = stickGuard(plan);
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

const burn = (plan: MediaGround, prefix: string, file: string): Step =>
  step(
    `${prefix}burn`,
    "B",
    takes(120 + (plan.image?.sizeBytes ?? 0) / 6e6, 300 + (plan.image?.sizeBytes ?? 0) / 3e6, 0.1),
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

const serve = (plan: Ground, prefix: string, file: string): Step =>
  step(`${prefix}serve`, "B", takes(300, 1200), {
    title: "Put the image on the boot service",
    do: [
      `Copy loader, kernel and files of ${file} to the boot service, for this machine's MAC only.`,
      "Only one DHCP service may answer on the segment.",
    ],
    see: [`The boot service lists ${plan.sheet.network.port ?? "the machine's MAC"}`],
    never: ["An entry that holds for every machine of the segment"],
  });

const lead = (prefix: string): Step =>
  step(`${prefix}lead`, "B", takes(120, 600), {
    title: "Make sure that the site's DHCP server leads to Derrick",
    do: ["Compare what it is told with the text for it on the page of network boot."],
    see: ["The address of the boot script, as that page shows it"],
    never: ["A second DHCP server on the segment that names something to start"],
  });
