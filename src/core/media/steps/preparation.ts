import { takes } from "../../estimate";
import { verificationOf, type LegView } from "../../image";
import { HAZARD, operation, statement, type DriveNaming, type Operation } from "../../work";
import { formatExactBytes } from "../../units";
import { isServed, stickOf, wayOf, type MediaGround } from "../ground";
import { WRITE_HANDS, writingEstimate } from "../ways";

type Ground = MediaGround & { sheet: { network: { port: string | null } } };
type View = LegView<Ground>;

/** The image of a leg is compared with what was published. */
export function imageCompared({ plan, prefix, leg, last, imageId }: View): Operation[] {
  const { image } = plan;
  // A jump inside the running system needs the file only where one of its screens names it.
  const needed = leg.through === "installer" || JSON.stringify(leg.screens).includes("{image.file}");
  if (!image || !needed) return [];
  const file = image.fileName || image.name;
  const which = last ? "the image" : image.name;
  if (!image.published || verificationOf(image) === "matches") return [];
  return [
    operation(
      `${prefix}checksum`,
      "B",
      takes(60 + image.sizeBytes / 100e6, 240 + image.sizeBytes / 40e6, 0.5),
      {
        title: `Verify the checksum of ${which}`,
        kind: "confirm",
        lines: [
          { label: "Command", value: `${image.published.algorithm}sum '${file.replaceAll("'", "'\\''")}'` },
        ],
        sees: [{ of: "checksum", value: image.published.value }],
        do: [
          "Run it on the file that you will use. If it does not match: stop, and download the image again.",
        ],
        deeds:
          imageId === null
            ? []
            : [{ kind: "checksum compared", imageId, image: image.name, checksum: image.published }],
      },
    ),
  ];
}

/** The image of a leg is brought onto its medium. */
export function mediumReady(view: View): Operation[] {
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
function stickGuard(plan: MediaGround): DriveNaming | null {
  const { known, name, serial, sizeBytes, holds } = stickOf(plan);
  if (!serial) return null;
  const tail = serial.slice(-4);
  return {
    group: "stick",
    asks: "last 4 characters of the serial number of the stick, as shown by the writing program or lsblk",
    drives: [
      {
        id: known?.key ?? "",
        proof: tail,
        name: [name, sizeBytes ? formatExactBytes(sizeBytes) : ""].filter(Boolean).join(", "),
        holds: holds || "not recorded",
      },
    ],
    leaveAlone: plan.sticks
      .filter((s) => s.key !== known?.key && s.entry.serial)
      .map(({ entry }) => ({
        tail: (entry.serial ?? "").slice(-4),
        name: entry.label || entry.model || "another USB stick",
        holds: entry.holds,
      }))
      .filter((other) => other.tail.toUpperCase() !== tail.toUpperCase()),
  };
}

function writeStick({ plan, prefix, imageId }: View, file: string): Operation[] {
  const { image, sheet, samples } = plan;
  const { known, name, sizeBytes, holds } = stickOf(plan);
  const guard = stickGuard(plan);
  const bytes = image?.sizeBytes ?? 0;
  const { duration, figure } = writingEstimate(bytes, known, samples);
  const { written } = sheet.image.stick;
  const title = name || "the USB stick";
  return [
    ...(guard
      ? [
          operation(`${prefix}guard-stick`, "B", takes(30, 90), {
            title: `Identify ${title}`,
            kind: "name drive",
            sees: guard.drives.map((d) => ({ of: "drive", look: d.name, holds: d.holds })),
            do: ["The writing program often preselects a device. Read the serial number of that device."],
            hazards: ["All data on the stick is lost."],
            ...guard,
          }),
        ]
      : []),
    operation(
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
        kind: "act",
        sees: [{ of: "device", name: title, sizeBytes: sizeBytes ?? null }],
        do: [
          `Write ${file} ${written === "as the image" ? "byte for byte" : `for ${written === "uefi" ? "UEFI" : "legacy BIOS"} firmware`}.`,
          "The writing program often preselects a device: check size and name before you confirm.",
        ],
        hazards: holds ? [`All data on the stick is lost: ${holds}.`] : [],
        figure,
        measures: known ? [{ of: "transfer", way: "stick", through: known.key, bytes }] : [],
        deeds:
          known && image
            ? [
                {
                  kind: "stick written",
                  stick: known.key,
                  imageId: imageId ?? "",
                  image: image.name,
                  written,
                },
              ]
            : [],
      },
    ),
    operation(`${prefix}read-back`, "B", takes(30 + bytes / 60e6, 120 + bytes / 15e6, 0.2), {
      title: `Verify ${title}`,
      kind: "confirm",
      do: [
        "Use the verification of the writing program, or read as many bytes as the image has and compute their checksum.",
      ],
      sees: [statement("The same checksum, or a message that both are identical")],
      never: [statement("A difference in any byte: a worn stick accepts writes and returns other data")],
      must: "A stick that was not verified can fail during the installation.",
      deeds: known ? [{ kind: "stick read back", stick: known.key }] : [],
    }),
  ];
}

const burn = (plan: MediaGround, prefix: string, file: string): Operation =>
  operation(
    `${prefix}burn`,
    "B",
    takes(120 + (plan.image?.sizeBytes ?? 0) / 6e6, 300 + (plan.image?.sizeBytes ?? 0) / 3e6, 0.1),
    {
      title: "Burn the image to an optical disc",
      kind: "act",
      do: [
        `Burn ${file} as an image, not as a file on a data disc, and verify it.`,
        "Label it with name, version and date.",
      ],
      sees: [statement("The program reports that the disc is identical to the image")],
      hazards: [HAZARD.laser],
    },
  );

const serve = (plan: Ground, prefix: string, file: string): Operation =>
  operation(`${prefix}serve`, "B", takes(300, 1200), {
    title: "Copy the image to the boot service",
    kind: "act",
    do: [
      `Copy loader, kernel and files of ${file} to the boot service, for the MAC of this machine only.`,
      "Only one DHCP server may respond in this network.",
    ],
    sees: [
      { of: "boot service", tells: "listed", machine: plan.sheet.network.port ?? "the MAC of the machine" },
    ],
    never: [statement("An entry that applies to all machines of the network")],
  });

const lead = (prefix: string): Operation =>
  operation(`${prefix}lead`, "B", takes(120, 600), {
    title: "Check that the DHCP server of the site directs machines to Derrick",
    kind: "act",
    do: ["Compare its configuration with the text on the page Network installations."],
    sees: [statement("The address of the boot script, as on that page")],
    never: [statement("A second DHCP server in the network that names a boot file")],
  });
