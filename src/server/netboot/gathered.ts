/**
 * One piece of work for all that came while the last was at work: a thousand machines that ask at once are written down in a
 * few writes. Each waits for its own; where the work on several fails, each is tried by itself, so that none fails for another.
 */
export function gathered<T>(work: (items: readonly T[]) => Promise<void>): (item: T) => Promise<void> {
  let waiting: { item: T; resolve: () => void; reject: (error: unknown) => void }[] = [];
  let isAtWork = false;
  const round = async (): Promise<void> => {
    const taken = waiting;
    waiting = [];
    try {
      await work(taken.map(({ item }) => item));
      for (const { resolve } of taken) resolve();
    } catch (error) {
      if (taken.length === 1) return taken[0]?.reject(error);
      for (const { item, resolve, reject } of taken) await work([item]).then(resolve, reject);
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
