// How a bench measures a piece of work, and how it tells what it found.

/** The times of a piece of work in milliseconds, in order, after three that warm up. */
export function timed(work: () => void, runs: number): number[] {
  for (let i = 0; i < 3; i += 1) work();
  return Array.from({ length: runs }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  }).sort((a, b) => a - b);
}

const at = (times: readonly number[], share: number): string =>
  `${(times[Math.min(times.length - 1, Math.floor(times.length * share))] ?? 0).toFixed(2)} ms`.padStart(10);

export const line = (name: string, aim: string, times: readonly number[]): void =>
  console.log(`${name.padEnd(62)} median ${at(times, 0.5)}   p95 ${at(times, 0.95)}   target ${aim}`);
