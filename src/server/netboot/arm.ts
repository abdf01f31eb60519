import { randomInt } from "node:crypto";
import type { Answer } from "@/contract";
import {
  answerNames,
  armingState,
  isClosed,
  isSerial,
  kernelWords,
  newCode,
  plain,
  type Arming,
  type ArmingState,
} from "@/core/netboot";
import { ownWordsOf } from "@/core/answers";
import { isServed } from "@/core/media";
import { contentWords, driveLook } from "@/core/machine";
import { sealedAs } from "@/core/parameter";
import { hostPlan, type LinkPlan } from "@/core/network";
import { evaluateSheet, type Plan } from "@/core/sheet";
import type { Step } from "@/core/stage";
import { targetsOf } from "@/core/storage";
import { addSeconds } from "@/core/units";
import { bootRows, buildRows, runRows, type Db, type Tx } from "@/db";
import { no, yes } from "../answer";
import type { Desk } from "../desk";
import { readEnvironment } from "../environment";
import { hear } from "../run-log";
import { startRun } from "../runs";
import { hashesOf } from "../seals";
import { namedAnswers, planOf } from "./answers";
import { fileInside } from "./image-file";
import { versionsProblem } from "./versions";

/** What an arming stands on, before anybody has agreed to it; everything but the typed serial. */
export interface ArmingOffer {
  arming: Omit<Arming, "by" | "at" | "until" | "code">;
  /** Length of the tail that is asked for. */
  tail: number;
  /** How many of the kernel's words, at their end, are those of the profile. */
  ownWords: number;
  /** What could not be compared of kernel and initial file system; "" where nothing is left open. */
  uncompared: string;
  /** What is secret in what the machine is given, in words: whose sealed passwords, and how many secret parameters. */
  secrets: string[];
  /** Accounts whose passwords the installer asks for at the machine, since none is sealed for them. */
  asks: string[];
}

const TAIL = 6;
const [SHORTEST_MINUTES, LONGEST_MINUTES] = [5, 24 * 60];

/** Stands where a machine would tell how far it is, to see whether its answer file has a place for that. */
const REPORT = "http://report.invalid/derrick/";

/** Where the words of a kernel lead before the addresses of one machine are known. */
const LATER = { answers: "{answers.at}", tree: "{tree.at}", image: "{image.at}" };

