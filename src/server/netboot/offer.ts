import { answerNames, ARM_GATE, kernelWords, plain, type Arming, type ArmGround } from "@/core/netboot";
import type { Answer } from "@/contract";
import { ownWordsOf } from "@/core/answers";
import { heldBy, holdWords } from "@/core/finding";
import { contentWords, driveLook } from "@/core/machine";
import { isServed } from "@/core/media";
import { hostPlan, type LinkPlan } from "@/core/network";
import { sealedAs } from "@/core/parameter";
import { evaluateSheet, type Plan } from "@/core/sheet";
import { reportThatEnds, type Operation } from "@/core/work";
import { targetsOf } from "@/core/storage";
import { buildRows } from "@/db";
import { no, yes } from "../answer";
import type { Desk } from "../desk";
import { readEnvironment } from "../environment";
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

/** Stands where a machine would tell how far it is, to see whether its answer file has a place for that. */
const REPORT = "http://report.invalid/derrick/";

/** Where the words of a kernel lead before the addresses of one machine are known. */
const LATER = { answers: "{answers.at}", tree: "{tree.at}", image: "{image.at}" };

/** What can be armed from a build, or all that stands in the way of it. */
export async function armingOffer(desk: Desk, buildId: string): Promise<Answer<ArmingOffer>> {
  const build = await buildRows.one(desk.db, buildId);
  const plan = await planOf(desk, buildId);
  if (!build || !plan) return no("This build no longer exists.");
  const { stops, steps } = evaluateSheet(plan);
  const { gift, ...found } = await giftFor(desk, buildId, plan);
  const held = heldBy(ARM_GATE, {
    ...planned(plan),
    ...found,
    hasService: Boolean(readEnvironment().DERRICK_BOOT_URL),
    revision: build.revision,
    isIssued: build.revision !== null && build.version === build.revisionVersion,
    stops,
  });
  if (held.length > 0 || !gift) return no(...held.map(holdWords));
  const { arming, ...beside } = gift;
  return yes({
    ...beside,
    tail: Math.min(TAIL, plain(arming.machine.serial).length),
    arming: {
      ...arming,
      schemaVersion: 1,
      build: { id: buildId, number: build.number, revision: build.revision ?? "", version: build.version },
      ...afterReading(steps),
      reads: readsOf(plan, steps),
    },
  });
}

/** What the gate looks at of a plan itself. */
function planned(plan: Plan): Pick<ArmGround, "site" | "machine" | "profile" | "isServed"> {
  const { machine, image, profile, site, sheet } = plan;
  return {
    site,
    machine: machine && sheet.machine.id ? { name: machine.name, ...identityOf(machine) } : null,
    profile:
      image && sheet.image.id && profile
        ? { name: profile.name, hasNetboot: profile.netboot !== null }
        : null,
    isServed: isServed(plan),
  };
}

/** By what a machine that asks is known: its serial, and the MACs of its wired ports. */
const identityOf = ({ document }: NonNullable<Plan["machine"]>): { serial: string; macs: string[] } => ({
  serial: document.facts.chassis?.serial ?? "",
  macs: document.facts.ports.filter((p) => p.kind !== "wireless").map((p) => p.mac.toLowerCase()),
});

/** What a machine would be given, but for what the sheet's revision and its steps say of it. */
type Gift = Omit<ArmingOffer, "tail" | "arming"> & {
  arming: Omit<ArmingOffer["arming"], "schemaVersion" | "build" | "likelySeconds" | "lateSeconds" | "reads">;
};
type Looked = Pick<ArmGround, "problems" | "reports" | "hasKernelWords"> & { gift: Gift | null };

const UNSEEN: Looked = {
  problems: { words: null, imageFiles: [], versions: null, answers: [] },
  ...{ reports: null, hasKernelWords: null, gift: null },
};

