import { troubleOf } from "@/db";
import { no, yes, type Answer } from "./answer";
import { database } from "./database";

/** The sentence for a person when it is the database that failed; null for any other failure. */
export const troubleWords = (error: unknown): string | null => troubleOf(error)?.message ?? null;

/** Whether the database answers, asked anew each time. */
export async function health(): Promise<Answer<null>> {
  try {
    await (await database()).probe();
    return yes(null);
  } catch (error) {
    return no(troubleWords(error) ?? "The database does not answer as it should; see the log of the server.");
  }
}
