import type { Path } from "../document";
import {
  accountNameProblem,
  domainProblem,
  hostNameProblem,
  isHash,
  publicKeyLine,
  readPublicKey,
  type Account,
} from "../identity";
import type { Partitioning } from "../image";
import { drivesOf, holdsData, isUnread, type Drive } from "../machine";
import { hostPlan, type HostPlan, type NetworkSlice, type PlannedOn } from "../network";
import {
  partitionView,
  targetsOf,
  wantsConsent,
  type PlannedPart,
  type StorageGround,
  type StorageSlice,
} from "../storage";
import type { AnswersSlice } from "./slice";

/** What an answer file is written from: the sheet, and whatever of it other stages have worked out. */
export type IntentGround = StorageGround & PlannedOn & { sheet: { answers: AnswersSlice } };

/** A field of the sheet by its path. */
export type IntentPath =
  Path<{ answers: AnswersSlice; storage: StorageSlice; network: NetworkSlice }> | "image.id" | "boot.mode";

/** What the installer would have to ask, or what the sheet says in a way that no file can say; with the field. */
export interface Gap {
  path: IntentPath;
  message: string;
}

/** A part of the target as a file makes it. */
export interface IntentPart {
  name: string;
  use: Partitioning["parts"][number]["use"];
  fs: PlannedPart["fs"];
  bytes: number;
  /** Its rule gives it all that the others leave. */
  takesRest: boolean;
  volumes: IntentPart[];
}

/** An account as a file makes it. */
export interface IntentAccount extends Pick<Account, "name" | "role" | "logIn"> {
  /** Lines of its public keys, each of which was read. */
  keys: string[];
  /** The hash of its password, in the form of crypt(3); null where nobody has sealed one: then the installer asks. */
  hash: string | null;
}

/** Hashes of passwords by the names of their accounts. They are no part of the plan: whoever writes a file brings them. */
export type Hashes = ReadonlyMap<string, string>;

/** What an installation is to become, in the words of no file format. Every text of it is one line without control characters. */
export interface InstallIntent {
  system: {
    profile: string;
    name: string;
    version: string;
    screen: "graphical" | "text";
    adminGroup: string;
  };
  hostName: string;
  domain: string;
  keyboard: string;
  locale: string;
  timeZone: string;
  mode: "uefi" | "legacy";
  target: { drive: Drive; table: "gpt" | "dos"; parts: IntentPart[]; mayErase: boolean };
  /** Drives that the file must not reach. */
  spared: Drive[];
  network: HostPlan;
  accounts: IntentAccount[];
  /** What is no part of an installation, whatever the format: it is done beside it. */
  beside: Gap[];
}

const LOCALE = /^[a-z]{2,3}(?:_[A-Z]{2})?(?:\.[A-Za-z0-9-]+)?(?:@[a-z]+)?$/;
const ZONE = /^[A-Za-z][A-Za-z0-9+_-]*(?:\/[A-Za-z0-9+_-]+){0,2}$/;
const LAYOUT = /^[a-z][a-z0-9-]{1,30}$/;

/** Answers that an installer asks for, each with what may stand in it. */
function answerGaps({ answers }: IntentGround["sheet"]): Gap[] {
  const gap = (path: IntentPath, message: string | null): Gap[] =>
    message === null ? [] : [{ path, message }];
  return [
    ...gap("answers.hostName", hostNameProblem(answers.hostName)),
    ...gap("answers.domain", answers.domain === "" ? null : domainProblem(answers.domain)),
    ...gap(
      "answers.keyboard",
      LAYOUT.test(answers.keyboard) ? null : "no keyboard layout that a file can name",
    ),
    ...gap("answers.locale", LOCALE.test(answers.locale) ? null : "no locale, such as en_GB.UTF-8"),
    ...gap("answers.timeZone", ZONE.test(answers.timeZone) ? null : "no time zone, such as Europe/London"),
    ...answers.accounts.flatMap(({ name, keys }) => {
      const of = (problem: string | null) =>
        gap("answers.accounts", problem && `the account "${name.slice(0, 40)}": ${problem}`);
      return [
        ...of(accountNameProblem(name)),
        ...keys.flatMap(({ line }) => {
          const key = readPublicKey(line);
          return key.ok ? [] : of(key.problems[0]?.message ?? null);
        }),
      ];
    }),
  ];
}

