import { setImmediate as nextTurn } from "node:timers/promises";

/**
 * Lets in who stands at the door: a turn of the event loop takes one connection only, so that work which makes each turn long
 * would keep a thousand machines waiting for minutes. Ends when nobody came for a few turns (a request takes as many to be
 * read), or when the first has waited for long enough.
 */
async function letIn(come: () => number): Promise<void> {
  const end = performance.now() + LONGEST_MS;
  for (let quiet = 0, before = come(); quiet < QUIET_TURNS && performance.now() < end;) {
    await nextTurn();
    quiet = come() === before ? quiet + 1 : 0;
    before = come();
  }
}

const [QUIET_TURNS, LONGEST_MS] = [4, 40];

/**
 * One piece of work for all that came while the last was at work: a thousand machines that ask at once are looked up and written
 * down in a few strokes. The work gives an answer for each item, in their order; where it fails on several, each is tried by
 * itself, so that none fails for another.
 */
export function gathered<T, R>(
  work: (items: readonly T[]) => Promise<readonly R[]>,
): (item: T) => Promise<R> {
  let waiting: { item: T; resolve: (answer: R) => void; reject: (error: unknown) => void }[] = [];
  let isAtWork = false;
  const alone = async (item: T): Promise<R> => (await work([item]))[0]!;
  const round = async (): Promise<void> => {
    await letIn(() => waiting.length);
    const taken = waiting;
    waiting = [];
    try {
      const answers = await work(taken.map(({ item }) => item));
      taken.forEach(({ resolve }, i) => resolve(answers[i]!));
    } catch (error) {
      if (taken.length === 1) return taken[0]?.reject(error);
      await Promise.all(taken.map(({ item, resolve, reject }) => alone(item).then(resolve, reject)));
    }
  };
  const go = async (): Promise<void> => {
    isAtWork = true;
    while (waiting.length > 0) await round();
    isAtWork = false;
  };
  return (item) =>
    new Promise((resolve, reject) => {
      waiting.push({ item, resolve, reject });
      if (!isAtWork) void go();
    });
}
