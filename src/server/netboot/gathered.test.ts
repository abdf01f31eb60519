import { expect, it } from "vitest";
import { gathered } from "./gathered";

it("works at once for who comes first, and in one piece for all that come meanwhile, in their order", async () => {
  const rounds: number[][] = [];
  let open = (): void => undefined;
  const note = gathered<number, string>(async (items) => {
    rounds.push([...items]);
    if (rounds.length === 1) await new Promise<void>((resolve) => (open = resolve));
    return items.map((n) => `no. ${n}`);
  });
  const all = [1, 2, 3, 4].map(note);
  expect(rounds).toEqual([[1]]);
  open();
  expect(await Promise.all(all)).toEqual(["no. 1", "no. 2", "no. 3", "no. 4"]);
  expect(await note(5)).toBe("no. 5");
  expect(rounds).toEqual([[1], [2, 3, 4], [5]]);
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
