/**
 * A queue for long work in this process: at most `places` at a time, the others wait in the order in which they came.
 * Work that fails gives its place on.
 */
export function makeQueue(places: number): <T>(work: () => Promise<T>) => Promise<T> {
  let free = places;
  const waiting: (() => void)[] = [];
  return async (work) => {
    if (free > 0) free -= 1;
    else await new Promise<void>((turn) => waiting.push(turn));
    try {
      return await work();
    } finally {
      const next = waiting.shift();
      if (next) next();
      else free += 1;
    }
  };
}
