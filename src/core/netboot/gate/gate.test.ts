import { describe, expect, it } from "vitest";
import { heldBy, holdWords } from "../../finding";
import { START_GATE, type StartGround } from "../../stage";
import { ARM_GATE, type ArmGround } from "./gate";

const ready: ArmGround = {
  ...{ hasService: true, isServed: true, reports: true, hasKernelWords: true },
  ...{ revision: "B", isIssued: true, stops: [] },
  site: { name: "Works", networkBoot: "on" },
  machine: { name: "wrk-tm1", serial: "OST8B0007", macs: ["02:61:0a:00:31:01"] },
  profile: { name: "Lowland Server", hasNetboot: true },
  problems: { words: null, imageFiles: [], versions: null, answers: [] },
};
const problems = (changes: Partial<ArmGround["problems"]>): Partial<ArmGround> => ({
  problems: { ...ready.problems, ...changes },
});

/** Each rule with a ground on which it fires, and what it says there. */
const FIRING: readonly [code: string, changes: Partial<ArmGround>, says: string][] = [
  ["arm.service", { hasService: false }, "The boot service is off: DERRICK_BOOT_URL is not set"],
  ["arm.site", { site: { name: "Works", networkBoot: "off" } }, "Network boot is off at Works."],
  ["arm.machine", { machine: null }, "No machine is chosen."],
  ["arm.image", { profile: null }, "No image with a known OS profile is chosen."],
  ["arm.serial", { machine: { ...ready.machine!, serial: "0000" } }, "of wrk-tm1 was not collected"],
  ["arm.ports", { machine: { ...ready.machine!, macs: [] } }, "No wired port of wrk-tm1 is known."],
  ["arm.way", { isServed: false }, "This sheet is not for a network installation."],
  ["arm.profile", { profile: { name: "Hopper", hasNetboot: false } }, "does not define network boot."],
  ["arm.profile", { hasKernelWords: false }, "does not define the kernel command line."],
  ["arm.words", problems({ words: "a quote is open." }), "Kernel command line: a quote is open."],
  ["arm.image-file", problems({ imageFiles: ["No file a.iso."] }), "No file a.iso."],
  ["arm.versions", problems({ versions: "Kernel 6, modules 5." }), "Kernel 6, modules 5."],
  ["arm.answers", problems({ answers: ["No locale."] }), "No locale."],
  ["arm.report", { reports: false }, "cannot report the end of its installation"],
  ["gate.revision", { revision: null, isIssued: false }, "No revision of the sheet was issued."],
  ["gate.revision", { isIssued: false }, "The sheet has changed since its last revision."],
  ["gate.blockers", { stops: [{ label: "D1", title: "Target holds data" }] }, "D1 Target holds data."],
];

describe("the gate before a machine is armed", () => {
  it("is open when all is so", () => expect(heldBy(ARM_GATE, ready)).toEqual([]));

  it.each(FIRING)("%s keeps it shut alone, and says what to do", (code, changes, says) => {
    const held = heldBy(ARM_GATE, { ...ready, ...changes });
    expect(held.map((f) => f.code)).toEqual([code]);
    expect(held[0]!.says).toContain(says);
    expect(holdWords(held[0]!)).toMatch(/\. [A-Z].*\.$/);
  });

  it("has a case for each of its rules", () =>
    expect(new Set(FIRING.map(([code]) => code))).toEqual(new Set(ARM_GATE.checks.map((c) => c.code))));

  it("says the same problem of two files once", () =>
    expect(
      heldBy(ARM_GATE, { ...ready, ...problems({ imageFiles: ["No image.", "No image."] }) }),
    ).toHaveLength(1));
});

describe("the gate before a run", () => {
  const ground: StartGround = { revision: "A", isIssued: true, stops: [], isRunning: false };

  it("is open for an issued sheet without blockers that is not running", () =>
    expect(heldBy(START_GATE, ground)).toEqual([]));

  it.each([
    ["gate.revision", { isIssued: false }],
    ["gate.blockers", { stops: [{ label: "E1", title: "Address taken" }] }],
    ["start.running", { isRunning: true }],
  ] as const)("%s keeps it shut", (code, changes) =>
    expect(heldBy(START_GATE, { ...ground, ...changes }).map((f) => f.code)).toEqual([code]),
  );
});
