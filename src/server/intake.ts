import type { Worker } from "node:worker_threads";
import type { Answer } from "@/contract";
import type { IntakeAsk, IntakeWord, MachineDocument, NamedText, ReadInto, ReadToShow } from "@/core/machine";
import { no, yes } from "./answer";
import type { Desk } from "./desk";
import { JobProblem, startJob, type Handle } from "./jobs";
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

type Read = ReadInto | ReadToShow;

interface Terms {
  seconds: number;
  handle?: Handle;
}

/** One reading in the thread; null when it took too long, was stopped, or ended the thread, which is then another one. */
function inThread(ask: IntakeAsk, { seconds, handle }: Terms): Promise<Read | null> {
  const worker = thread();
  return new Promise((resolve) => {
    const done = (value: Read | null): void => {
      clearTimeout(timer);
      worker.off("message", hear).off("exit", fails);
      handle?.signal.removeEventListener("abort", fails);
      if (value === null) {
        kept().worker = null;
        void worker.terminate();
      }
      resolve(value);
    };
    const hear = (word: IntakeWord): void => ("read" in word ? done(word.read) : handle?.progress(word.done));
    const fails = (): void => done(null);
    const timer = setTimeout(fails, seconds * 1000);
    worker.on("message", hear).on("exit", fails);
    handle?.signal.addEventListener("abort", fails);
    worker.postMessage(ask);
  });
}

/** What is larger than this is written down as a job while it is read, so that it can be watched and stopped. */
const LARGE_CHARACTERS = 1_000_000;

const STOPPED = "The import was stopped. Nothing was changed.";
const tooLong = (about: string, seconds: number): string =>
  `Reading ${about} took more than ${seconds} seconds or too much memory, and was stopped. Nothing was changed. Import the outputs one by one to find the cause.`;

/** Reads texts in the thread, one reading after another. */
async function reading(actor: string, ask: IntakeAsk, seconds = MOST_SECONDS): Promise<Answer<Read>> {
  const { texts } = ask;
  const about = texts.length === 1 ? `"${texts[0]?.name}"` : "these texts";
  const read = (handle?: Handle) =>
    kept().queue(async () => (handle?.signal.aborted ? null : inThread(ask, { seconds, handle })));
  const size = texts.reduce((sum, { text }) => sum + text.length, 0);
  if (size <= LARGE_CHARACTERS) {
    const got = await read();
    return got ? yes(got) : no(tooLong(about, seconds));
  }
  let got: Read | null = null;
  const names = texts.map((t) => t.name).join(", ");
  const job = { kind: "reading", about: names.slice(0, 300), size } as const;
  const started = await startJob(actor, job, async (handle) => {
    got = await read(handle);
    if (got === null) throw new JobProblem(tooLong(about, seconds));
    return () => Promise.resolve();
  });
  const over = await started?.over;
  if (over?.state === "done" && got) return yes(got);
  return no(over?.problem ?? STOPPED);
}

/** Reads texts against a machine, as core/machine does. Nothing is changed. */
export const readInto = (
  { actor }: Pick<Desk, "actor">,
  document: MachineDocument,
  texts: readonly NamedText[],
  at: string,
  seconds?: number,
) => reading(actor, { document, texts, at, toShow: false }, seconds) as Promise<Answer<ReadInto>>;

/** The same for showing it to a person first. */
export const readToShow = (
  { actor }: Pick<Desk, "actor">,
  document: MachineDocument,
  texts: readonly NamedText[],
  at: string,
) => reading(actor, { document, texts, at, toShow: true }) as Promise<Answer<ReadToShow>>;

/** Ends the thread, with the server. */
export async function endIntake(): Promise<void> {
  const { worker } = kept();
  kept().worker = null;
  await worker?.terminate();
}
