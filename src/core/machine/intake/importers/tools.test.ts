import { describe, expect, it } from "vitest";
import { capture, captures } from "../../../../../tests/support/formats";
import { emptyMachine, mergeReadings, readTexts, type Facts } from "../..";

const AT = "2026-11-24T08:00:00.000Z";
const big = "server-uefi-2socket";
const read = (text: string) => readTexts([{ name: "x", text }]);
const factsOf = (text: string) => read(text).readings[0]?.reading.facts;
const refusal = (text: string) => read(text).rejected[0]?.problems[0];

describe("all captures of a machine together", () => {
  const intake = readTexts(captures(big));
  const { document, remarks } = mergeReadings(emptyMachine(), intake.readings, AT);
  const { facts } = document;
  const drive = (id: string) => facts.drives.find((d) => d.id === id);

  it("are recognised by their content, each by one importer", () => {
    expect(new Set(intake.readings.map((r) => r.tool))).toEqual(
      new Set([
        ...["lscpu", "lsblk", "blkid", "nvme list", "smartctl", "ip address", "ip link", "ip route", "lspci"],
        ...["lspci -vmm", "lsusb", "lshw", "dmidecode", "efibootmgr", "sensors", "mdstat", "mdadm"],
      ]),
    );
    expect(remarks).toEqual([]);
  });

  it("make one drive of what lsblk, smartctl, nvme, lshw and blkid say of it, without a dispute", () => {
    expect(facts.drives).toHaveLength(11);
    expect(document.disputes).toEqual({});
    expect(drive("SAMPLESATA0000")).toMatchObject({
      wwn: "0x5002538000000020",
      firmware: "2.5+",
      health: { passed: true, hours: 1, temperatureC: 31, reallocated: 0 },
      contents: [{ part: "sdg", kind: "crypto_LUKS" }],
    });
    expect(drive("SAMPLENVME0001")?.health).toMatchObject({
      wearPercent: 0,
      mediaErrors: 0,
      temperatureC: 50,
    });
    expect(document.sources["drives.SAMPLESATA0000.health"]?.tool).toBe("smartctl");
    expect(document.sources["drives.SAMPLESATA0000.contents"]?.tool).toBe("blkid");
  });

  it("tie arrays to the drives that were meant by moving names", () => {
    expect(facts.sets.map((s) => [s.id, s.level, s.health, s.members.map((m) => m.drive)])).toEqual([
      ["array md1", "raid1", "good", ["SAMPLENVME0001", "SAMPLENVME0002"]],
      ["array md0", "raid1", "good", ["SAMPLENVME0002", "SAMPLENVME0001"]],
    ]);
    expect(facts.sets[0]?.sizeBytes).toBe(467_144_704 * 1024);
  });

  it("know drivers, slots and controllers of PCI functions, and ports by card", () => {
    expect(facts.pci.find((p) => p.slot === "03:00.0")).toMatchObject({
      classId: "0104",
      ids: "1000:0079",
      subsystem: "1000:9261",
      place: "slot 0-3",
    });
    expect(facts.storageControllers.map((c) => [c.id, c.mode])).toEqual([
      ["00:1f.2", "plain"],
      ["03:00.0", "RAID"],
    ]);
    expect(facts.ports[0]).toMatchObject({ mac: "52:54:00:aa:00:01", driver: "e1000e", speedMegabits: 1000 });
    expect(facts.usb).toEqual([{ ids: "46f4:0001", name: expect.any(String) }]);
  });

  it("know memory modules and the processor's level", () => {
    expect(facts.memory?.modules?.[0]).toMatchObject({ part: "EX64G3200", megatransfers: 3200 });
    expect(facts.processors?.level).toBe("x86-64-v3");
    expect(facts.sensors.map((s) => [s.id, s.value, s.max])).toEqual([
      ["lm75-i2c-0-4c temp1", 42, null],
      ["nvme-pci-0100 Composite", 49.85, 69.85],
      ["nvme-pci-0200 Composite", 49.85, 69.85],
    ]);
  });

  it("change nothing when they are read a second time", () => {
    expect(mergeReadings(document, intake.readings, AT).changes).toEqual([]);
  });
});

