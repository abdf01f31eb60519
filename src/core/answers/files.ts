import { installIntent, type Gap, type Hashes, type InstallIntent, type IntentGround } from "./intent";
import { writeAutoinstall, writeKickstart, writePreseed, type AnswerFile } from "./write";

/** What a sheet has of an answer file: the file, or what the sheet has still to say, or why there is none. */
export type AnswerFileOfSheet =
  { kind: "file"; file: AnswerFile } | { kind: "open"; gaps: Gap[] } | { kind: "none"; why: string };

/** What writes each kind of file; what its format has no words for comes back as gaps. */
const WRITERS: Readonly<Partial<Record<string, (intent: InstallIntent) => AnswerFile | Gap[]>>> = {
  kickstart: writeKickstart,
  preseed: writePreseed,
  "cloud-config": writeAutoinstall,
};

const NO_FILE = "The installer of this family takes no answer file: it is typed by the answer card.";

const NOBODY =
  "nobody could log in to what is installed: no account has a password, and none that logs in by key has a key";

/** Whether somebody can log in to what is installed. */
const opensToSomebody = ({ accounts }: InstallIntent): boolean =>
  accounts.some(
    ({ role, logIn, keys }) =>
      role !== "service" && (logIn === "password" || (logIn === "key" && keys.length > 0)),
  );

/** The answer file of the family of a build, with the hashes that were sealed for it. */
export function answerFileOf(ground: IntentGround, hashes?: Hashes): AnswerFileOfSheet {
  const { profile } = ground;
  if (!profile)
    return { kind: "open", gaps: [{ path: "image.id", message: "the operating system is not known" }] };
  if (profile.answerFile === "none") return { kind: "none", why: NO_FILE };
  const write = WRITERS[profile.answerFile];
  if (!write)
    return {
      kind: "none",
      why: `${profile.name} takes a file of another kind (${profile.answerFile}), which Derrick does not write yet: it is typed by the answer card.`,
    };
  const drawn = installIntent(ground, hashes);
  if (!drawn.ok) return { kind: "open", gaps: drawn.gaps };
  if (!opensToSomebody(drawn.intent))
    return { kind: "open", gaps: [{ path: "answers.accounts", message: NOBODY }] };
  const file = write(drawn.intent);
  return Array.isArray(file) ? { kind: "open", gaps: file } : { kind: "file", file };
}
