/** What can be the matter with a database, as far as a person has to do something about it. */
export type TroubleKind = "locked" | "read-only" | "full" | "damaged" | "gone" | "unreachable";

const CODES: Record<string, TroubleKind> = {
  SQLITE_BUSY: "locked",
  SQLITE_LOCKED: "locked",
  SQLITE_READONLY: "read-only",
  SQLITE_PERM: "read-only",
  SQLITE_FULL: "full",
  SQLITE_CORRUPT: "damaged",
  SQLITE_NOTADB: "damaged",
  SQLITE_CANTOPEN: "gone",
  SQLITE_IOERR: "gone",
  // What the client says of a server that does not answer, answers late, or has lost the transaction.
  HRANA_WEBSOCKET_ERROR: "unreachable",
  HRANA_CLOSED_ERROR: "unreachable",
  SERVER_ERROR: "unreachable",
  DERRICK_LATE: "unreachable",
};

const WORDS: Record<TroubleKind, string> = {
  locked:
    "Another program has locked the database file, so this was not saved. Close the program (a copy, backup or editor); Derrick continues by itself.",
  "read-only":
    "Derrick has no write permission for the database file or its folder, so nothing can be saved. Give write permission to the user that runs Derrick.",
  full: "The disk of the database is full, so this was not saved. Free space on it; earlier data is not lost.",
  damaged:
    "The database file is damaged, so nothing was changed. Stop Derrick, save the file for a repair, and restore the latest backup with npm run restore.",
  gone: "The database file cannot be opened or read. Check that its disk is present and that Derrick has permission to read the folder.",
  unreachable:
    "The database server does not respond, so this was not saved. Derrick tries again by itself; check that the server runs and can be reached.",
};

/** A failure of the database in words; `kind` says which, `cause` holds what the driver said. */
export class DatabaseTroubleError extends Error {
  constructor(
    readonly kind: TroubleKind,
    cause: unknown,
  ) {
    super(WORDS[kind], { cause });
  }
}

/** Finds the database's own trouble under whatever was thrown around it; null for any other failure. */
export function troubleOf(error: unknown): DatabaseTroubleError | null {
  for (let at = error, depth = 0; at instanceof Error && depth < 8; at = at.cause, depth += 1) {
    if (at instanceof DatabaseTroubleError) return at;
    const code = (at as { code?: unknown }).code;
    const kind = typeof code === "string" ? CODES[code] : undefined;
    if (kind) return new DatabaseTroubleError(kind, at);
    // A file that cannot even be opened is refused without a code of its own.
    if (at.message.includes("Unable to open connection to local database"))
      return new DatabaseTroubleError("gone", at);
    if (at instanceof TypeError && at.message === "fetch failed")
      return new DatabaseTroubleError("unreachable", at);
  }
  return null;
}
