import { troubleOf } from "@/db";
import { no, yes, type Answer } from "./answer";
import { database } from "./database";

/** Whether the database answers, asked anew each time. */
export async function health(): Promise<Answer<null>> {
  try {
    await (await database()).probe();
    return yes(null);
  } catch (error) {
    return no(
      troubleOf(error)?.message ?? "The database does not answer as it should; see the log of the server.",
    );
  }
}
