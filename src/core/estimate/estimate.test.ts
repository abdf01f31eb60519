import { expect, it } from "vitest";
import { sumDurations, takes, transferEstimate } from ".";

it("adds likely times, and spreads as squares", () => {
  expect(sumDurations([takes(60, 90), takes(600, 640, 0)])).toEqual({
    likelySeconds: 660,
    lateSeconds: 710,
    handsSeconds: 60,
    waitSeconds: 600,
  });
});

it("takes the narrowest of link, controller and round trip", () => {
  const link = {
    linkBitsPerSecond: 20e6,
    roundTripSeconds: 0.04,
    controllerCeilingBytesPerSecond: 4e6,
    blockBytes: 32_768,
    outstandingRequests: 1,
    linkTyped: true,
    roundTripTyped: false,
  };
  const slow = transferEstimate(819_200_000, link);
  expect(slow.duration.likelySeconds).toBeCloseTo(1000);
  expect(slow.figure.formula).toContain("the narrowest is the round trip");
  const local = transferEstimate(819_200_000, { ...link, roundTripSeconds: 0.001 });
  expect(local.figure.formula).toContain("the narrowest is the link");
});