/** Looks at all that a machine would be given; what an earlier lack hides is not looked at. */
async function giftFor(desk: Desk, buildId: string, plan: Plan): Promise<Looked> {
  const { machine, image, profile, site, sheet } = plan;
  if (!machine || !sheet.machine.id || !image || !sheet.image.id || !profile?.netboot) return UNSEEN;
  const own = ownWordsOf(plan);
  const words = own.ok ? own.value : [];
  const files = await filesOf(image, profile.netboot);
  const seen = { ...files.problems, words: own.ok ? null : `${own.problem}.` };
  const answers = await namedAnswers(desk, plan, buildId, null);
  if (!answers.ok)
    return { ...UNSEEN, problems: { ...seen, answers: answers.problems.map((p) => p.message) } };
  const telling = await namedAnswers(desk, plan, buildId, { script: LATER.answers, report: REPORT });
  const names = answerNames(
    profile.answerFile,
    answers.value.files.map((f) => f.name),
  );
  const { accounts, hostName, domain } = sheet.answers;
  const { serial, macs } = identityOf(machine);
  const host = { mac: sheet.network.port ?? macs[0] ?? "", hostName, domain, link: addressed(plan) };
  const kernelTold = kernelWords(profile.answerFile, names, LATER, host, words);
  const hashes = await hashesOf(desk, buildId);
  return {
    problems: { ...seen, answers: [] },
    reports: telling.ok && telling.value.files.some(({ text }) => text.includes(REPORT)),
    hasKernelWords: kernelTold !== null,
    gift: kernelTold && {
      ownWords: words.length,
      uncompared: files.uncompared,
      secrets: secretsIn(hashes, accounts),
      asks: accounts.filter((a) => a.logIn === "password" && !hashes.has(a.name)).map((a) => a.name),
      arming: {
        machine: { id: sheet.machine.id, name: machine.name, serial, macs },
        image: {
          ...{ id: sheet.image.id, name: image.name },
          ...{ fileName: image.fileName ?? "", sizeBytes: image.sizeBytes },
        },
        kernel: profile.netboot.kernel,
        initrd: profile.netboot.initrd,
        ...{ words: kernelTold, answers: names, digest: answers.value.digest },
        erases: targetsOf(plan).map(({ drive }) => ({
          ...{ look: driveLook(drive), holds: contentWords(drive) },
          ...{ bay: drive.bay ?? "", serial: drive.serial ?? "" },
        })),
        timeZone: site?.timeZone ?? "UTC",
      },
    },
  };
}

/** Kernel and initial file systems inside an image: what is wrong with them, and what could not be compared. */
async function filesOf(
  { fileName, sizeBytes }: NonNullable<Plan["image"]>,
  { kernel, initrd }: NonNullable<NonNullable<Plan["profile"]>["netboot"]>,
): Promise<{ problems: Pick<ArmGround["problems"], "imageFiles" | "versions">; uncompared: string }> {
  const inside = await Promise.all(
    [kernel, ...initrd].map((path) => fileInside(fileName ?? "", sizeBytes, path)),
  );
  const imageFiles = inside.flatMap((found) => (found.ok ? [] : found.problems.map((p) => p.message)));
  const [first, ...others] = inside.flatMap((found) => (found.ok ? [found.value] : []));
  const verdict = first && imageFiles.length === 0 ? await versionsProblem(first, others) : null;
  return {
    problems: { imageFiles, versions: verdict?.stop ? verdict.words : null },
    uncompared: verdict?.words ?? "",
  };
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
function afterReading(steps: readonly Operation[]): Pick<Arming, "likelySeconds" | "lateSeconds"> {
  const own = steps
    .filter((s) => ["installed", "done"].includes(reportThatEnds(s) ?? ""))
    .map((s) => s.duration);
  return {
    likelySeconds: own.reduce((all, d) => all + d.likelySeconds, 0),
    lateSeconds: own.reduce((all, d) => all + d.lateSeconds, 0),
  };
}

/** What an installer reads of its image, over the time that its installation takes. */
function readsOf({ legs, image }: Plan, steps: readonly Operation[]): Arming["reads"] {
  const share = legs.flatMap((leg) => leg.screens).reduce((sum, screen) => sum + screen.readsShare, 0);
  const seconds = steps.find((s) => reportThatEnds(s) === "installed")?.duration.likelySeconds ?? 0;
  return image && share > 0 && seconds > 0 ? { bytes: image.sizeBytes * share, seconds } : null;
}
