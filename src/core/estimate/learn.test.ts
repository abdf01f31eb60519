import { expect, it } from "vitest";
import { fetchEstimate, learnRate, readEstimate, type RateSample } from ".";

const sample = (
  through: string,
  bytes: number,
  at = "2026-11-01T08:00:00Z",
  way: RateSample["way"] = "virtual media",
) => ({
  way,
  through,
  bytes,
  seconds: 1,
  at,
  where: "wrk-hv1, Works, B-0041",
});

it("knows nothing without a measurement", () => {
  expect(learnRate([], "virtual media", "card 4.40 at Works")).toBeNull();
  expect(learnRate([sample("x", 5, undefined, "stick")], "virtual media", "x")).toBeNull();
  expect(learnRate([sample("", 5)], "virtual media", "")).toBeNull();
});

it("takes the median of what went through the same thing, and the tenth that was slowest", () => {
  const samples = [9, 1, 5, 7, 3, 2, 8, 4, 6, 10].map((n) => sample("c", n * 1e6));
  expect(learnRate([...samples, sample("other", 99e6)], "virtual media", "c")).toEqual({
    likely: 5e6,
    slow: 1e6,
    count: 10,
    words: "10 measurements through c",
  });
});

it("is careful with one or two, and takes a neighbour's only where the same thing has none", () => {
  const one = learnRate([sample("c", 3e6), sample("d", 9e6)], "virtual media", "c", () => true);
  expect(one).toMatchObject({ likely: 3e6, slow: 2e6, count: 1, words: "1 measurement through c" });
  const near = learnRate([sample("d", 9e6)], "virtual media", "c", (s) => s.through === "d");
  expect(near).toMatchObject({ likely: 9e6, words: "1 measurement at this site" });
});

it("forgets all but the newest twenty", () => {
  const old = Array.from({ length: 30 }, () => sample("c", 1e6, "2020-01-01T00:00:00Z"));
  const young = Array.from({ length: 20 }, () => sample("c", 8e6));
  expect(learnRate([...old, ...young], "virtual media", "c")).toMatchObject({
    likely: 8e6,
    slow: 8e6,
    count: 20,
  });
});

it("gives a time with its working, and says whether the rate was measured", () => {
  const { duration, figure } = readEstimate(600e6, {
    likely: 3e6,
    slow: 2e6,
    count: 4,
    words: "4 measurements",
  });
  expect(duration).toEqual({ likelySeconds: 200, lateSeconds: 300, handsShare: 0 });
  expect(figure.inputs[1]).toEqual({
    name: "rate",
    value: "3.00 MB/s, slow 2.00 MB/s (4 measurements)",
    source: "measured",
  });
  const usual = readEstimate(600e6, { likely: 3e6, slow: 2e6, count: 0, words: "USB 2" });
  expect(usual.figure).toMatchObject({
    formula: "size ÷ typical rate",
    inputs: [{}, { source: "default" }],
  });
});

it("fetches over a line in bits, with nine tenths of it, and late with two fifths", () => {
  // 900 MB over 80 Mbit/s: 10 MB/s × 0.9 = 100 s; × 0.4 = 225 s.
  const { duration, figure } = fetchEstimate(900e6, 80e6);
  expect(duration).toEqual({ likelySeconds: 100, lateSeconds: 225, handsShare: 0 });
  expect(figure).toMatchObject({ formula: "size ÷ (link ÷ 8 × share)", inputs: [{}, { source: "default" }] });
});
