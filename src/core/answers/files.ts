import type { Layout, Profile } from "../image";
import { hostPlan } from "../network";
import {
  installIntent,
  scriptIntent,
  systemIntent,
  type Drawn,
  type Gap,
  type Hashes,
  type InstallIntent,
  type IntentAccount,
  type IntentGround,
  type SystemIntent,
} from "./intent";
import {
  metaData,
  vendorData,
  writeAutoinstall,
  writeBsd,
  writeCloudSeed,
  writeKickstart,
  writeOwnWords,
  writePreseed,
  type AnswerFile,
} from "./write";

/**
 * What a sheet has of an answer file: the file and those that go with it, or what the sheet has still to say, or why there is
 * none. `erases` tells a person what it does to drives.
 */
export type AnswerFileOfSheet =
  | { kind: "file"; file: AnswerFile; also: AnswerFile[]; erases: string }
  | { kind: "open"; gaps: Gap[] }
  | { kind: "none"; why: string };

type Written = AnswerFile | Gap[];

/** A format that sets up a system on one drive, and on several only where they stand together in a way that it has words for. */
const onOneDrive =
  (write: (intent: InstallIntent, profile: Profile) => Written, ...layouts: Layout[]) =>
  (intent: InstallIntent, profile: Profile): Written =>
    intent.target.drives.length === 1 || layouts.includes(intent.target.layout)
      ? write(intent, profile)
      : [
          {
            path: "storage.layout",
            message: `set up a ${intent.target.layout} of several drives on the screen of the installer: this format does not support it`,
          },
        ];

/** What writes each kind of file; what its format has no words for comes back as gaps. */
const WRITERS: Readonly<
  Partial<Record<Profile["answerFile"], (intent: InstallIntent, profile: Profile) => Written>>
> = {
  kickstart: onOneDrive(writeKickstart, "mirror"),
  preseed: onOneDrive(writePreseed),
  "cloud-config": onOneDrive(writeAutoinstall),
  "bsd script": writeBsd,
};

const NO_FILE = "The installer of this OS family reads no answer file: type the values from the answer card.";
const ERASES =
  "It erases the target of the sheet without asking. It writes nothing if that drive is missing, has another size or is in use. Read it before you give it to a machine.";

const nobody = (asks: boolean): string =>
  `no login possible: no account has ${asks ? "a password" : "a stored password hash, and the installer does not ask for one"}, and no account with key login has a key`;

const open = (...gaps: Gap[]): AnswerFileOfSheet => ({ kind: "open", gaps });

/** Whether an account lets somebody in; `asked` where the installer asks for a password that has no hash. */
const opens =
  (asked: boolean) =>
  ({ role, logIn, keys, hash }: IntentAccount): boolean =>
    role !== "service" &&
    ((logIn === "password" && (asked || hash !== null)) || (logIn === "key" && keys.length > 0));

function finished<T extends SystemIntent>(
  drawn: Drawn<T>,
  asks: boolean,
  write: (intent: T) => Written | AnswerFile[],
  erases: string,
  also: (intent: T) => AnswerFile[] = () => [],
): AnswerFileOfSheet {
  if (!drawn.ok) return open(...drawn.gaps);
  if (!drawn.intent.accounts.some(opens(asks)))
    return open({ path: "answers.accounts", message: nobody(asks) });
  const written = write(drawn.intent);
  const isGaps = (all: Gap[] | AnswerFile[]): all is Gap[] => all.some((one) => "path" in one);
  // Formats begin a section, a command or a setting with a line: no value may bring one of its own.
  const broken = (Array.isArray(written) ? (isGaps(written) ? [] : written) : [written])
    .flatMap(({ lines }) => lines)
    .find(({ text }) => /[\n\r\0\u2028\u2029]/.test(text));
  if (broken)
    return open({
      path: broken.from ?? "image.id",
      message: "a value for the file is not one line of plain text",
    });
  if (!Array.isArray(written)) return { kind: "file", file: written, also: also(drawn.intent), erases };
  if (isGaps(written)) return open(...written);
  const [file, ...others] = written;
  return file ? { kind: "file", file, also: others, erases } : open();
}

/** The answer file of the family of a build, with the hashes that were sealed for it; an `armed` machine has nobody before it. */
export function answerFileOf(ground: IntentGround, hashes?: Hashes, armed = false): AnswerFileOfSheet {
  const { profile } = ground;
  if (!profile) return open({ path: "image.id", message: "the OS family is unknown" });
  if (profile.answerFile === "none") return { kind: "none", why: NO_FILE };
  if (profile.answerFile === "script") {
    const { answerScript } = profile;
    return answerScript
      ? finished(
          scriptIntent(ground, hashes),
          true,
          (intent) => writeOwnWords(intent, answerScript, profile),
          `It erases the target without asking. ${answerScript.guard}`,
        )
      : {
          kind: "none",
          why: `${profile.name} has its own file format, which its profile does not describe yet (answerScript): type the values from the answer card.`,
        };
  }
  const write = WRITERS[profile.answerFile];
  // What a BSD is given is run in a shell, where nobody is asked for a password.
  const asks = profile.answerFile !== "bsd script";
  const isSeed = profile.answerFile === "cloud-config";
  return finished(
    installIntent(ground, hashes, armed),
    asks,
    (intent) => write?.(intent, profile) ?? [],
    ERASES,
    (intent) => (isSeed ? [metaData(intent), vendorData(intent)] : []),
  );
}

/** Families whose systems read cloud-init's seed where an image of them is installed already. */
const SEEDED: readonly Profile["answerFile"][] = ["kickstart", "preseed", "cloud-config"];

/** The seed of an image that is installed already, such as that of a guest; null for families that know none. */
export function imageSeedOf(ground: IntentGround, hashes: Hashes = new Map()): AnswerFileOfSheet | null {
  const { profile, sheet } = ground;
  if (!profile || !SEEDED.includes(profile.answerFile)) return null;
  const system = systemIntent(ground, hashes);
  const { hostName, domain } = sheet.answers;
  const network = hostPlan(ground, { hostName, domain });
  const networkGaps = network.ok
    ? []
    : network.problems.map(({ message }): Gap => ({ path: "network.port", message }));
  const drawn: Drawn<SystemIntent & { files: AnswerFile[] }> =
    system.ok && network.ok
      ? {
          ok: true,
          intent: { ...system.intent, files: writeCloudSeed({ ...system.intent, network: network.value }) },
        }
      : { ok: false, gaps: [...(system.ok ? [] : system.gaps), ...networkGaps] };
  return finished(
    drawn,
    false,
    ({ files }) => files,
    "It does not write drives: the system reads it at its first boot.",
  );
}
