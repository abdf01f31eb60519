import { describe, expect, it } from "vitest";
import { bundleOf, capture } from "../../../../tests/support/formats";
import { seeded } from "../../../../tests/support/random";
import { emptyMachine, mergeReadings, readTexts, type MachineDocument } from "..";

// Every text tool's output, cut at three hundred places: each cut is told, or nothing that is known is taken away by it.

const AT = "2026-11-20T10:00:00.000Z";
const OUTPUTS: readonly (readonly [string, string])[] = [
  ["server-uefi-2socket", "lspci-nnmm.txt"],
  ["server-uefi-2socket", "lspci-vmmnnk.txt"],
  ["server-uefi-2socket", "dmidecode.txt"],
  ["server-bios-small", "dmidecode.txt"],
  ["server-uefi-2socket", "blkid.txt"],
  ["server-uefi-2socket", "efibootmgr-v.txt"],
  ["server-uefi-2socket", "lsusb.txt"],
  ["server-uefi-2socket", "mdadm-detail.txt"],
  ["server-uefi-2socket", "mdstat.txt"],
  ["zpool", "import.txt"],
  ["zpool", "status-healthy.txt"],
];
const [lsblk] = readTexts([{ name: "lsblk", text: capture("server-uefi-2socket", "lsblk.json") }]).readings;
const lay = (document: MachineDocument, text: string) => {
  const intake = readTexts([{ name: "cut", text }]);
  return { intake, document: mergeReadings(document, [lsblk!, ...intake.readings], AT).document };
};

describe.each(OUTPUTS)("%s/%s", (machine, file) => {
  const whole = capture(machine, file);
  const full = lay(emptyMachine(), whole);
  const random = seeded(14);
  const cuts = Array.from({ length: 300 }, () =>
    whole.slice(0, 1 + Math.floor(random() * (whole.length - 2))),
  );

  it("is taken whole without a word", () => {
    expect(full.intake.rejected).toEqual([]);
    expect(full.intake.readings.at(-1)?.warnings).toEqual([]);
  });

  it("is told to be cut off, unless the cut stands between two lines", () => {
    for (const cut of cuts) {
      const { intake, document } = lay(emptyMachine(), cut);
      const words = [
        ...intake.rejected.flatMap((r) => r.problems),
        ...intake.readings.flatMap((r) => r.warnings),
      ];
      if (cut.endsWith("\n") || words.length > 0) continue;
      // What was cut off told nothing: the text's own end is there.
      expect(document.facts, JSON.stringify(cut.slice(-60))).toEqual(full.document.facts);
    }
  });

  it("takes nothing away that was known, wherever it is cut", () => {
    for (const cut of cuts)
      expect(lay(full.document, cut).document.facts, cut.slice(-60)).toEqual(full.document.facts);
  });
});

it("dmidecode without its end is refused: half the memory would be a wrong number", () => {
  const text = capture("server-uefi-2socket", "dmidecode.txt");
  const { rejected, readings } = readTexts([{ name: "d", text: text.slice(0, text.lastIndexOf("Handle")) }]);
  expect(readings).toEqual([]);
  expect(rejected[0]?.problems).toMatchObject([
    { message: expect.stringMatching(/its last line "End Of Table" is missing/) },
  ]);
});

it("mdadm with fewer members than it counts is refused", () => {
  const text = capture("server-uefi-2socket", "mdadm-detail.txt").trimEnd();
  const cut = `${text.slice(0, text.lastIndexOf("\n"))}\n`;
  expect(readTexts([{ name: "m", text: cut }]).rejected[0]?.problems).toMatchObject([
    { message: expect.stringMatching(/\/dev\/md1 reports 2 devices and lists 1/) },
  ]);
});

it("a section of a bundle is as long as its end says, and what it does not show is gone", () => {
  const lines = capture("server-uefi-2socket", "lspci-nnmm.txt").split("\n");
  const full = lay(emptyMachine(), bundleOf("b", { lspci: lines.join("\n") })).document;
  const shorter = lines.slice(0, -3).join("\n");
  const counted = lay(full, bundleOf("b", { lspci: shorter })).document;
  expect(counted.facts.pci.length).toBe(full.facts.pci.length - 2);
  const lone = mergeReadings(full, readTexts([{ name: "lspci", text: `${shorter}\n` }]).readings, AT);
  expect(lone.document.facts.pci.length).toBe(full.facts.pci.length);
  expect(lone.remarks).toEqual([
    expect.stringMatching(/^lspci ends before 2 items that it reported before .* may be truncated/),
  ]);
  const middle = [...lines.slice(0, 2), ...lines.slice(3)].join("\n");
  const gone = mergeReadings(full, readTexts([{ name: "lspci", text: middle }]).readings, AT);
  expect(gone.document.facts.pci.length).toBe(full.facts.pci.length - 1);
});

it("entries that a lone text does not show may be cut off: they are kept, and that is told", () => {
  const text = capture("server-uefi-2socket", "efibootmgr-v.txt").trimEnd();
  const full = lay(emptyMachine(), `${text}\n`).document;
  const shorter = `${text.slice(0, text.lastIndexOf("\n"))}\n`;
  const got = mergeReadings(full, readTexts([{ name: "e", text: shorter }]).readings, AT);
  expect(got.document.facts.firmware).toEqual(full.facts.firmware);
  expect(got.remarks).toEqual([
    expect.stringMatching(/^efibootmgr reports the first 0 of 1 known items \(firmware\.entries\)/),
  ]);
});

it("a last line without an end is left out, and the words before it are told", () => {
  const text = "Bus 001 Device 001: ID 0951:1666 Data stick\nBus 001 Device 002: ID 46d:c0";
  const [reading] = readTexts([{ name: "u", text }]).readings;
  expect(reading?.reading.facts.usb).toHaveLength(1);
  expect(reading?.warnings).toMatchObject([
    { line: 2, message: expect.stringMatching(/truncated after "Bus 001 Device 002/) },
  ]);
});
