import { modeWords } from "../boot";
import { takes, transferEstimate, type Duration, type LinkMeasure } from "../estimate";
import type { Screen } from "../image";
import { verificationOf } from "../image";
import { contentWords, driveName, serialTail } from "../machine";
import { dispositionOf } from "../storage";
import { fillTemplate } from "../text";
import { formatExactBytes } from "../units";
import { drivesOf, targetOf, type BuildContext } from "./context";
import type { Guard, Step } from "./step";
import { valuesOf } from "./values";

/** Controllers differ; until one is measured these are taken (see transferEstimate for what they mean). */
const DEFAULT_LINK: LinkMeasure = {
  linkBitsPerSecond: 100e6,
  roundTripSeconds: 0.005,
  controllerCeilingBytesPerSecond: 6e6,
  blockBytes: 65_536,
  outstandingRequests: 1,
  linkTyped: false,
};

/** Writing rate of an ordinary stick, in bytes per second, verify included. */
const STICK_RATE = 10e6;

const HAZARD = {
  static: "Static discharge: touch bare metal of the chassis or wear a strap before reaching inside.",
  lift: "Racking: two people or a lift for anything you would not carry alone; follow the maker's manual.",
  mains: "Mains and UPS work follow local rules and belong to licensed people.",
  erase: "From here on the target's content is lost for good.",
};

const STEP: Omit<Step, "id" | "zone" | "title" | "duration"> = {
  kind: "act",
  place: "desk",
  see: [],
  never: [],
  do: [],
  type: [],
  secret: [],
  keys: "",
  expected: [],
  hazards: [],
  guard: null,
  figure: null,
  after: {},
};

type Made = Partial<Step> & Pick<Step, "title">;
const step = (id: string, zone: Step["zone"], duration: Duration, made: Made): Step => ({
  ...STEP,
  id,
  zone,
  duration,
  ...made,
});

/**
 * Derives the steps of a build in working order. Same context, same steps: nobody types them. A build without a
 * profile has none, since only the profile knows the installer's screens.
 */
export function deriveSteps(context: BuildContext): Step[] {
  const { profile, image, machine } = context;
  if (!profile || !image || !machine) return [];
  return [
    ...preparation(context),
    ...firmware(context),
    ...profile.screens.flatMap((screen) => screenSteps(context, screen, "H")),
    ...restart(context),
    ...profile.firstBoot.flatMap((screen) => screenSteps(context, screen, "I")),
    ...closing(context),
  ];
}

const isStick = (context: BuildContext): boolean => context.sheet.image.way === "stick";
const mediaWords = (context: BuildContext): string =>
  isStick(context) ? context.sheet.image.stick.name || "stick" : "virtual CD";

function preparation(context: BuildContext): Step[] {
  const { image, machine, sheet } = context;
  const chassis = machine?.document.facts.chassis;
  const file = image?.fileName || image?.name || "image";
  const steps = [
    step("identity", "A", takes(60, 180), {
      title: "Make sure that this is the machine",
      kind: "confirm",
      place: isStick(context) ? "at the machine" : "console",
      see: [
        chassis?.serial ? `Serial number ${chassis.serial}` : `The label ${machine?.name}`,
        ...(chassis?.assetTag ? [`Asset tag ${chassis.assetTag}`] : []),
      ],
      do: ["Compare on the label or on the controller's first page; read it aloud when two people work."],
      hazards: isStick(context) ? [HAZARD.lift, HAZARD.mains, HAZARD.static] : [],
    }),
  ];
  if (image?.published && verificationOf(image) !== "matches")
    steps.push(
      step("checksum", "B", takes(60 + image.sizeBytes / 100e6, 240 + image.sizeBytes / 40e6, 0.5), {
        title: "Compare the checksum of the image",
        kind: "confirm",
        type: [
          { label: "Command", value: `${image.published.algorithm}sum '${file.replaceAll("'", "'\\''")}'` },
        ],
        see: [image.published.value],
        do: ["Run it over the very file that will be used. Differs means: stop, fetch the image again."],
      }),
    );
  if (isStick(context) && image)
    steps.push(
      step(
        "write-stick",
        "B",
        takes(60 + (2 * image.sizeBytes) / STICK_RATE, 180 + (4 * image.sizeBytes) / STICK_RATE, 0.15),
        {
          title: `Write the image to ${sheet.image.stick.name || "the stick"}`,
          see: [
            `${sheet.image.stick.name || "The stick"}, ${sheet.image.stick.sizeBytes ? formatExactBytes(sheet.image.stick.sizeBytes) : "size not noted"}`,
          ],
          do: [
            `Write ${file} ${sheet.image.stick.written === "as the image" ? "byte for byte" : `for ${sheet.image.stick.written} firmware`}, then read it back and compare.`,
            "The writing program often chooses a stick by itself: check size and name before agreeing.",
          ],
          hazards: sheet.image.stick.holds
            ? [`Everything on the stick is lost: ${sheet.image.stick.holds}.`]
            : [],
        },
      ),
    );
  return steps;
}

