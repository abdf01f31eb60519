import { modeWords } from "../../boot";
import { takes } from "../../estimate";
import type { BuildContext } from "../context";
import type { Step } from "../step";
import { isAtMachine, mediaWords, wayOf, type LegView } from "./leg";
import { HAZARD, step } from "./make";

const place = (context: BuildContext) =>
  isAtMachine(context) ? ("at the machine" as const) : ("console" as const);

const whenTaken = (seconds: number | null | undefined): string =>
  seconds ? `about ${seconds} s after power on` : "when the maker's logo shows";

/** The firmware as it is for the whole build; looked at once. */
export function settings(context: BuildContext): Step {
  const { sheet, profile } = context;
  const keys = context.machine?.document.typed.keys;
  return step("firmware", "C", takes(300, 720), {
    title: "Check the firmware settings",
    place: place(context),
    do: [
      ...(keys?.setup ? [`Into the settings: ${keys.setup} ${whenTaken(keys.seconds)}.`] : []),
      `Boot mode ${modeWords(sheet.boot.mode)}.`,
      ...(sheet.boot.mode === "uefi" ? [`Secure boot ${sheet.boot.secureBoot}.`] : []),
      ...(profile?.requirements.virtualisation === "not needed" ? [] : ["Virtualisation and the IOMMU on."]),
      "After power loss: last state or always on. Clock in UTC, right to the minute.",
      "All memory and every processor are listed. Leave the permanent boot order as it is.",
    ],
    see: [`Memory and processors as on the sheet of ${context.machine?.name}`],
    after: { power: "on", media: "none", nextBoot: "as ordered", target: "untouched" },
  });
}

/** The medium goes in and is started once. */
export function mediaIn({ context, prefix }: LegView): Step[] {
  const { sheet, image, profile } = context;
  const way = wayOf(context);
  const media = mediaWords(context);
  const mode = modeWords(sheet.boot.mode);
  const book = context.machine?.document.typed.keys;
  // Many machines have a key of its own for starting from the network.
  const menuKey = (way === "network" && book?.network) || sheet.boot.menuKey || book?.bootMenu;
  const waits = profile?.firmware.bootMenuSeconds;
  const when = whenTaken(book?.seconds);
  const key = menuKey ? `${menuKey} ${when}` : `the boot-menu key of this maker ${when}`;
  const once = sheet.boot.start === "one-time boot";
  const file = image?.fileName || image?.name || "the image";
  const insert: Record<typeof way, Pick<Step, "title" | "do" | "see"> & { media: string }> = {
    "virtual media": {
      title: "Map the image as virtual CD",
      do: ["Map read-only, and keep this session open until the installation has ended."],
      see: [`${file} is shown as connected`],
      media: `${file} mapped`,
    },
    stick: {
      title: `Put in ${media}`,
      do: [`Put ${media} into a port of the machine itself, not of a hub or screen.`],
      see: [],
      media,
    },
    disc: { title: "Put the disc in", do: ["Wait until the drive is quiet."], see: [], media: "disc" },
    network: {
      title: "Make sure that the boot service answers",
      do: ["Open its log beside the console: the machine's request must appear there."],
      see: [`A request from ${sheet.network.port ?? "the machine's MAC"}`],
      media: "network",
    },
  };
  const { media: state, ...words } = insert[way];
  return [
    step(`${prefix}media-in`, "C", takes(60, 240), {
      ...words,
      place: place(context),
      hazards: way === "disc" ? [HAZARD.laser] : [],
      after: { media: state },
    }),
    step(`${prefix}one-time`, "C", takes(60, 180), {
      title: once ? `Choose ${media} for the next start only` : `Put ${media} first in the boot order`,
      place: place(context),
      do: once
        ? [
            `Restart and press ${key}; choose ${media} in ${mode} mode.`,
            ...(waits ? [`The medium's own menu waits ${waits} s, then it goes on by itself.`] : []),
          ]
        : ["Remember that this order must be undone before the first restart."],
      see: [`An entry for ${media} marked ${mode}`],
      after: { power: "on", nextBoot: once ? `once: ${media}` : `always: ${media}` },
    }),
  ];
}

/** The medium comes out, and the machine restarts from its target. */
export function restart({ context, prefix, leg, last }: LegView): Step[] {
  const { profile, sheet } = context;
  const way = wayOf(context);
  const media = mediaWords(context);
  const orderToo =
    sheet.boot.start === "one-time boot" ? [] : ["Put the permanent boot order back: the target first."];
  const out: Record<typeof way, { title: string; see: string }> = {
    "virtual media": { title: "Unmap the virtual CD", see: "No media connected" },
    stick: { title: `Take ${media} out`, see: "No stick in any port" },
    disc: { title: "Take the disc out", see: "An empty drive" },
    network: { title: "Take the machine off the boot service", see: "No entry for this machine's MAC" },
  };
  const withMedia = leg.through === "installer";
  return [
    ...(withMedia
      ? [
          step(`${prefix}media-out`, "H", takes(45, 120), {
            title: out[way].title,
            place: place(context),
            do: ["Do this before the restart: media left in place starts the installer again.", ...orderToo],
            see: [out[way].see],
            must: "Media that is left in starts the installer again.",
            after: { media: "none", nextBoot: "as ordered" },
          }),
        ]
      : []),
    step(`${prefix}restart`, "H", takes(profile?.restart.likely ?? 180, profile?.restart.late ?? 600, 0.1), {
      title: last ? "Restart into the installed system" : `Restart into ${leg.profile.name} ${leg.version}`,
      kind: "wait",
      place: "console",
      see: [
        last
          ? `${sheet.answers.hostName || "The host name"} on the console`
          : `${leg.profile.name} ${leg.version} on the console`,
      ],
      never: ["The installer's first screen again", "No boot device found"],
      after: { power: "on", target: "installed" },
    }),
  ];
}
