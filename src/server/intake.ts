import type { Worker } from "node:worker_threads";
import type { MachineDocument, NamedText, ReadInto } from "@/core/machine";
import { no, yes, type Answer } from "./answer";
import { makeQueue } from "./queue";

// Texts from outside are read in a thread of its own: whatever they hold, pages are answered meanwhile, and what takes too
// long is stopped.

/** Far more than the largest bundle takes, on a busy machine too. */
const MOST_SECONDS = 20;
const MOST_MEMORY_MB = 768;

/** Next loads server code in several bundles; there is one thread for all of them. */
const shared = globalThis as {
  derrickIntake?: { worker: Worker | null; queue: ReturnType<typeof makeQueue> };
};
const kept = () => (shared.derrickIntake ??= { worker: null, queue: makeQueue(1) });

function thread(): Worker {
  const known = kept().worker;
  if (known) return known;
  // Asked for by name: the bundler would take the thread for a part of a page, and pack the whole project for it.
  const { Worker: Thread } = process.getBuiltinModule("node:worker_threads");
  const worker = new Thread(`${process.cwd()}/src/workers/intake-worker.mjs`, {
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
  });
  // A program that has nothing else to do may end; a reading that is waited for keeps it by its timer.
  worker.unref();
  worker.on("error", () => undefined);
  worker.on("exit", () => {
    if (kept().worker === worker) kept().worker = null;
  });
  kept().worker = worker;
  return worker;
}

/** One reading in the thread; null when it took too long, or ended the thread. The thread is then another one. */
function inThread(ask: object, seconds: number): Promise<ReadInto | null> {
  const worker = thread();
  return new Promise((resolve) => {
    const done = (value: ReadInto | null): void => {
      clearTimeout(timer);
      worker.off("message", done).off("exit", fails);
      if (value === null) {
        kept().worker = null;
        void worker.terminate();
      }
      resolve(value);
    };
    const fails = (): void => done(null);
    const timer = setTimeout(fails, seconds * 1000);
    worker.on("message", done).on("exit", fails);
    worker.postMessage(ask);
  });
}

/** Reads texts against a machine, as core/machine does; one after another. Nothing is changed. */
export async function readInto(
  document: MachineDocument,
  texts: readonly NamedText[],
  at: string,
  seconds = MOST_SECONDS,
): Promise<Answer<ReadInto>> {
  const read = await kept().queue(() => inThread({ document, texts, at }, seconds));
  return read
    ? yes(read)
    : no(
        `Reading ${texts.length === 1 ? `"${texts[0]?.name}"` : "these texts"} took more than ${seconds} seconds or more memory than it may have, as no output of these tools does, and was stopped. Nothing was changed; drop the outputs one by one to find the one.`,
      );
}

/** Ends the thread, with the server. */
export async function endIntake(): Promise<void> {
  const { worker } = kept();
  kept().worker = null;
  await worker?.terminate();
}