describe("zpool", () => {
  const pool = (state: string) => factsOf(capture("zpool", `status-${state}.txt`))?.sets?.[0];

  it.each([
    ["healthy", "good", "ONLINE", "AVAIL"],
    ["faulted", "degraded", "FAULTED external device fault", "AVAIL"],
  ])("reads %s pools with their spares", (state, health, third, spare) => {
    expect(pool(state)).toMatchObject({ id: "pool tank", level: "raidz2", health });
    expect(pool(state)?.members?.map((m) => m.name)).toEqual(["sda", "sdb", "sdc", "sdd", "sde", "sdf"]);
    expect(pool(state)?.members?.[2]?.state).toBe(third);
    expect(pool(state)?.members?.[5]).toMatchObject({ role: "spare", state: spare });
  });

  it("sees a spare in use as the member that it is", () => {
    const names = pool("replacing")?.members?.map((m) => `${m.name} ${m.role}`);
    expect(names).toEqual([
      "sda member",
      "sdb member",
      "sdc member",
      "sdd member",
      "sdf member",
      "sde member",
    ]);
  });

  it("tells pools that wait to be imported", () => {
    expect(factsOf(capture("zpool", "import.txt"))?.sets?.[0]).toMatchObject({
      id: "pool tank",
      health: "good",
      remark: expect.stringContaining("not imported"),
    });
  });

  it("takes sizes to the byte from the list, with or without -v", () => {
    expect(factsOf(capture("zpool", "list-Hp.txt"))?.sets?.[0]?.sizeBytes).toBe(59_992_103_190_528);
    expect(factsOf(capture("zpool", "list-Hpv-faulted.txt"))?.sets).toMatchObject([
      { name: "tank", health: "degraded" },
    ]);
  });

  it("tells which member is in which vdev, and what stands beside those that keep data", () => {
    const rows = [
      ...["tank ONLINE", "  mirror-0 ONLINE", "    sda ONLINE", "    sdb ONLINE", "  mirror-1 ONLINE"],
      ...[
        "    sdc ONLINE",
        "    spare-1 ONLINE",
        "      sdd ONLINE",
        "      sde ONLINE",
        "logs",
        "  sdf ONLINE",
      ],
      ...["cache", "  sdg ONLINE", "special", "  mirror-2 ONLINE", "    sdh ONLINE", "    sdi ONLINE"],
      ...["spares", "  sde INUSE"],
    ];
    const tree = rows.map((row) => `\t${row}${/(logs|cache|special|spares)$/.test(row) ? "" : " 0 0 0"}`);
    const text = ["  pool: tank", " state: ONLINE", "config:", "", ...tree, "", "errors: none"].join("\n");
    const members = factsOf(text)?.sets?.[0]?.members ?? [];
    expect(members.map((m) => `${m.name} ${m.role} ${m.group}`)).toEqual([
      ...["sda member 0", "sdb member 0", "sdc member 1", "sdd member 1", "sde member 1"],
      ...["sdf log null", "sdg cache null", "sdh special null", "sdi special null"],
    ]);
  });

  it("refuses a status that was cut off, with the line", () => {
    const text = capture("zpool", "status-healthy.txt");
    expect(refusal(text.slice(0, text.indexOf("sdc")))).toMatchObject({
      message: expect.stringContaining("truncated"),
      line: 9,
    });
  });

  it("reads a resilver that is under way", () => {
    const text = capture("zpool", "status-healthy.txt").replace(
      "config:",
      "  scan: resilver in progress since Tue Nov 24 02:44:56 2026\n\t1.2T scanned, 300G issued\n\t40G resilvered, 24.50% done, 1 days 02:03:04 to go\nconfig:",
    );
    expect(factsOf(text)?.sets?.[0]?.progress).toEqual({
      what: "resilver",
      percent: 24.5,
      secondsLeft: 86_400 + 2 * 3600 + 3 * 60 + 4,
    });
  });
});

