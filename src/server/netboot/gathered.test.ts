import { setImmediate as nextTurn } from "node:timers/promises";
import { expect, it, vi } from "vitest";
import { gathered } from "./gathered";

it("works in one piece for all that come together, and for all that come meanwhile, in their order", async () => {
  const rounds: number[][] = [];
  let open = (): void => undefined;
  const note = gathered<number, string>(async (items) => {
    rounds.push([...items]);
    if (rounds.length === 1) await new Promise<void>((resolve) => (open = resolve));
    return items.map((n) => `no. ${n}`);
  });
  const first = [1, 2].map(note);
  await vi.waitUntil(() => rounds.length === 1);
  const later = [3, 4].map(note);
  open();
  expect(await Promise.all([...first, ...later])).toEqual(["no. 1", "no. 2", "no. 3", "no. 4"]);
  expect(await note(5)).toBe("no. 5");
  expect(rounds).toEqual([[1, 2], [3, 4], [5]]);
});

it("lets in who comes one in each turn of the event loop, and waits for nobody for long", async () => {
  const rounds: number[] = [];
  const note = gathered<number, number>((items) => {
    rounds.push(items.length);
    return Promise.resolve(items);
  });
  const all: Promise<number>[] = [];
  for (let n = 0; n < 30; n += 1) {
    all.push(note(n));
    await nextTurn();
  }
  await Promise.all(all);
  // In one stroke, or in a few where this machine has much else to do; each turn on its own would be thirty.
  expect(rounds.reduce((sum, count) => sum + count, 0)).toBe(30);
  expect(rounds.length).toBeLessThan(10);
  // They come without an end: the first have their answer before the last came.
  let answered = 0;
  const end = performance.now() + 5000;
  while (answered === 0 && performance.now() < end) {
    void note(1).then(() => (answered += 1));
    await nextTurn();
  }
  expect(answered).toBeGreaterThan(0);
});

it("none fails for another", async () => {
  const kept: number[] = [];
  const note = gathered<number, number>(async (items) => {
    await Promise.resolve();
    if (items.includes(3)) throw new Error("three");
    kept.push(...items);
    return items;
  });
  const said = await Promise.allSettled([1, 2, 3, 4].map(note));
  expect(said.map((s) => s.status)).toEqual(["fulfilled", "fulfilled", "rejected", "fulfilled"]);
  expect(kept).toEqual([1, 2, 4]);
});
