import { describe, expect, it } from "vitest";
import { capture, captures } from "../../../../tests/support/formats";
import { contentWords, emptyMachine, IMPORTERS, machineLine, mergeReadings, readTexts } from "..";

const AT = "2026-11-24T08:00:00.000Z";

function machineFrom(folder: string) {
  const intake = readTexts(captures(folder));
  expect(intake.rejected).toEqual([]);
  return mergeReadings(emptyMachine(), intake.readings, AT).document.facts;
}

describe("the two-socket server", () => {
  const facts = machineFrom("server-uefi-2socket");

  it("is read from ten tools into one machine", () => {
    expect(machineLine(facts)).toBe(
      "Example Rack-Server-2U · 4 cores · 4.0 GiB memory · 11 drives · 3 ports",
    );
    expect(facts.chassis).toMatchObject({ serial: "SAMPLE0001", assetTag: "ASSET-0042" });
    expect(facts.processors).toMatchObject({ sockets: 2, cores: 4, threads: 4, architecture: "x86_64" });
    expect(facts.firmware).toMatchObject({ mode: "uefi", version: "2.4.1", order: ["0000"] });
    expect(facts.system?.gateway).toBe("192.0.2.1");
    expect(facts.pci).toHaveLength(18);
  });

  it("knows each drive by its serial, with its exact size and what it belongs to", () => {
    const drive = (serial: string) => facts.drives.find((d) => d.id === serial);
    expect(drive("SAMPLESAS0001")).toMatchObject({
      sizeBytes: 12_000_138_625_024,
      media: "spinning",
      physicalSectorBytes: 4096,
      memberOf: ["pool tank"],
    });
    expect(drive("SAMPLENVME0001")).toMatchObject({
      memberOf: ["array md0", "array md1", "volume group vg0"],
    });
    expect(contentWords(drive("SAMPLESATA0001")!)).toBe('ext4 "scratch"');
    expect(drive("SAMPLEUSB01")).toMatchObject({ media: "usb", removable: true, contents: [] });
  });

  it("keeps two drives apart that share a WWN, and leaves out what the kernel made", () => {
    expect(facts.drives.filter((d) => d.wwn === "0x5002538000000020").map((d) => d.id)).toEqual([
      "SAMPLESATA0000",
      "SAMPLESATA0001",
    ]);
    expect(facts.drives.some((d) => d.seenAs === "zd0")).toBe(false);
  });

  it("finds three ports among bonds, bridges and VLANs, by their own MAC", () => {
    expect(facts.ports.map((p) => [p.seenAs, p.pci, p.link])).toEqual([
      ["eno1", "00:14.0", "up"],
      ["enp4s0f0", "04:00.0", "up"],
      ["enp4s0f1", "04:00.1", "down"],
    ]);
    expect(new Set(facts.ports.map((p) => p.mac)).size).toBe(3);
    expect(facts.ports[0]?.addresses[0]).toMatchObject({ address: "192.0.2.10", prefixLength: 24 });
  });
});

it("reads the small machine that started in legacy mode", () => {
  const facts = machineFrom("server-bios-small");
  expect(facts.firmware?.mode).toBe("legacy");
  expect(facts.memory).toMatchObject({ installedBytes: 1536 * 2 ** 20 });
  expect(facts.drives.map((d) => d.id)).toEqual(["SAMPLEIDE01", "SAMPLEVD0"]);
});

it("reads boot entries as the firmware made them", () => {
  const intake = readTexts([{ name: "efi", text: capture("efi", "efibootmgr-v-firmware-made.txt") }]);
  const entries = intake.readings[0]?.reading.facts.firmware?.entries ?? [];
  expect(entries.map((e) => e.kind)).toEqual([
    "firmware",
    "optical",
    "disk",
    "disk",
    "network",
    "network",
    "network",
    "network",
    "network",
    "firmware",
  ]);
  expect(intake.readings[0]?.reading.facts.firmware).toMatchObject({ currentEntry: "0002" });
});

describe("bad input", () => {
  const read = (text: string) => readTexts([{ name: "x", text }]);

  it("refuses rounded sizes with the remedy", () => {
    expect(
      read(capture("server-bios-small", "lsblk-default.json")).rejected[0]?.problems[0]?.message,
    ).toContain("run lsblk -J -b -O");
  });

  it.each(["", "hello", "<html></html>", '{"a":1}', "\u0000\u0001", "PK\u0003\u0004"])(
    "says what it reads when it gets %j",
    (text) => {
      expect(read(text)).toMatchObject({ readings: [], rejected: [{ tool: null, problems: [{ line: 1 }] }] });
    },
  );

  it("refuses 9 MB with its size", () => {
    expect(read("x".repeat(9_000_000)).rejected[0]?.problems[0]?.message).toMatch(/^9 MB of text/);
  });

  it("never throws, and never reads half a JSON text, wherever a capture is cut off", () => {
    for (const machine of ["server-uefi-2socket", "server-bios-small"]) {
      for (const { name, text } of captures(machine)) {
        const step = Math.max(1, Math.floor(text.length / 60));
        for (let cut = 0; cut < text.trimEnd().length; cut += step) {
          const { readings } = readTexts([{ name, text: text.slice(0, cut) }]);
          if (name.endsWith(".json")) expect(readings, `${name} cut at ${cut}`).toEqual([]);
        }
      }
    }
  });

  it("keeps hostile strings as text: cut to 200 characters, without control characters", () => {
    const text = JSON.stringify({
      blockdevices: [
        {
          name: "sda",
          type: "disk",
          size: 2 ** 60,
          serial: "<script>\u0007" + "x".repeat(5000),
          subsystems: "block:scsi:pci",
        },
        { name: "sdb", type: "disk", size: 0, subsystems: "block:scsi:pci" },
      ],
    });
    const drives = read(text).readings[0]?.reading.facts.drives ?? [];
    expect(drives).toHaveLength(1);
    expect(drives[0]?.id).toMatch(/^<script> x{191}$/);
  });
});

it("has a name of its own for every importer", () => {
  expect(new Set(IMPORTERS.map((i) => i.tool)).size).toBe(IMPORTERS.length);
  expect(IMPORTERS.length).toBeGreaterThanOrEqual(10);
});
