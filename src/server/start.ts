import { addShippedProfiles } from "./profiles";
import { database } from "./database";

/** Opens the database (which brings it up to date) before the first request; what cannot be opened ends the start. */
export async function start(): Promise<void> {
  try {
    await database();
    await addShippedProfiles();
  } catch (error) {
    console.error(`\nDerrick did not start.\n${error instanceof Error ? error.message : String(error)}\n`);
    process.exit(1);
  }
}