function firmware(context: BuildContext): Step[] {
  const { sheet, image, profile } = context;
  const stick = isStick(context);
  const place = stick ? ("at the machine" as const) : ("console" as const);
  const media = mediaWords(context);
  const book = context.machine?.document.typed.keys;
  const menuKey = sheet.boot.menuKey || book?.bootMenu;
  const when = book?.seconds ? `about ${book.seconds} s after power on` : "when the maker's logo shows";
  const key = menuKey ? `${menuKey} ${when}` : `the boot-menu key of this maker ${when}`;
  return [
    step("firmware", "C", takes(300, 720), {
      title: "Check the firmware settings",
      place,
      do: [
        `Boot mode ${modeWords(sheet.boot.mode)}.`,
        ...(sheet.boot.mode === "uefi" ? [`Secure boot ${sheet.boot.secureBoot}.`] : []),
        ...(profile?.requirements.virtualisation === "not needed"
          ? []
          : ["Virtualisation and the IOMMU on."]),
        "After power loss: last state or always on. Clock in UTC, right to the minute.",
        "All memory and every processor are listed. Leave the permanent boot order as it is.",
      ],
      see: [`Memory and processors as on the sheet of ${context.machine?.name}`],
      after: { power: "on", media: "none", nextBoot: "as ordered", target: "untouched" },
    }),
    step("media-in", "C", takes(60, 240), {
      title: stick ? `Put in ${media}` : "Map the image as virtual CD",
      place,
      do: stick
        ? [`Put ${media} into a port of the machine itself, not of a hub or screen.`]
        : ["Map read-only, and keep this session open until the installation has ended."],
      see: stick ? [] : [`${image?.fileName || image?.name} is shown as connected`],
      after: { media: stick ? media : `${image?.fileName || image?.name} mapped` },
    }),
    step("one-time", "C", takes(60, 180), {
      title:
        sheet.boot.start === "one-time boot"
          ? `Choose ${media} for the next start only`
          : `Put ${media} first in the boot order`,
      place,
      do:
        sheet.boot.start === "one-time boot"
          ? [`Restart and press ${key}; choose ${media} in ${modeWords(sheet.boot.mode)} mode.`]
          : ["Remember that this order must be undone before the first restart."],
      see: [`An entry for ${media} marked ${modeWords(sheet.boot.mode)}`],
      after: {
        power: "on",
        nextBoot: sheet.boot.start === "one-time boot" ? `once: ${media}` : `always: ${media}`,
      },
    }),
  ];
}

const inWords = (context: BuildContext) => {
  const values = valuesOf(context);
  return (text: string): string => fillTemplate(text, values);
};

function screenSteps(context: BuildContext, screen: Screen, zone: "H" | "I"): Step[] {
  const dynamic = context.sheet.network.school !== "fixed";
  if (screen.when === "fixed address" && dynamic) return [];
  if (screen.when === "dynamic address" && !dynamic) return [];
  const fill = inWords(context);
  const { duration, figure } = screenDuration(context, screen);
  const made = step(`${zone === "H" ? "screen" : "first"}-${screen.id}`, zone, duration, {
    title: fill(screen.title),
    kind: screen.wait ? "wait" : screen.type.length > 0 || screen.secret.length > 0 ? "type" : "act",
    place: "console",
    see: screen.see.map(fill),
    never: screen.never.map(fill),
    do: screen.do.map(fill),
    type: screen.type.map((t) => ({ label: t.label, value: fill(t.value) })),
    secret: screen.secret.map(fill),
    keys: screen.keys,
    expected: screen.expected,
    hazards: screen.destroys ? [HAZARD.erase] : [],
    figure,
    after: screen.destroys
      ? { target: "at risk" }
      : screen.wait && zone === "H" && screen.readsShare < 1
        ? { target: "installed" }
        : {},
  });
  const guard = screen.destroys ? guardFor(context) : null;
  if (!guard) return [made];
  return [
    step(`guard-${screen.id}`, zone, takes(45, 150), {
      title: "Name the drive before anything is written",
      kind: "guard",
      place: "console",
      see: [guard.target],
      do: [
        "Open the installer's details of the drive that you are about to choose. Read the serial from the screen, not from here.",
      ],
      hazards: [HAZARD.erase],
      guard,
    }),
    made,
  ];
}