describe("md arrays", () => {
  const states = capture("md", "mdstat-states.txt")
    .split(/^== (.*)$/m)
    .slice(1);
  const part = (name: string): string => states[states.indexOf(name) + 1]?.trimStart() ?? "";
  const mdstatOnly = (text: string): string => text.slice(0, text.indexOf("unused devices: <none>") + 23);

  it.each([
    ["healthy", "good", 0],
    ["one failed", "degraded", 1],
    ["two failed", "failed", 2],
  ])("%s is told as %s", (name, health, faulty) => {
    const set = factsOf(mdstatOnly(part(name)))?.sets?.[0];
    expect(set).toMatchObject({ id: "array md0", level: "raid5", health, sizeBytes: 6_282_240 * 1024 });
    expect(set?.members?.filter((m) => m.state === "faulty")).toHaveLength(faulty);
  });

  it("a rebuild has its percentage and the time that is left", () => {
    expect(factsOf(mdstatOnly(part("rebuilding")))?.sets?.[0]?.progress).toEqual({
      what: "recovery",
      percent: 0.2,
      secondsLeft: 2028,
    });
  });

  it("mdadm --detail names members, the removed place not among them", () => {
    const text = part("one failed");
    const set = factsOf(text.slice(text.indexOf("/dev/md0:")))?.sets?.[0];
    expect(set).toMatchObject({ level: "raid5", state: "clean, degraded", health: "degraded" });
    expect(set?.members?.map((m) => `${m.name} ${m.state}`)).toEqual([
      "loop0 active sync",
      "loop2 active sync",
      "loop3 active sync",
      "loop1 faulty",
    ]);
  });

  it("a cut-off mdstat is refused", () => {
    expect(refusal(part("healthy").slice(0, 120))?.message).toContain("truncated");
  });
});

describe("smartctl", () => {
  it("says why nothing was read from a drive behind a bridge", () => {
    expect(refusal(capture("smart", "smartctl-sdi.json"))?.message).toMatch(/Unknown USB bridge.*option -d/);
    expect(refusal(capture("smart", "smartctl-vda.json"))?.message).toMatch(/Unable to detect device type/);
  });

  it("takes the list of a scan for what it is", () => {
    const scan = { smartctl: { exit_status: 0 }, devices: [{ name: "/dev/sda" }, { name: "/dev/sdb" }] };
    expect(refusal(JSON.stringify(scan))?.message).toMatch(/list of 2 devices.*on each of them/);
  });

  it("reads what a worn SAS drive, an old ATA drive and an NVMe drive count", () => {
    const health = (more: object) =>
      factsOf(JSON.stringify({ smartctl: {}, device: { name: "/dev/sda" }, serial_number: "S-1", ...more }))
        ?.drives?.[0]?.health;
    expect(
      health({
        scsi_grown_defect_list: 7,
        scsi_error_counter_log: {
          read: { total_uncorrected_errors: 2 },
          write: { total_uncorrected_errors: 1 },
        },
      }),
    ).toEqual({ reallocated: 7, uncorrectable: 3, warnings: [] });
    expect(
      health({
        ata_smart_attributes: {
          table: [
            { id: 5, name: "Reallocated_Sector_Ct", when_failed: "now", raw: { value: 4000 } },
            { id: 197, raw: { value: 16 } },
            { id: 198, raw: { value: 2 ** 40 } },
          ],
        },
        ata_smart_self_test_log: {
          standard: {
            table: [
              {
                type: { string: "Extended offline" },
                status: { string: "read failure", passed: false },
                lifetime_hours: 31_002,
              },
            ],
          },
        },
      }),
    ).toEqual({
      reallocated: 4000,
      pending: 16,
      selfTest: { kind: "Extended offline", passed: false, atHours: 31_002 },
      warnings: ["Reallocated_Sector_Ct is below its threshold"],
    });
    expect(
      health({
        nvme_smart_health_information_log: {
          critical_warning: 5,
          available_spare: 4,
          available_spare_threshold: 10,
          percentage_used: 103,
        },
      }),
    ).toMatchObject({
      sparePercent: 4,
      spareThresholdPercent: 10,
      wearPercent: 103,
      warnings: ["spare blocks below the threshold", "reliability degraded by media errors"],
    });
  });
});

