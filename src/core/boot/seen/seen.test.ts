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

  it("has the partition that its entry names, and the system that runs from there", () => {
    expect(isListRead(facts)).toBe(true);
    const { end, attempts } = resolveBoot(machine);
    expect(attempts.map((a) => [a.entry, a.reason])).toEqual([
      ["0001", "partition missing"],
      ["0002", null],
    ]);
    expect(end.kind === "system" && end.device.id).toBe(espOf(facts).d.id);
    expect(endWords(end)).toMatch(/^boots the running system from QEMU NVMe Ctrl/);
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

describe("what stands on a drive, once somebody has looked", () => {
  const facts = factsOf((f) => LIST.replace("{guid}", espOf(f).c.partUuid!));
  const esp = espOf(facts);
  type File = { path: string; arch: "x64" | "other" | null; isSigned: boolean };
  /** The same machine with the EFI programs of its partition read, and its first sector. */
  const read = (files: File[], more: { partUuid?: string; code?: boolean } = {}): Facts => ({
    ...facts,
    drives: facts.drives.map((d) =>
      d.id === esp.d.id
        ? {
            ...d,
            firstSector: { signature: true, code: more.code ?? false },
            efiVolumes: [
              {
                partition: Number(/\d+$/.exec(esp.c.part)?.[0]),
                partUuid: more.partUuid ?? esp.c.partUuid,
                files,
              },
            ],
          }
        : d,
    ),
  });
  const shim = { path: "\\EFI\\OS\\SHIMX64.EFI", arch: "x64", isSigned: true } as const;
  const resolved = (f: Facts, secureBoot = false) => {
    const machine = seenMachine({ ...f, firmware: { ...f.firmware, secureBoot } }, "uefi", []);
    return resolveBoot({ ...machine, order: ["0002"] } as typeof machine);
  };
  const reasons = (f: Facts, secureBoot?: boolean) => resolved(f, secureBoot).attempts.map((a) => a.reason);

  it("starts the file that an entry names where it stands, in any case of letters", () => {
    expect(reasons(read([shim]))).toEqual([null]);
  });

  it("fails where the file is not there, is no program, or is for another processor", () => {
    expect(reasons(read([]))[0]).toBe("file missing");
    expect(reasons(read([{ ...shim, arch: null }]))[0]).toBe("not a program");
    expect(reasons(read([{ ...shim, arch: "other" }]))[0]).toBe("wrong code");
  });

  it("is refused by secure boot without a signature, and asked of with one: whose it is nobody has read", () => {
    expect(reasons(read([{ ...shim, isSigned: false }]), true)[0]).toBe("not signed");
    const { attempts, depends } = resolved(read([shim]), true);
    expect(attempts[0]!.reason).toBeNull();
    expect(depends.map((d) => d.question.code)).toContain("signed");
  });

  it("is not taken from a partition that was made anew since", () => {
    expect(reasons(read([], { partUuid: "another" }))).toEqual([null]);
  });

  it("hangs a legacy firmware by a valid first sector without code, and is asked of where code stands", () => {
    const legacy = (code: boolean) => {
      const machine = seenMachine(read([], { code }), "legacy", []);
      const devices = machine.devices.filter((d) => d.id === esp.d.id);
      return resolveBoot({ ...machine, devices: devices.map((d) => ({ ...d, system: null })) });
    };
    expect(legacy(false).end.kind).toBe("hangs");
    expect(legacy(true).end.kind).toBe("system");
    expect(legacy(true).depends.map((d) => d.question.code)).toContain("starts something");
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
