import { describe, expect, it } from "vitest";
import { aBuild, aSite, soundInside, NOW } from "../../../../tests/support/builds";
import { aStick } from "../../../../tests/support/firing-roads";
import { takes, type RateSample } from "../../estimate";
import { imageSchema, type Image } from "../../image";
import { factsSchema, type Facts } from "../../machine";
import {
  answerFileBreakEven,
  atOnce,
  breakEven,
  elapsedSeconds,
  handsSeconds,
  mediaThrough,
  planWays,
  portRate,
  sharedSeconds,
  writingEstimate,
  type Way,
  type WaysGround,
} from "..";

const image = aBuild().image!;
const facts = aBuild().machine!.document.facts;
const ground = (changes: Partial<WaysGround> = {}): WaysGround => ({
  image,
  readShare: 1,
  mode: "uefi",
  facts,
  site: aSite,
  sticks: [aStick()],
  stickKey: "",
  samples: [],
  ...changes,
});
const way = (name: Way, changes: Partial<WaysGround> = {}) =>
  planWays(ground(changes)).find((p) => p.way === name)!;
const withFacts = (changes: object): Facts => factsSchema.parse({ ...facts, ...changes });
const withImage = (changes: object): Image => imageSchema.parse({ ...image, ...changes });

describe("virtual media", () => {
  it.each([
    [{ controller: { present: false } }, "not possible", "There is no management controller."],
    [
      { controller: { present: true, virtualMedia: "not licensed" } },
      "not possible",
      "The licence of the management controller excludes virtual media",
    ],
    [
      { controller: { present: true, virtualMedia: "unknown" } },
      "not certain",
      "It is not recorded whether the licence of the management controller includes virtual media",
    ],
    [{}, "possible", "The management controller has a virtual media licence"],
  ])("with %j is %s", (changes, verdict, reason) => {
    const plan = way("virtual media", { facts: withFacts(changes) });
    expect(plan.verdict).toBe(verdict);
    expect(plan.reasons[0]).toContain(reason);
  });

  it("takes the narrowest limit of the site's link, or what was measured instead", () => {
    // 731 906 048 B at 65 536 B each 40 ms = 446.7 s, and a minute to map it.
    expect(way("virtual media").each.likelySeconds).toBeCloseTo(506.7, 1);
    expect(way("virtual media", { readShare: 0.5 }).each.likelySeconds).toBeCloseTo(283.4, 1);
    const measured: RateSample = {
      way: "virtual media",
      through: mediaThrough(facts, "Works"),
      bytes: 1e9,
      seconds: 100,
      at: NOW,
      where: "x",
    };
    expect(way("virtual media", { samples: [measured] }).each.likelySeconds).toBeCloseTo(133.2, 1);
    const nearby = { ...measured, through: "other card at Works" };
    expect(way("virtual media", { samples: [nearby] }).figure.inputs[1]?.value).toContain("at this site");
    expect(
      way("virtual media", { samples: [{ ...nearby, through: "other card at Cold Lane" }] }).figure.formula,
    ).toContain("the narrowest is the round trip");
    const noted = withFacts({ controller: { ...facts.controller, mediaBytesPerSecond: 1e6 } });
    expect(way("virtual media", { facts: noted }).figure.inputs[1]?.value).toContain(
      "recorded for this machine",
    );
    expect(way("virtual media", { facts: noted, samples: [measured] }).each.likelySeconds).toBeLessThan(800);
  });
});

describe("a stick", () => {
  it("is possible with one that is large enough, and not with small ones only", () => {
    expect(way("stick").reasons).toContain("Large enough: blue stick.");
    const small = way("stick", { sticks: [aStick({ sizeBytes: 1e8 })] });
    expect([small.verdict, small.reasons[0]]).toEqual([
      "not possible",
      "No USB stick of the drive inventory holds 732 MB (698 MiB).",
    ]);
    expect(way("stick", { sticks: [] }).verdict).toBe("not certain");
  });

  it("is written at the rate of its class, or of its own last writing", () => {
    const usb3 = aStick({ speedClass: "USB 3" });
    const usb2 = aStick({ speedClass: "USB 2" });
    const seconds = (s: typeof usb3 | null, samples: RateSample[] = []) =>
      writingEstimate(240e6, s, samples).duration.likelySeconds;
    // 240 MB: 8 s + 2.4 s; 30 s + 8 s; 24 s + 8 s.
    expect([seconds(usb3), seconds(usb2), seconds(null)].map(Math.round)).toEqual([10, 38, 32]);
    const own: RateSample = {
      way: "stick",
      through: "ST-0007",
      bytes: 1e9,
      seconds: 500,
      at: NOW,
      where: "x",
    };
    expect(seconds(usb3, [own])).toBeCloseTo(120);
  });
});

