import { expect, it } from "vitest";
import { gathered } from "./gathered";

it("works at once for who comes first, and in one piece for all that come meanwhile, in their order", async () => {
  const rounds: number[][] = [];
  let open = (): void => undefined;
  const note = gathered<number>(async (items) => {
    rounds.push([...items]);
    if (rounds.length === 1) await new Promise<void>((resolve) => (open = resolve));
  });
  const all = [1, 2, 3, 4].map(note);
  expect(rounds).toEqual([[1]]);
  open();
  await Promise.all(all);
  await note(5);
  expect(rounds).toEqual([[1], [2, 3, 4], [5]]);
});

it("none fails for another", async () => {
  const kept: number[] = [];
  const note = gathered<number>(async (items) => {
    await Promise.resolve();
    if (items.includes(3)) throw new Error("three");
    kept.push(...items);
  });
  const said = await Promise.allSettled([1, 2, 3, 4].map(note));
  expect(said.map((s) => s.status)).toEqual(["fulfilled", "fulfilled", "rejected", "fulfilled"]);
  expect(kept).toEqual([1, 2, 4]);
});
