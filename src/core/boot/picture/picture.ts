import { cardModule } from "../cards";
import { bootSchools } from "../devices";
import { bootEntries } from "../entries";
import { factsOf } from "../../machine";
import { legViews } from "../../image";
import type { BootPlan } from "../ground";
import {
  deviceMeant,
  knownOf,
  QUESTIONS,
  resolveBoot,
  listOf,
  Oracle,
  type Attempt,
  type BootDevice,
  type UefiMachine,
  type BootMachine,
  type End,
  type Resolution,
} from "../resolve";
import { settingsSheet } from "../settings";
import { isListRead } from "../seen";
import { MEDIUM, MOMENTS, type BootPicture, type Moment, type MomentView, type Verdict } from "./view";
import { machineAt, marksOf, systemAt } from "./moments";
import { MOMENT_WORDS, endWords, questionWords, storyWords, whyWords } from "./words.en";

/** Who is started at the end: the medium, the target, or something else. */
function verdictOf(ground: BootPlan, moment: Moment, end: End): Verdict {
  if (moment === "now") return "as it is";
  const { storage, image, network } = ground.sheet;
  const medium = image.way === "network" ? network.port : MEDIUM;
  const device = end.kind === "system" ? end.device.id : null;
  if (moment === "to install" && ground.fromMedia)
    return device === medium ? "as wanted" : "medium not started";
  if (device === null) return "nowhere";
  if (device === medium && ground.fromMedia) return "installer again";
  return device === storage.target && end.kind === "system" && end.starts === systemAt(ground, moment)
    ? "as wanted"
    : moment === "to install"
      ? "as it is"
      : "another system";
}

/** The devices of the list as the firmware walks it, with those that it adds. */
function listed(machine: UefiMachine): BootDevice[] {
  const known = knownOf(machine);
  const list = listOf(known, new Oracle());
  list.complete(new Oracle());
  const { order, entries } = list;
  return order.flatMap((id) => deviceMeant(known, entries.get(id)!) ?? []);
}

/** The devices behind the one that was started. */
function restOf(machine: BootMachine, { attempts }: Resolution): MomentView["rest"] {
  const tried = new Set(attempts.map((a) => a.device?.id));
  const devices = machine.mode === "uefi" ? listed(machine) : machine.devices;
  return devices
    .filter((d, i) => d.present !== false && !tried.has(d.id) && devices.indexOf(d) === i)
    .map(({ id, name }) => ({ device: id, name }));
}

/** A device that is tried again with the same result, by another entry, is told once. */
const differing = (attempts: readonly Attempt[]): Attempt[] =>
  attempts.filter(
    (a, i) =>
      !a.device ||
      attempts.findIndex((b) => b.device === a.device && b.reason === a.reason && b.outcome === a.outcome) ===
        i,
  );

function momentView(ground: BootPlan, machine: BootMachine, moment: Moment): MomentView {
  const resolution = resolveBoot(machine);
  return {
    ...{ moment, title: MOMENT_WORDS[moment] },
    mediumIn: ground.fromMedia && (moment === "first restart" || moment === "power loss"),
    tries: differing(resolution.attempts).map((a) => ({
      ...{ device: a.device?.id ?? null, name: a.device?.name ?? (a.label || `entry ${a.entry ?? "?"}`) },
      ...{ via: a.via, outcome: a.outcome, reason: a.reason, why: whyWords(a), seconds: a.seconds },
    })),
    rest: restOf(machine, resolution),
    ends: endWords(resolution.end),
    endsAt: resolution.end.kind === "system" ? resolution.end.device.id : null,
    depends: resolution.depends.map(({ question, otherwise }) => ({
      on: questionWords(question),
      otherwise: endWords(otherwise.end),
      verdict: verdictOf(ground, moment, otherwise.end),
      isFirmware: QUESTIONS[question.code].kind === "point",
    })),
    verdict: verdictOf(ground, moment, resolution.end),
  };
}

/** The build as it stands at a moment: with a stepping stone it begins with the stone's profile and image. */
function planAt(ground: BootPlan, moment: Moment): BootPlan {
  const views = legViews(ground);
  return (moment === "power loss" ? views.at(-1) : views[0])?.plan ?? ground;
}

/** What a machine starts at the moments of a build; null without a machine. */
export function bootPicture(ground: BootPlan): BootPicture | null {
  const facts = factsOf(ground);
  if (!facts) return null;
  const moments = MOMENTS.map((moment) => {
    const plan = planAt(ground, moment);
    return momentView(plan, machineAt(plan, facts, moment), moment);
  });
  const [, install, restart] = moments;
  return {
    moments,
    entries: bootEntries(ground, marksOf(ground)),
    settings: settingsSheet(ground, moments),
    cards: cardModule(ground),
    schools: bootSchools(ground),
    story: storyWords(install!, restart!, ground.sheet.boot.start === "one-time boot"),
    isListRead: isListRead(facts),
  };
}