/** What can be armed from a build, or all that stands in the way of it. */
export async function armingOffer(desk: Desk, buildId: string): Promise<Answer<ArmingOffer>> {
  const build = await buildRows.one(desk.db, buildId);
  const plan = await planOf(desk, buildId);
  if (!build || !plan) return no("This build no longer exists.");
  const { machine, image, profile, site, sheet } = plan;
  const problems: string[] = [];
  if (!readEnvironment().DERRICK_BOOT_URL)
    problems.push("The boot service is off: DERRICK_BOOT_URL is not set on this server.");
  if (site && site.networkBoot !== "on")
    problems.push(`Network boot is off at ${site.name}: turn it on at the page of the site.`);
  if (build.revision === null || build.version !== build.revisionVersion)
    problems.push(
      "The sheet has changed since its last revision, or none was issued: issue a revision, then arm.",
    );
  const { stops, steps } = evaluateSheet(plan);
  if (stops.length > 0) problems.push(`The sheet has blockers: ${stops.map((s) => s.label).join(", ")}.`);
  if (!machine || !sheet.machine.id) return no(...problems, "No machine is chosen.");
  if (!image || !sheet.image.id || !profile)
    return no(...problems, "No image with a known OS profile is chosen.");
  const serial = machine.document.facts.chassis?.serial ?? "";
  if (!isSerial(serial))
    problems.push(
      `The serial number of ${machine.name} was not collected, so the machine cannot be identified.`,
    );
  const macs = machine.document.facts.ports
    .filter((p) => p.kind !== "wireless")
    .map((p) => p.mac.toLowerCase());
  if (!isServed(plan))
    problems.push(
      "This sheet is not for a network installation. It needs the boot source network boot in zone B, a fresh installation, and network boot enabled at its site.",
    );
  if (macs.length === 0) problems.push(`No port of ${machine.name} with a link is known.`);
  if (!profile.netboot)
    return no(...problems, `The profile of ${profile.name} does not define network boot (netboot).`);
  const { kernel, initrd } = profile.netboot;
  const own = ownWordsOf(plan);
  if (!own.ok) problems.push(`Kernel command line: ${own.problem}.`);
  const words = own.ok ? own.value : [];
  const fileName = image.fileName ?? "";
  const inside = await Promise.all(
    [kernel, ...initrd].map((path) => fileInside(fileName, image.sizeBytes, path)),
  );
  const told = inside.flatMap((found) => (found.ok ? [] : found.problems.map((p) => p.message)));
  problems.push(...new Set(told));
  const [first, ...others] = inside.flatMap((found) => (found.ok ? [found.value] : []));
  const versions = first && told.length === 0 ? await versionsProblem(first, others) : null;
  if (versions?.stop) problems.push(versions.words);
  const hashes = await hashesOf(desk, buildId);
  const answers = await namedAnswers(desk, plan, buildId, null);
  if (!answers.ok) return no(...problems, ...answers.problems.map((p) => p.message));
  const telling = await namedAnswers(desk, plan, buildId, { script: LATER.answers, report: REPORT });
  if (!telling.ok || !telling.value.files.some(({ text }) => text.includes(REPORT)))
    problems.push(
      `The answer file of ${profile.name} supports no commands, so the machine cannot report the end of its installation: its profile needs lines for them (answerScript, for: command).`,
    );
  const { hostName, domain } = sheet.answers;
  const names = answerNames(
    profile.answerFile,
    answers.value.files.map((f) => f.name),
  );
  const mac = sheet.network.port ?? macs[0] ?? "";
  const kernelTold = kernelWords(
    profile.answerFile,
    names,
    LATER,
    { ...{ mac, hostName, domain }, link: addressed(plan) },
    words,
  );
  if (!kernelTold)
    return no(
      ...problems,
      `The profile of ${profile.name} does not define the kernel command line (netboot).`,
    );
  if (problems.length > 0) return no(...problems);
  return yes({
    tail: Math.min(TAIL, plain(serial).length),
    ownWords: words.length,
    uncompared: versions?.words ?? "",
    secrets: secretsIn(hashes, sheet.answers.accounts),
    asks: sheet.answers.accounts
      .filter(({ name, logIn }) => logIn === "password" && !hashes.has(name))
      .map(({ name }) => name),
    arming: {
      schemaVersion: 1,
      machine: { id: sheet.machine.id, name: machine.name, serial, macs },
      build: { id: buildId, number: build.number, revision: build.revision ?? "", version: build.version },
      image: { id: sheet.image.id, name: image.name, fileName, sizeBytes: image.sizeBytes },
      ...{ kernel, initrd, words: kernelTold, answers: names, digest: answers.value.digest },
      erases: targetsOf(plan).map(({ drive }) => ({
        ...{ look: driveLook(drive), holds: contentWords(drive) },
        ...{ bay: drive.bay ?? "", serial: drive.serial ?? "" },
      })),
      timeZone: site?.timeZone ?? "UTC",
      ...afterReading(steps),
      reads: readsOf(plan, steps),
    },
  });
}

/** What is secret in what a machine is given: sealed passwords by their accounts, and secret parameters by their names. */
function secretsIn(hashes: ReadonlyMap<string, string>, accounts: readonly { name: string }[]): string[] {
  const named = (one: string, several: string, names: readonly string[]): string[] =>
    names.length === 0 ? [] : [`${names.length === 1 ? one : several} ${names.join(", ")}`];
  const parameters = [...hashes.keys()].flatMap((key) => key.split(sealedAs(""))[1] ?? []);
  return [
    ...named(
      "the password hash of",
      "the password hashes of",
      accounts.map(({ name }) => name).filter((name) => hashes.has(name)),
    ),
    ...named("the secret parameter", "the secret parameters", parameters),
  ];
}

/** The interface that carries the planned address, if one is planned. */
function addressed(plan: Plan): LinkPlan | null {
  const { hostName, domain } = plan.sheet.answers;
  const network = hostPlan(plan, { hostName, domain });
  return network.ok ? (network.value.links.find((l) => l.address !== null) ?? null) : null;
}

/** From when a machine has read its files until it has had its first start, as the steps of its sheet have it. */
function afterReading(steps: readonly Step[]): Pick<Arming, "likelySeconds" | "lateSeconds"> {
  const own = steps.filter(({ told }) => told === "installed" || told === "done").map((s) => s.duration);
  return {
    likelySeconds: own.reduce((all, d) => all + d.likelySeconds, 0),
    lateSeconds: own.reduce((all, d) => all + d.lateSeconds, 0),
  };
}

