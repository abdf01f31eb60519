import { describe, expect, it } from "vitest";
import { seeded } from "@/../tests/support/random";
import { drop, inMemory, put, takeFormer, waiting, type Unsent } from "./outbox";

const note = (key: string, givenAt: number): Unsent => ({
  key,
  givenAt,
  command: { kind: "note", step: null, text: key },
});
const keys = (all: Unsent[]): string[] => all.map((u) => u.key);

describe("the answers that wait in a browser", () => {
  it("keep the note of each of two windows, also when the first is closed", () => {
    const shelf = inMemory();
    // Both windows have read the empty store before either writes.
    expect([waiting(shelf, "r-1"), waiting(shelf, "r-1")]).toEqual([[], []]);
    put(shelf, "r-1", note("window-1", 1000));
    put(shelf, "r-1", note("window-2", 1001));
    drop(shelf, "r-1", "window-2");
    expect(keys(waiting(shelf, "r-1"))).toEqual(["window-1"]);
  });

  it("stay in the order in which they were given when the clock goes back", () => {
    const shelf = inMemory();
    for (const [i, at] of [5000, 5001, 900, 901].entries()) put(shelf, "r-1", note(`k${i}`, at));
    expect(keys(waiting(shelf, "r-1"))).toEqual(["k0", "k1", "k2", "k3"]);
    expect(waiting(shelf, "r-1")[2]!.givenAt).toBe(900);
  });

  it("are those of one run", () => {
    const shelf = inMemory();
    put(shelf, "r-1", note("a", 1));
    put(shelf, "r-10", note("b", 1));
    drop(shelf, "r-1", "b");
    expect([keys(waiting(shelf, "r-1")), keys(waiting(shelf, "r-10"))]).toEqual([["a"], ["b"]]);
  });

  it("are not lost to something unreadable beside them, which stays", () => {
    const shelf = inMemory();
    put(shelf, "r-1", note("a", 1));
    shelf.setItem("derrick-unsent/r-1/0000000000000009/x", "{cut");
    put(shelf, "r-1", note("b", 2));
    expect(keys(waiting(shelf, "r-1"))).toEqual(["a", "b"]);
    expect(shelf.length).toBe(3);
  });

  it("of an earlier version are taken over once", () => {
    const shelf = inMemory();
    shelf.setItem("derrick-unsent-r-1", JSON.stringify([{ key: "old", command: note("old", 0).command }]));
    takeFormer(shelf, "r-1", 700);
    takeFormer(shelf, "r-1", 900);
    expect(waiting(shelf, "r-1")).toEqual([note("old", 700)]);
    expect(shelf.length).toBe(1);
  });

  it.each([1, 2, 3, 4, 5])("a storm of windows loses and doubles nothing (seed %i)", (seed) => {
    const random = seeded(seed);
    const shelf = inMemory();
    const given: string[] = [];
    const sent: string[] = [];
    for (let i = 0; i < 400; i += 1) {
      const run = `r-${Math.floor(random() * 2)}`;
      if (random() < 0.6) {
        put(shelf, run, note(`${run}-${i}`, Math.floor(random() * 1e6)));
        given.push(`${run}-${i}`);
      } else {
        // Two windows may send the same first answer; the server counts its key once.
        const [first] = waiting(shelf, run);
        if (!first) continue;
        if (!sent.includes(first.key)) sent.push(first.key);
        drop(shelf, run, first.key);
      }
    }
    const left = ["r-0", "r-1"].flatMap((run) => keys(waiting(shelf, run)));
    expect([...sent, ...left].sort()).toEqual([...given].sort());
    const order = (run: string) => [...sent.filter((k) => k.startsWith(run)), ...keys(waiting(shelf, run))];
    for (const run of ["r-0", "r-1"]) expect(order(run)).toEqual(given.filter((k) => k.startsWith(run)));
  });
});
