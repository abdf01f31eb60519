import { evidence, hit, message, rulesOver, type Gate } from "../finding";

/** What is looked at before an archive is imported: the installation, and the whole archive, of which nothing is kept yet. */
export interface RestoreGround {
  /** A person made something here already. */
  hasData: boolean;
  /** Profiles of the archive that do not read, each with its place. */
  profiles: readonly { place: string; name: string }[];
  /** What in the archive leads nowhere or contradicts itself. */
  contradictions: readonly string[];
}

const RESTORE_MESSAGES = {
  "restore.data": message(
    "Installation has data",
    "This installation already has data.",
    "Import an archive into an empty one: set a new database in DERRICK_DB_URL.",
    "Two installations in one would hold numbers and names twice.",
  ),
  "restore.profile": message(
    "Profile invalid",
    "{place}: the profile {name} is not valid.",
    "Export it again from an installation of the same or an older version of Derrick.",
    "A run of this profile could not be read.",
  ),
  "restore.contradiction": message(
    "Archive contradicts itself",
    "{problem}.",
    "Export it again; nothing of this archive was kept.",
    "What leads nowhere would be missing without anybody knowing.",
  ),
} as const;

const rule = rulesOver<RestoreGround, "installation" | "archive">()("J", RESTORE_MESSAGES);

/** Before an archive is imported. */
export const RESTORE_GATE: Gate<RestoreGround> = {
  title: "Import an archive",
  checks: [
    rule("restore.data", ({ hasData }) =>
      hasData ? hit("stop", "installation", {}, evidence("installation", "not empty", "database")) : null,
    ),
    rule("restore.profile", ({ profiles }) =>
      profiles.map(({ place, name }) => ({ ...hit("stop", "archive", { place, name }), subject: place })),
    ),
    rule("restore.contradiction", ({ contradictions }) =>
      contradictions.map((problem) => ({ ...hit("stop", "archive", { problem }), subject: problem })),
    ),
  ],
  messages: RESTORE_MESSAGES,
};