describe("network and disc", () => {
  it("need a wired port, and say what else they need", () => {
    const radio = withFacts({ ports: [{ ...facts.ports[0], kind: "wireless" }] });
    expect(way("network", { facts: radio }).verdict).toBe("not possible");
    expect(way("network").verdict).toBe("not certain");
    expect(way("network").reasons[0]).toContain("A boot service must respond in the network");
    expect(way("network").risks.join(" ")).toMatch(
      /A machine that keeps booting from the network installs again/,
    );
    const served = way("network", { site: { ...aSite, networkBoot: "on" } });
    expect(served.preparation.join(" ")).toMatch(/Arm each machine by its serial number/);
    expect(served.risks.join(" ")).not.toMatch(
      /A machine that keeps booting from the network installs again/,
    );
  });

  it.each([
    [600e6, "It fits on a CD."],
    [3e9, "It fits on a single-layer DVD."],
    [5e9, "It fits on a double-layer DVD."],
    [20e9, "It fits on a 25 GB disc."],
  ])("an image of %d bytes: %s", (sizeBytes, words) => {
    expect(way("disc", { image: withImage({ sizeBytes }) }).reasons).toContain(words);
  });

  it("no disc holds 30 GB, and a disc drive that the firmware lists counts", () => {
    expect(way("disc", { image: withImage({ sizeBytes: 30e9 }) }).verdict).toBe("not possible");
    const entry = { id: "2", label: "Slim DVD", active: true, kind: "optical", path: "x" };
    const drive = (label: string) =>
      withFacts({ firmware: { mode: "uefi", order: [], entries: [{ ...entry, label }] } });
    expect(way("disc", { facts: drive("Slim DVD") }).verdict).toBe("possible");
    expect(way("disc", { facts: drive("Virtual CD") }).verdict).toBe("not certain");
  });
});

it("puts what the inside of the image says first where it says no", () => {
  const not = { answer: "does not" as const, reason: "no loader" };
  const { stick, optical } = soundInside().verdict;
  const inside = {
    found: soundInside({ verdict: { stick, optical: { ...optical, x64: not } } }),
    fileName: "x",
    at: NOW,
    by: "J",
  };
  const plans = planWays(ground({ image: withImage({ inside }) }));
  expect(plans.map((p) => [p.way, p.verdict])).toEqual([
    ["stick", "possible"],
    ["network", "not certain"],
    ["virtual media", "not possible"],
    ["disc", "not possible"],
  ]);
  expect(way("virtual media", { image: withImage({ inside }) }).reasons).toContain("UEFI: no loader");
});

describe("a fleet", () => {
  const a = { once: takes(0, 0), each: takes(600, 900) };
  const b = { once: takes(3600, 5400), each: takes(120, 240) };

  it("pays from the number at which both cost the same hands", () => {
    // 3600 ÷ (600 − 120) = 7.5, so the eighth machine is the first that pays.
    expect(breakEven(a, b)).toBe(8);
    expect(handsSeconds(a, 8)).toBeGreaterThan(handsSeconds(b, 8));
    expect(handsSeconds(a, 7)).toBeLessThan(handsSeconds(b, 7));
    expect(breakEven(b, a)).toBe(1);
    expect(breakEven(a, { once: takes(60, 60), each: takes(600, 600) })).toBeNull();
  });

  it("waits only once where machines read at the same time", () => {
    const plan = { ...way("network"), once: takes(100, 100), each: takes(100, 100, 0.2), parallel: true };
    expect(elapsedSeconds(plan, 10)).toBe(100 + 10 * 20 + 80);
    expect(elapsedSeconds({ ...plan, parallel: false }, 10)).toBe(1100);
    expect(elapsedSeconds(plan, 0)).toBe(0);
  });

  it("shares one link, so that beyond a number the link decides", () => {
    expect(atOnce(1250e6, 125e6)).toBe(10);
    expect(atOnce(50e6, 125e6)).toBe(1);
    expect(sharedSeconds(4, 1e9, 1250e6, 125e6)).toBe(8);
    expect(sharedSeconds(40, 1e9, 1250e6, 125e6)).toBe(32);
  });

  it("knows the port by its speed, and says when it does not", () => {
    expect(portRate(null)).toEqual({ bytesPerSecond: 125e6, known: false });
    const fast = withFacts({ ports: [{ ...facts.ports[0], speedMegabits: 10_000 }] });
    expect(portRate(fast)).toEqual({ bytesPerSecond: 1250e6, known: true });
  });

  it("an answer file pays from preparation by saved hands, and never when nothing is saved", () => {
    // 5400 s ÷ (1200 − 120) s = 5.
    expect(answerFileBreakEven(1200, 5400)?.machines).toBe(5);
    expect(answerFileBreakEven(1201, 5400)?.machines).toBe(5);
    expect(answerFileBreakEven(1199, 5400)?.machines).toBe(6);
    expect(answerFileBreakEven(100, 5400)).toBeNull();
    // Without a person's word on the preparation there is no figure.
    expect(answerFileBreakEven(1200, 0)).toBeNull();
  });
});
