import type { IncomingMessage, ServerResponse } from "node:http";
import { admit } from "./door/door";
import { troubleOf } from "@/db";
import { addShippedProfiles } from "./profiles";
import { closeDatabase, database } from "./database";
import { closeDemo } from "./demo";
import { deskOf } from "./desk";
import { hangUp } from "./feed";
import { endIntake } from "./intake";
import { endJobs, watchJobs } from "./jobs";
import { endBoot, startBoot } from "./netboot/listener";
import { damagedDocuments } from "./damaged";
import { sweepTemporary } from "./archive/temporary";
import { readEnvironment } from "./environment";

/** What scripts/server.mjs, which owns the listening socket, gets from here. */
interface Door {
  admit(request: IncomingMessage, response: ServerResponse, dev: boolean): boolean;
  /** Ends the streams of those who listen. */
  hangUp(): void;
  end(): Promise<void>;
}

const inWords = (error: unknown): string =>
  (troubleOf(error) ?? (error instanceof Error ? error : new Error(String(error)))).message;

/**
 * Opens the database (which brings it up to date) before the first request, and gives the server its door. What cannot
 * be opened ends the start, and so does a server that would answer without the door.
 */
export async function start(): Promise<void> {
  const shared = globalThis as { derrickServer?: { door?: Door } };
  try {
    if (!shared.derrickServer)
      throw new Error(
        "Start Derrick with npm start (or npm run dev): another server would skip the access check.",
      );
    const { DERRICK_ORIGIN: ownOrigin } = readEnvironment();
    const { upgradedFrom } = await database();
    if (upgradedFrom)
      console.error(`The database was upgraded; its previous state is saved as ${upgradedFrom}.`);
    const desk = await deskOf("Derrick");
    await addShippedProfiles(desk);
    await sweepTemporary();
    await watchJobs();
    await startBoot();
    // What is damaged is looked for beside the first requests, so that Today can call for it.
    void damagedDocuments(desk).catch(() => undefined);
    shared.derrickServer.door = {
      admit: (request, response, dev) => admit(request, response, { ownOrigin, dev }),
      hangUp,
      end: async () => {
        await endBoot();
        await closeDemo();
        await endIntake();
        // A database that does not answer now hears of it by silence.
        await endJobs().catch(() => undefined);
        await closeDatabase();
      },
    };
  } catch (error) {
    console.error(`\nDerrick did not start.\n${inWords(error)}\n`);
    process.exit(1);
  }
}