/** What an installer reads of its image, over the time that its installation takes. */
function readsOf({ legs, image }: Plan, steps: readonly Step[]): Arming["reads"] {
  const share = legs.flatMap((leg) => leg.screens).reduce((sum, screen) => sum + screen.readsShare, 0);
  const seconds = steps.find((s) => s.told === "installed")?.duration.likelySeconds ?? 0;
  return image && share > 0 && seconds > 0 ? { bytes: image.sizeBytes * share, seconds } : null;
}

/** The run in which an installation is written down: the open one of the sheet, or one that is started for it. */
async function runFor(desk: Desk, { build }: ArmingOffer["arming"]): Promise<Answer<string>> {
  const open = await runRows.openOf(desk.db, build.id);
  return open === null ? startRun(desk, build.id, build.version) : yes(open);
}

/** A run that was started before the sheet was revised says what is installed instead of what it was started for. */
async function noteRevision(desk: Desk, tx: Tx, runId: string, id: string, arming: Arming): Promise<void> {
  const run = await runRows.one(tx, runId);
  const { revision } = arming.build;
  if (!run || run.plan.revision === revision) return;
  const text = `Armed with revision ${revision} of the sheet, while this run uses revision ${run.plan.revision}.`;
  const event = { kind: "note" as const, step: null, text, by: desk.actor };
  await runRows.append(tx, runId, { at: arming.at, key: `boot ${id} revision`, event });
}

/** How a machine is armed: what was typed, for how long it may ask, and whether it has to show a code. */
export interface Asked {
  typed: string;
  minutes: number;
  asksCode: boolean;
}

/** Arms one machine for one installation, by the tail of its serial as it was typed, for so many minutes. */
export async function armMachine(
  desk: Desk,
  buildId: string,
  { typed, minutes, asksCode }: Asked,
): Promise<Answer<{ id: string }>> {
  const offer = await armingOffer(desk, buildId);
  if (!offer.ok) return offer;
  const { arming, tail } = offer.value;
  if (!(minutes >= SHORTEST_MINUTES && minutes <= LONGEST_MINUTES))
    return no(`The time must be ${SHORTEST_MINUTES} minutes to ${LONGEST_MINUTES / 60} hours.`);
  const answer = plain(typed);
  if (answer.length < tail || !plain(arming.machine.serial).endsWith(answer))
    return no(
      `The serial number of ${arming.machine.name} does not end with these characters. Nothing was armed. Read the number on the machine itself.`,
    );
  // Before a run is started for it; and once more where it is written, since two people may arm one machine in the same moment.
  const standing = await armedNow(desk.db, arming.machine.id, desk.now());
  if (standing !== null) return armedAlready(arming, standing);
  const started = await runFor(desk, arming);
  if (!started.ok) return started;
  // Not before the run has begun: it hears only of what was armed in its own time.
  const at = desk.now();
  const id = desk.newId("a");
  const code = asksCode ? newCode(randomInt) : "";
  const whole: Arming = { ...arming, code, by: desk.actor, at, until: addSeconds(at, minutes * 60) };
  const already = await desk.write(async (tx) => {
    const other = await armedNow(tx, arming.machine.id, at);
    if (other !== null) return other;
    await bootRows.insert(tx, { id, machineId: arming.machine.id, buildId, arming: whole }, desk.stamp());
    await noteRevision(desk, tx, started.value, id, whole);
    await hear(desk, tx, buildId);
    return null;
  });
  return already === null ? yes({ id }) : armedAlready(arming, already);
}

const armedAlready = ({ machine }: ArmingOffer["arming"], status: string): Answer<never> =>
  no(`${machine.name} is already armed (${status}). Cancel that first.`);

/** How far the arming of a machine is that still gives something; null where there is none. */
async function armedNow(db: Db | Tx, machineId: string, at: string): Promise<ArmingState["status"] | null> {
  const before = await bootRows.ofMachine(db, machineId);
  const state = before && armingState(before.arming, await bootRows.log(db, before.id), at);
  return state && !isClosed(state) ? state.status : null;
}

/** Calls an arming off: from now on the machine starts from its own disk, and its token opens nothing. */
export async function disarm(desk: Desk, id: string): Promise<Answer<null>> {
  const row = await bootRows.one(desk.db, id);
  if (!row) return no("This arming does not exist.");
  const state = armingState(row.arming, await bootRows.log(desk.db, id), desk.now());
  if (isClosed(state)) return no(`It has already ended (${state.status}).`);
  await desk.write(async (tx) => {
    await bootRows.add(tx, [
      { armingId: id, mac: "", event: { kind: "cancelled", by: desk.actor }, stamp: desk.stamp() },
    ]);
    await hear(desk, tx, row.buildId);
  });
  return yes(null);
}