/** What stands in the way of naming a target: without it, no file may choose a drive by itself. */
function targetGaps(ground: IntentGround): Gap[] {
  const gap = (path: IntentPath, message: string): Gap[] => [{ path, message }];
  if (!ground.profile)
    return gap("image.id", "the operating system is not known, so neither is its installer");
  if (ground.keepsSystem)
    return gap("image.id", "the chosen road keeps the system that is there: nothing is installed anew");
  const targets = targetsOf(ground);
  const [first] = targets;
  if (!first)
    return gap("storage.target", "no drive is chosen, and a file that chooses one by itself may take any");
  if (targets.length > 1)
    return gap(
      "storage.layout",
      "a system on several drives is set up on the installer's screen; no file is written for it yet",
    );
  if (!first.drive.serial?.trim())
    return gap("storage.target", "the drive has no serial, so no file can make sure that it is this one");
  if (wantsConsent(ground, first.drive))
    return gap("storage.erase", "nobody has agreed that the drive is erased, for what stands on it now");
  const view = partitionView(ground);
  if (!view) return gap("image.id", "the profile tells nothing of the parts that its installer makes");
  return view.fault === null ? [] : gap("storage.target", view.fault);
}

/** What the sheet wants that no installer makes: it stands with every file, so that nobody takes the file for all of it. */
function besideOf(ground: IntentGround, swapLacks: boolean): Gap[] {
  const { sets } = ground.sheet.storage;
  return [
    ...(swapLacks
      ? [
          {
            path: "storage.swap" as const,
            message: "the swap that the sheet wants has no part here: it is made once the system runs",
          },
        ]
      : []),
    ...(sets.length > 0
      ? [
          {
            path: "storage.sets" as const,
            message: "pools, arrays and virtual drives of the other drives are made by their own scripts",
          },
        ]
      : []),
  ];
}

/** The parts of the target with what each is for, by the rules that they were laid out by. */
function partsOf(rules: Partitioning, planned: readonly PlannedPart[]): IntentPart[] {
  const isRest = (size: Partitioning["parts"][number]["size"]): boolean =>
    [size.mib, size.memoryShare, size.share, size.mostMib].every((bound) => bound === undefined);
  return planned.flatMap((part): IntentPart[] => {
    const rule = rules.parts.find((r) => r.name === part.name);
    if (part.within !== null || !rule) return [];
    const volumes = planned
      .filter((v) => v.within === part.name)
      .map((v): IntentPart => {
        const own = rule.volumes.find((r) => r.name === v.name);
        return {
          name: v.name,
          use: "linux",
          fs: v.fs,
          bytes: v.bytes,
          takesRest: own ? isRest(own.size) : false,
          volumes: [],
        };
      });
    return [
      {
        name: part.name,
        use: rule.use,
        fs: part.fs,
        bytes: part.bytes,
        takesRest: isRest(rule.size),
        volumes,
      },
    ];
  });
}

const accountOf = ({ name, role, logIn, keys }: Account, hashes: Hashes): IntentAccount => {
  const hash = hashes.get(name) ?? null;
  return {
    ...{ name, role, logIn, hash: hash !== null && isHash(hash) ? hash : null },
    // A service has no shell: a key would open nothing.
    keys: (role === "service" ? [] : keys).flatMap(({ line }) => {
      const key = readPublicKey(line);
      return key.ok ? [publicKeyLine(key.value)] : [];
    }),
  };
};

export type IntentAnswer = { ok: true; intent: InstallIntent } | { ok: false; gaps: Gap[] };

/** Draws the intent from a build; where something is still open, all that is open and nothing else. */
export function installIntent(ground: IntentGround, hashes: Hashes = new Map()): IntentAnswer {
  const { sheet, profile } = ground;
  const { answers } = sheet;
  const network = hostPlan(ground, { hostName: answers.hostName, domain: answers.domain });
  const gaps = [
    ...targetGaps(ground),
    ...answerGaps(sheet),
    ...(network.ok ? [] : network.problems.map((p): Gap => ({ path: "network.port", message: p.message }))),
  ];
  const view = partitionView(ground);
  const target = targetsOf(ground)[0]?.drive;
  if (gaps.length > 0 || !network.ok || !view || !target || !profile?.partitioning)
    return { ok: false, gaps };
  return {
    ok: true,
    intent: {
      system: {
        profile: profile.profile,
        name: profile.name,
        version: profile.version,
        screen: profile.installer,
        adminGroup: profile.accounts.adminGroup,
      },
      ...{ hostName: answers.hostName, domain: answers.domain, keyboard: answers.keyboard },
      ...{ locale: answers.locale, timeZone: answers.timeZone, mode: sheet.boot.mode },
      target: {
        drive: target,
        table: view.table,
        parts: partsOf(profile.partitioning, view.parts),
        // A consent to what stood there once is none to what may stand there by now.
        mayErase: holdsData(target) || isUnread(target),
      },
      spared: drivesOf(ground).filter((d) => d.id !== target.id),
      network: network.value,
      accounts: answers.accounts.map((account) => accountOf(account, hashes)),
      beside: besideOf(ground, view.swapLacks),
    },
  };
}
