import { installIntent, type Gap, type InstallIntent, type IntentGround } from "./intent";
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
  "nobody could log in to what is installed: the file carries no key, so at least one administrator needs a password, which the installer asks for";

/** The answer file of the family of a build. */
export function answerFileOf(ground: IntentGround): AnswerFileOfSheet {
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
  const drawn = installIntent(ground);
  if (
    drawn.ok &&
    !drawn.intent.accounts.some(({ role, logIn }) => role !== "service" && logIn === "password")
  )
    return { kind: "open", gaps: [{ path: "answers.accounts", message: NOBODY }] };
  if (!drawn.ok) return { kind: "open", gaps: drawn.gaps };
  const file = write(drawn.intent);
  return Array.isArray(file) ? { kind: "open", gaps: file } : { kind: "file", file };
}