/** The profile's time, or the time that the share of the image takes through this site's link, whichever is longer. */
function screenDuration(context: BuildContext, screen: Screen): Pick<Step, "duration" | "figure"> {
  const plain = takes(screen.likely, screen.late, screen.wait ? 0.05 : 1);
  if (screen.readsShare === 0 || isStick(context) || !context.image) return { duration: plain, figure: null };
  const link = context.site?.link;
  const measure = link
    ? {
        ...DEFAULT_LINK,
        linkBitsPerSecond: link.bitsPerSecond,
        roundTripSeconds: link.roundTripSeconds,
        linkTyped: true,
      }
    : DEFAULT_LINK;
  const { duration, figure } = transferEstimate(context.image.sizeBytes * screen.readsShare, measure);
  if (duration.likelySeconds <= plain.likelySeconds) return { duration: plain, figure: null };
  return {
    duration: {
      ...duration,
      lateSeconds: Math.max(duration.lateSeconds, plain.lateSeconds),
      handsShare: plain.handsShare,
    },
    figure,
  };
}

function guardFor(context: BuildContext): Guard | null {
  const target = targetOf(context);
  if (!target) return null;
  const tail = serialTail(target);
  return {
    expect: tail || String(target.sizeBytes),
    asks: tail
      ? `the last ${tail.length} characters of the serial that the console shows`
      : "the size in bytes that the console shows (the drive reports no serial)",
    target: driveName(target),
    leaveAlone: drivesOf(context)
      .filter((d) => dispositionOf(d, context.sheet.storage) !== "target")
      .map((d) => ({ tail: serialTail(d), name: driveName(d), holds: contentWords(d) })),
  };
}

function restart(context: BuildContext): Step[] {
  const media = mediaWords(context);
  const { profile, sheet } = context;
  const orderToo =
    sheet.boot.start === "one-time boot" ? [] : ["Put the permanent boot order back: the target first."];
  return [
    step("media-out", "H", takes(45, 120), {
      title: isStick(context) ? `Take ${media} out` : "Unmap the virtual CD",
      place: isStick(context) ? "at the machine" : "console",
      do: ["Do this before the restart: media left in place starts the installer again.", ...orderToo],
      see: [isStick(context) ? "No stick in any port" : "No media connected"],
      after: { media: "none", nextBoot: "as ordered" },
    }),
    step("restart", "H", takes(profile?.restart.likely ?? 180, profile?.restart.late ?? 600, 0.1), {
      title: "Restart into the installed system",
      kind: "wait",
      place: "console",
      see: [`${sheet.answers.hostName || "The host name"} on the console`],
      never: ["The installer's first screen again", "No boot device found"],
      after: { power: "on", target: "installed" },
    }),
  ];
}

function closing(context: BuildContext): Step[] {
  const fill = inWords(context);
  const management = context.profile?.management.address ?? "";
  return [
    step(
      "cold-start",
      "J",
      takes((context.profile?.restart.likely ?? 180) + 60, (context.profile?.restart.late ?? 600) + 120, 0.2),
      {
        title: "Start once from power off, without media",
        kind: "wait",
        place: "console",
        do: ["Shut down, switch off, switch on, and touch nothing."],
        see: ["The system comes up by itself", fill(management)],
        after: { power: "on" },
      },
    ),
    step("collect", "J", takes(180, 480), {
      title: "Read the machine back",
      kind: "read",
      place: "console",
      do: [
        "Run the collector on the installed system and drop its bundle on the acceptance below. Derrick compares it with the plan line by line.",
      ],
      see: ["Every line of the acceptance is answered"],
    }),
    step("hand-over", "K", takes(300, 900), {
      title: "Hand over",
      kind: "confirm",
      do: [
        `Hand the record to ${context.sheet.handOver.owner || "the owner"}; show how the machine is reached and where its passwords are kept.`,
      ],
      see: [fill(management)],
    }),
  ];
}