it("lists IOMMU groups, and takes their absence for a fact", () => {
  const text =
    "/sys/kernel/iommu_groups/12/devices/0000:01:00.0\n/sys/kernel/iommu_groups/12/devices/0000:01:00.1\n";
  expect(factsOf(text)).toEqual({
    processors: { iommu: true },
    pci: [
      { slot: "01:00.0", iommuGroup: 12 },
      { slot: "01:00.1", iommuGroup: 12 },
    ],
  });
  expect(factsOf("/sys/kernel/iommu_groups: no groups\n")?.processors?.iommu).toBe(false);
});

it("reads blkid in both forms, and never invents a drive from a name", () => {
  const exported = "DEVNAME=/dev/sda1\nLABEL=my\\ data\nTYPE=ext4\n\nDEVNAME=/dev/sda2\nTYPE=swap\n";
  const { document, remarks } = mergeReadings(emptyMachine(), read(exported).readings, AT);
  expect(document.facts.drives).toEqual([]);
  expect(remarks[0]).toMatch(/a device name that can change/);
  expect(read(exported).readings[0]?.reading.understood).toBe("2 signatures on 1 drive");
});

describe("any capture, cut off anywhere", () => {
  const all = [
    ...captures(big),
    ...captures("server-bios-small"),
    ...captures("zpool", /^$/),
    ...captures("md", /^$/),
    ...captures("smart", /^$/),
  ];

  it("never throws, gives a place or a reason, and merges to a sound document", () => {
    for (const { name, text } of all) {
      const step = Math.max(1, Math.floor(text.length / 25));
      for (let cut = 1; cut < text.length; cut += step) {
        const { readings, rejected } = readTexts([{ name, text: text.slice(0, cut) }]);
        for (const r of rejected) expect(r.problems[0]?.message, `${name} cut at ${cut}`).toBeTruthy();
        if (name.endsWith(".json"))
          expect(readings.length, `${name} cut at ${cut}`).toBe(text.slice(cut).trim() === "" ? 1 : 0);
        mergeReadings(emptyMachine(), readings, AT);
      }
    }
  });
});

it("survives hostile values: sizes of 0 and 2^60, no serials, control characters, markup", () => {
  const disk = (name: string, more: object) => ({
    name,
    type: "disk",
    subsystems: "block:scsi:pci",
    ...more,
  });
  const text = JSON.stringify({
    blockdevices: [
      disk("sda", { size: 2 ** 60, serial: "A\u0000B<img src=x onerror=alert(1)>" }),
      disk("sdb", { size: 0 }),
      disk("sdc", { size: 480e9 }),
      disk("sdd", { size: 480e9, serial: "SAME" }),
      disk("sde", { size: 480e9, serial: "SAME" }),
      disk("sdf", { size: -5, serial: "NEG", model: "x".repeat(9000) }),
    ],
  });
  const { readings } = read(text);
  expect(readings[0]?.warnings.map((w) => w.message)).toEqual([
    expect.stringContaining("two drives report the serial number SAME"),
    expect.stringContaining("sda reports a size of 1152921504606847000 bytes"),
    expect.stringContaining("sdf reports a size of -5 bytes"),
  ]);
  const { facts } = mergeReadings(emptyMachine(), readings, AT).document;
  expect(
    facts.drives.map((d): Partial<Facts["drives"][number]> => ({ id: d.id, sizeBytes: d.sizeBytes })),
  ).toEqual([
    { id: "A B<img src=x onerror=alert(1)>", sizeBytes: 0 },
    { id: "?sdc", sizeBytes: 480e9 },
    { id: "SAME", sizeBytes: 480e9 },
    { id: "SAME@sde", sizeBytes: 480e9 },
    { id: "NEG", sizeBytes: 0 },
  ]);
  expect(facts.drives.at(-1)?.model).toHaveLength(200);
});
