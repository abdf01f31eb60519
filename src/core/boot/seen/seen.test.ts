import { describe, expect, it } from "vitest";
import { hiddenTarget } from "../../../../tests/support/boot-cards";
import { aBuild } from "../../../../tests/support/builds";
import { captures } from "../../../../tests/support/formats";
import { emptyMachine, mergeReadings, readTexts, type Facts } from "../../machine";
import { endWords } from "../picture";
import { resolveBoot } from "../resolve";
import { isListRead, seenMachine } from ".";

/** A list of boot entries as the tool prints it, over what the tools of a captured server told. */
const LIST = `BootCurrent: 0002
Timeout: 1 seconds
BootOrder: 0001,0002,0007,0003
Boot0001* Gone\tHD(1,GPT,0badc0de-0000-4000-8000-000000000001,0x800,0x1000)/File(\\EFI\\old\\a.efi)
Boot0002* System\tHD(1,GPT,{guid},0x800,0x100000)/File(\\EFI\\os\\shimx64.efi)
Boot0003* Port 1\tPciRoot(0x0)/Pci(0x1c,0x0)/MAC(02610a000014,1)/IPv4(0.0.0.00.0.0.0,0,0)N.....YM....R,Y.
Boot0004* \u0007Bell\tHD(1,GPT
`;

function factsOf(list: (facts: Facts) => string): Facts {
  const texts = captures("server-uefi-2socket").filter((t) => !t.name.includes("efibootmgr"));
  const read = (more: typeof texts) =>
    mergeReadings(emptyMachine(), readTexts([...texts, ...more]).readings, "2026-11-26T08:00:00Z").document
      .facts;
  return read([{ name: "efibootmgr-v.txt", text: list(read([])) }]);
}
const espOf = (facts: Facts) =>
  facts.drives
    .flatMap((d) => (d.contents ?? []).map((c) => ({ d, c })))
    .find(({ c }) => c.kind === "vfat" && c.partUuid)!;

describe("a server as its tools tell it", () => {
  const facts = factsOf((f) => LIST.replace("{guid}", espOf(f).c.partUuid!));
  const machine = seenMachine(facts, "uefi", []);

  it("carries the partition that its entry names, and the system that runs from there", () => {
    expect(isListRead(facts)).toBe(true);
    const { end, attempts } = resolveBoot(machine);
    expect(attempts.map((a) => [a.entry, a.reason])).toEqual([
      ["0001", "partition missing"],
      ["0002", null],
    ]);
    expect(end.kind === "system" && end.device.id).toBe(espOf(facts).d.id);
    expect(endWords(end)).toMatch(/^starts the running system from /);
  });

  it("tells no serial of a drive in its names: gates ask for them", () => {
    for (const device of machine.devices)
      for (const { serial } of facts.drives) if (serial) expect(device.name).not.toContain(serial.slice(-6));
  });

  it("knows a broken entry as one that cannot be read, and what the order names in vain", () => {
    const broken = { ...machine, order: ["0004", "0009"], devices: [] } as typeof machine;
    expect(resolveBoot(broken).attempts.map((a) => a.reason)).toEqual(["path unreadable", "entry missing"]);
  });

  it("is the same machine in legacy mode, of which no tool tells the order", () => {
    const legacy = seenMachine(facts, "legacy", []);
    expect(legacy.mode).toBe("legacy");
    expect(resolveBoot(legacy).attempts.length).toBeGreaterThan(0);
  });
});

it("a drive that only a controller tells of is behind that, where others were seen; else nobody knows", () => {
  const hidden = (facts: Facts) =>
    seenMachine(facts, "uefi", [])
      .devices.filter((d) => d.kind === "drive")
      .map((d) => d.hidden);
  const { facts } = aBuild(hiddenTarget).machine!.document;
  expect(hidden(facts)).toEqual(["behind the controller", null]);
  expect(hidden({ ...facts, storageControllers: [] })).toEqual(["unknown", null]);
  expect(hidden({ ...facts, drives: facts.drives.slice(0, 1) })).toEqual([null]);
});

it("a machine of which nothing was read starts nothing, and says what that hangs on", () => {
  const { end, depends } = resolveBoot(seenMachine(emptyMachine().facts, "uefi", []));
  expect([end.kind, depends]).toEqual(["nothing", []]);
});
