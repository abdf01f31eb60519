import type { Answer } from "@/contract";
import { DamagedError, troubleOf, UnsoundError } from "@/db";
import { no, yes } from "./answer";
import { database } from "./database";
import { LookOnlyError } from "./look-only";

/** A failure that a person can do something about: the sentence, and whether asking again later may help. */
export interface Known {
  words: string;
  passes: boolean;
}

/** What a thrown error is to a person; null for a failure of the program itself. */
export function knownFailure(error: unknown): Known | null {
  const trouble = troubleOf(error);
  if (trouble) return { words: trouble.message, passes: true };
  for (let at = error; at instanceof Error; at = at.cause) {
    if (at instanceof UnsoundError || at instanceof LookOnlyError)
      return { words: at.message, passes: false };
    if (at instanceof DamagedError)
      return { words: `${at.message}. It can be repaired on the page Damaged documents.`, passes: false };
  }
  return null;
}

/** Whether the database answers, asked anew each time. */
export async function health(): Promise<Answer<null>> {
  try {
    await (await database()).probe();
    return yes(null);
  } catch (error) {
    return no(troubleOf(error)?.message ?? "The database does not respond correctly; see the server log.");
  }
}
