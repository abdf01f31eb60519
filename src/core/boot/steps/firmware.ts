import { takes } from "../../estimate";
import type { LegView } from "../../image";
import { isAtMachine, mediaWords, wayOf } from "../../media";
import { HAZARD, operation, type Effect, type EffectOf, type Operation, type Report } from "../../work";
import type { BootGround } from "../ground";
import { switchWords } from "../secure";
import { namesInOrder } from "../settings";
import {
  firmwareWords,
  insertWords,
  NETWORK_ON,
  removeWords,
  SECURE_OFF,
  startWords,
  WAY_BACK,
  whenTaken,
} from "./words";

type View = LegView<BootGround> & { plan: { sheet: { answers: { hostName: string } } } };

const place = (plan: BootGround) => (isAtMachine(plan) ? ("at the machine" as const) : ("console" as const));

/** The firmware as it is for the whole build; looked at once. */
export function settings(plan: BootGround): Operation {
  const { mode } = plan.sheet.boot;
  const keys = plan.machine?.document.typed.keys;
  const set: EffectOf<"set firmware"> = {
    do: "set firmware",
    mode,
    secureBoot: mode === "uefi" ? switchWords(plan.sheet.boot.secureBoot === "on") : null,
    virtualisation: plan.profile?.requirements.virtualisation !== "not needed",
    forInstall: forInstall(plan),
    order: namesInOrder(plan, plan.boot?.moments ?? []),
  };
  return operation("firmware", "C", takes(300, 720), {
    title: "Check the firmware settings",
    kind: "act",
    place: place(plan),
    do: [
      ...(keys?.setup ? [`Open the firmware setup: ${keys.setup} ${whenTaken(keys.seconds)}.`] : []),
      ...firmwareWords(set),
      ...otherWords(plan),
      "All memory and all processors are listed.",
    ],
    sees: [{ of: "hardware", machine: plan.machine?.name ?? "" }],
    effects: [{ do: "switch power", to: "on" }, set],
  });
}

/** Settings that the other sentences of the step say already. */
const SAID: readonly string[] = ["mode", "secureBoot", "virtualisation", "iommu", "order"];

/** The rest of the settings sheet, as far as it is not known to be so already. */
const otherWords = ({ boot }: BootGround): string[] =>
  (boot?.settings ?? [])
    .filter(
      (s) => !SAID.includes(s.key) && s.isAsWanted !== true && !(s.key === "networkBoot" && s.value === "on"),
    )
    .map((s) => `${s.title}: ${s.value}.`);

const mediumOf = (plan: BootGround) => ({ medium: wayOf(plan), name: mediaWords(plan) });

/** The key that opens the boot menu, and when. */
function menuKey(plan: BootGround): string {
  const book = plan.machine?.document.typed.keys;
  // Many machines have a key of its own for starting from the network.
  const key = (wayOf(plan) === "network" && book?.network) || plan.sheet.boot.menuKey || book?.bootMenu;
  return `${key || "the boot menu key of this vendor"} ${whenTaken(book?.seconds)}`;
}

/** What to note of the key where nobody has yet; empty where its time is known. */
const unknownKey = (plan: BootGround): string[] =>
  plan.machine?.document.typed.keys.seconds
    ? []
    : [
        'The time for the key is unknown for this machine: record it as a measurement, for example "boot-menu key", "F11, 12 s" after power-on; the next sheet will use it.',
      ];

/** The words of the firmware's own list for a disc drive, where there is one only; a stick's are made when it is put in. */
function listedAs(plan: BootGround): string | null {
  const way = wayOf(plan);
  if (way !== "virtual media" && way !== "disc") return null;
  const media = (plan.boot?.entries ?? []).filter((e) => e.owner === "a medium");
  const fitting = media.filter((e) => /virtual/i.test(e.label) === (way === "virtual media"));
  return fitting.length === 1 ? fitting[0]!.label : null;
}

const insertOf = ({ plan }: View): EffectOf<"insert medium"> => ({
  do: "insert medium",
  ...mediumOf(plan),
  holds: plan.image?.fileName || plan.image?.name || "the image",
  mac: plan.sheet.network.port,
});

/** The medium goes in and is started once. */
export function mediaIn(view: View): Operation[] {
  const { plan, prefix } = view;
  const insert = insertOf(view);
  return [
    operation(`${prefix}media-in`, "C", takes(60, 240), {
      ...insertWords(insert),
      kind: "act",
      place: place(plan),
      hazards: insert.medium === "disc" ? [HAZARD.laser] : [],
      effects: [insert],
    }),
    startOnce(view),
  ];
}

