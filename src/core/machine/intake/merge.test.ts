import { execFileSync } from "node:child_process";
import { describe, expect, it } from "vitest";
import { bundleOf, capture } from "../../../../tests/support/formats";
import { emptyMachine, mergeReadings, readTexts, renderCollector, typeFact } from "..";

const folder = "server-uefi-2socket";
const FIRST = "2026-11-20T10:00:00.000Z";
const LATER = "2026-11-24T10:00:00.000Z";
const parts = {
  lsblk: capture(folder, "lsblk.json"),
  lscpu: capture(folder, "lscpu.json"),
  dmidecode: capture(folder, "dmidecode.txt"),
};
const bundle = bundleOf("sample-big", parts);
const readingsOf = (text: string) => readTexts([{ name: "bundle.txt", text }]).readings;

describe("a second import", () => {
  const first = mergeReadings(emptyMachine(), readingsOf(bundle), FIRST).document;

  it("of the same bundle changes nothing but the time of the facts", () => {
    const again = mergeReadings(first, readingsOf(bundle), LATER);
    expect(again.changes).toEqual([]);
    expect(again.document.facts).toEqual(first.facts);
    expect(again.document.sources["chassis.serial"]).toEqual({
      tool: "dmidecode",
      from: "bundle.txt, section dmidecode",
      at: LATER,
    });
  });

  it("marks a drive that is gone, keeps its facts, and takes it back when it returns", () => {
    const lsblk = JSON.parse(parts.lsblk) as { blockdevices: { serial: string | null }[] };
    const without = { blockdevices: lsblk.blockdevices.filter((d) => d.serial !== "SAMPLESATA0000") };
    const gone = mergeReadings(first, readingsOf(bundleOf("b", { lsblk: JSON.stringify(without) })), LATER);
    expect(gone.changes).toMatchObject([
      { path: "drives.SAMPLESATA0000.missingSince", kind: "gone", after: LATER },
    ]);
    expect(gone.document.facts.drives).toHaveLength(first.facts.drives.length);
    const back = mergeReadings(gone.document, readingsOf(bundle), LATER);
    expect(back.changes).toMatchObject([{ path: "drives.SAMPLESATA0000.missingSince", kind: "back" }]);
  });

  it("by a tool that does not know a value leaves the old one standing", () => {
    const small = mergeReadings(
      first,
      readingsOf(
        bundleOf("b", {
          dmidecode:
            "Handle 0x0100, DMI type 1, 27 bytes\nSystem Information\n\tSerial Number: Not Specified\n",
        }),
      ),
      LATER,
    );
    expect(small.changes).toEqual([]);
    expect(small.document.facts.chassis?.serial).toBe("SAMPLE0001");
  });

  it("does not touch the document it was given", () => {
    const copy = structuredClone(first);
    mergeReadings(first, readingsOf(capture("server-bios-small", "lsblk.json")), LATER);
    expect(first).toEqual(copy);
  });
});

describe("a bundle", () => {
  it("with one broken section gives its good ones, and the line of the break", () => {
    const broken = bundleOf("b", { ...parts, lscpu: parts.lscpu.slice(0, 200) });
    const intake = readTexts([{ name: "b.txt", text: broken }]);
    expect(intake.readings.map((r) => r.tool)).toEqual(["lsblk", "dmidecode"]);
    const problem = intake.rejected[0]?.problems[0];
    expect(intake.rejected).toMatchObject([{ from: "b.txt, section lscpu", tool: "lscpu" }]);
    expect(broken.split("\n")[(problem?.line ?? 0) - 1]).toMatch(/^\| /);
  });

  it("cut off anywhere gives whole sections only, and says that it was cut", () => {
    for (let cut = 20; cut < bundle.length - 6; cut += 4001) {
      const intake = readTexts([{ name: "b", text: bundle.slice(0, cut) }]);
      expect(intake.rejected.length, `cut at ${cut}`).toBeGreaterThan(0);
      for (const r of intake.readings) expect(["lsblk", "lscpu", "dmidecode"]).toContain(r.tool);
    }
  });

  it("of another version is refused", () => {
    expect(
      readTexts([{ name: "b", text: "derrick-bundle 7\n" }]).rejected[0]?.problems[0]?.message,
    ).toContain("derrick-bundle 7");
  });
});

describe("the collector", () => {
  const script = renderCollector({ postUrl: null });

  it("runs under sh on this machine and writes a bundle that reads without a complaint", () => {
    const text = execFileSync("sh", { input: script, encoding: "utf8" });
    const intake = readTexts([{ name: "here", text }]);
    expect(intake.rejected).toEqual([]);
    expect(intake.readings.map((r) => r.tool)).toEqual(
      expect.arrayContaining(["settings", "os-release", "lscpu", "lsblk"]),
    );
    const { facts } = mergeReadings(emptyMachine(), intake.readings, FIRST).document;
    expect(facts.processors?.cores).toBeGreaterThan(0);
    expect(facts.memory?.recognisedBytes).toBeGreaterThan(2 ** 28);
  });

  it("contains no command that writes to a device", () => {
    expect(script).not.toMatch(/\b(dd|mkfs|wipefs|parted|sgdisk|mount|rm -rf|blkdiscard)\b/);
  });
});

it("records who typed a fact", () => {
  const typed = typeFact(
    emptyMachine(),
    "controller",
    { present: true, virtualMedia: "not licensed" },
    FIRST,
    "J. Pell",
  );
  expect(typed.facts.controller).toMatchObject({
    present: true,
    virtualMedia: "not licensed",
    address: null,
  });
  expect(typed.sources["controller.virtualMedia"]).toEqual({ tool: "typed", from: "J. Pell", at: FIRST });
});
