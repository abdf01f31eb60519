import { expect, it } from "vitest";
import { makeQueue } from "./queue";

it("does so many at a time and no more, in order, and goes on when one fails", async () => {
  const queue = makeQueue(2);
  let now = 0;
  let most = 0;
  const begun: number[] = [];
  const work = (i: number) => async () => {
    begun.push(i);
    most = Math.max(most, (now += 1));
    await new Promise((r) => setTimeout(r, 2));
    now -= 1;
    if (i % 3 === 0) throw new Error(`work ${i}`);
    return i;
  };
  const all = await Promise.allSettled(Array.from({ length: 12 }, (_, i) => queue(work(i))));
  expect(most).toBe(2);
  expect(begun).toEqual(begun.toSorted((a, b) => a - b));
  expect(all.filter((a) => a.status === "fulfilled")).toHaveLength(8);
  expect(await queue(work(13))).toBe(13);
});