/** `report`: what the boot service hears when it is done; null where a person sees it. */
function startOnce({ plan, prefix }: View, report: Report | null = null): Operation {
  const { boot } = plan.sheet;
  const start: EffectOf<"start next from"> = {
    do: "start next from",
    ...mediumOf(plan),
    mode: boot.mode,
    once: boot.start === "one-time boot",
  };
  const wait = plan.profile?.firmware.bootMenuSeconds ?? null;
  return operation(`${prefix}one-time`, "C", takes(60, 180), {
    ...startWords(start, menuKey(plan), listedAs(plan), report ? null : wait, unknownKey(plan)),
    kind: "act",
    place: place(plan),
    lent: report ? [{ executor: "boot service", report }] : [],
    effects: [start],
  });
}

/** The machine is armed at the boot service for one installation, and started over the network. */
export function armAndStart(view: View): Operation[] {
  const { plan, prefix } = view;
  return [
    operation(`${prefix}arm`, "C", takes(60, 300), {
      title: `Arm ${plan.machine?.name ?? "the machine"} for one installation`,
      kind: "act",
      do: [
        "Read the serial number at the machine itself, and type its last characters on the page for arming.",
        "If a console code is required, note the code from Network installations: the machine asks for it at its console.",
      ],
      sees: [{ of: "boot service", tells: "armed", machine: plan.machine?.name ?? "" }],
      hazards: [HAZARD.erase],
      lent: [{ executor: "boot service", report: "armed" }],
      effects: [insertOf(view)],
    }),
    startOnce(view, "script"),
  ];
}

/** The medium comes out, and the boot order is as it was. */
function mediaOut({ plan, prefix }: View): Operation {
  const remove: EffectOf<"remove medium"> = { do: "remove medium", ...mediumOf(plan) };
  const { title, sees } = removeWords(remove);
  const always = plan.sheet.boot.start !== "one-time boot";
  return operation(`${prefix}media-out`, "H", takes(45, 120), {
    title,
    kind: "act",
    place: place(plan),
    do: [
      "Do this before the restart: media left in place boots the installer again.",
      ...(always ? ["Restore the permanent boot order: the target first."] : []),
    ],
    sees,
    must: "Media left in place boots the installer again.",
    effects: [remove, { do: "put boot order back" }],
  });
}

/** What is changed in the firmware for the installation only. */
function forInstall({ sheet, fromMedia }: BootGround): string[] {
  const { mode, secureBoot } = sheet.boot;
  return [
    ...(mode === "uefi" && secureBoot === "off to install" ? [SECURE_OFF] : []),
    ...(fromMedia && sheet.image.way === "network" ? [NETWORK_ON] : []),
  ];
}

/** Before the installed system is started for good, the firmware is put back. */
export function settingsBack(plan: BootGround): Operation[] {
  const back = forInstall(plan).map((s) => WAY_BACK[s]!);
  if (back.length === 0) return [];
  const keys = plan.machine?.document.typed.keys;
  return [
    operation("settings-back", "H", takes(150, 420), {
      title: `Restore the firmware settings: ${back.join(", ")}`,
      kind: "act",
      place: place(plan),
      do: [
        `Restart into the firmware setup: ${keys?.setup || "the setup key of this vendor"} ${whenTaken(keys?.seconds)}.`,
        ...back.map((s) => `${s[0]!.toUpperCase()}${s.slice(1)}.`),
        "Save and exit.",
      ],
      sees: back.map((is) => ({ of: "setting" as const, is })),
      must: "A setting for the installation only remains otherwise.",
      effects: [{ do: "put settings back", to: back }],
    }),
  ];
}

/** The medium comes out, and the machine restarts from its target. */
export function restart(view: View): Operation[] {
  const { plan, prefix, leg, last } = view;
  const { profile, sheet } = plan;
  const system = `${leg.profile.name} ${leg.version}`;
  const effects: Effect[] = [
    { do: "restart" },
    { do: "install system", profile: leg.profile.profile, version: leg.version },
  ];
  return [
    ...(leg.through === "installer" ? [mediaOut(view)] : []),
    ...(last ? settingsBack(plan) : []),
    operation(
      `${prefix}restart`,
      "H",
      takes(profile?.restart.likely ?? 180, profile?.restart.late ?? 600, 0.1),
      {
        title: last ? "Restart into the installed system" : `Restart into ${system}`,
        kind: "wait",
        place: "console",
        sees: [{ of: "system", name: last ? sheet.answers.hostName || "The host name" : system }],
        never: [
          { of: "boot", ends: "installer" },
          { of: "boot", ends: "no device" },
        ],
        effects,
      },
    ),
  ];
}
