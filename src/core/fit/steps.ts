import { takes } from "../estimate";
import type { Roads } from "../image";
import { contentWords, driveLook, holdsData, isUnread } from "../machine";
import { isAtMachine } from "../media";
import { HAZARD, operation, statement, type Operation } from "../work";
import { targetsOf } from "../storage";
import { terms } from "../text";
import type { FitGround } from "./ground";

/** What the first steps of a build are made from. */
export type BeginningGround = FitGround & Roads;

/** `served`: the machine is armed by the serial that is read at it, so that it stands nowhere before. */
export function beginning(plan: BeginningGround, served: boolean): Operation[] {
  const { machine } = plan;
  const chassis = machine?.document.facts.chassis;
  const atMachine = isAtMachine(plan);
  const place = machine?.document.typed.place ?? "";
  return [
    operation("identity", "A", takes(60, 180), {
      title: "Identify the machine",
      kind: "confirm",
      place: atMachine ? "at the machine" : "console",
      sees: [
        chassis?.serial && !served
          ? { of: "label", part: "serial number", reads: chassis.serial }
          : { of: "label", part: "name", reads: machine?.name ?? "" },
        ...(chassis?.assetTag
          ? [{ of: "label" as const, part: "asset tag" as const, reads: chassis.assetTag }]
          : []),
      ],
      do: [
        served
          ? `Find it by its location${place ? `, ${place},` : ""} and its label. Its serial number is not shown here: read it at the machine, and type it to arm the machine.`
          : "Compare with the label or the first page of the management controller; with two people, read it aloud.",
      ],
      hazards: atMachine ? [HAZARD.lift, HAZARD.mains, HAZARD.static] : [],
    }),
    ...saving(plan),
  ];
}

const inPlaceAspects = ["guests", "data pools", "shares", "accounts", "dataset keys"] as const;

/**
 * What has to be saved first, with the place where it was put: on a road that keeps things so that the keeping can be
 * proved, on a fresh installation what the profile says is lost with what stands there now.
 */
function saving(plan: BeginningGround): Operation[] {
  const road = plan.road;
  const erased = targetsOf(plan).filter(({ drive }) => holdsData(drive) || isUnread(drive));
  if (!plan.keepsSystem) {
    const system = plan.installed;
    const loses = plan.legs[0]?.fate.loses ?? [];
    if (!system && erased.length === 0) return [];
    return [
      saved("Back up what this installation erases", [
        ...(loses.length > 0 ? [`Back up outside this machine, if present: ${terms(loses)}.`] : []),
        ...erased.map(({ drive }) => `From ${driveLook(drive)}: ${contentWords(drive)}.`),
      ]),
    ];
  }
  const kept = inPlaceAspects.filter((a) => road?.keeps.includes(a));
  const lost = road?.loses ?? [];
  return [
    saved("Back up what is needed afterwards", [
      `Save the lists of ${terms(kept) || "what runs on it"} as text, outside this machine.`,
      ...(lost.length > 0 ? [`Not kept by this installation; back them up if present: ${terms(lost)}.`] : []),
      ...new Set(road?.needs),
    ]),
  ];
}

const saved = (title: string, doing: string[]): Operation =>
  operation("save-lists", "A", takes(600, 1800), {
    title,
    kind: "act",
    place: "console",
    do: doing,
    sees: [statement("Each part can be opened on another machine")],
    never: [statement("A part that cannot be backed up: then do not begin")],
    records: "Backup location",
    must: "Data that was not backed up is lost once the drive is written, or if the upgrade fails.",
  });
