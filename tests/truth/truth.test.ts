import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { CORPUS } from "../support/corpus";
import { compareFolder, READERS } from ".";

const PUBLIC = "tests/fixtures";
const compared = (folder: string, corpus = CORPUS) => [...compareFolder(folder, READERS, { corpus })];

describe("the public cases", () => {
  const outcomes = compared(PUBLIC);
  it.each(outcomes)("$path: all are equal", ({ equal, differences }) => {
    expect(differences).toEqual([]);
    expect(equal).toBeGreaterThan(0);
  });

  it.each(READERS)("$name are among them", (reader) =>
    expect(outcomes.filter(({ path }) => reader.reads(path)).length).toBeGreaterThan(0),
  );
});

describe("a case that differs is found", () => {
  const folder = mkdtempSync(join(tmpdir(), "truth-"));
  beforeAll(() => cpSync(PUBLIC, folder, { recursive: true }));
  afterAll(() => rmSync(folder, { recursive: true }));

  function changed(file: string, change: (text: string) => string): string[] {
    const path = join(folder, file);
    const before = readFileSync(path, "utf8");
    writeFileSync(path, change(before));
    const differences = compared(folder).flatMap((o) => o.differences.map((d) => d.what));
    writeFileSync(path, before);
    return differences;
  }

  const cases: [string, string, (text: string) => string, RegExp][] = [
    [
      "an image that boots where it was measured not to",
      "boot/boot-truth.json",
      (t) => t.replace('"bios_cd": true', '"bios_cd": false'),
      /^p01-.*legacy from an optical drive$/,
    ],
    [
      "a start that ended elsewhere",
      "boot/boot-order.json",
      (t) => t.replace('"started":"MARKER-CLONE-PORT0"', '"started":"MARKER-CLONE-PORT1"'),
      /^u40, started$/,
    ],
    [
      "a password that is stored otherwise",
      "keyboard/keyboard-passwords.json",
      (t) => t.replace("YebraßZork?1", "Zebra-York_1"),
      /"Zebra-York_1" on us, read as de: stored/,
    ],
    [
      "a drive of another size",
      "formats/server-uefi-2socket/smartctl-sda.json",
      (t) => t.replace(/"bytes": \d+/, '"bytes": 5'),
      /smartctl-sda.json, bytes/,
    ],
    [
      "a pool with a byte more",
      "storage/zfs-capacity.json",
      (t) => t.replace('"usable":461977419776', '"usable":461977419777'),
      /^p-stripe1-480g, usable$/,
    ],
    [
      "an array that begins elsewhere",
      "storage/mdadm.json",
      (t) => t.replace('"data_offset_sectors":264192', '"data_offset_sectors":2048'),
      /^RAID1 of 2 x .*, data offset$/,
    ],
    [
      "a file system that shows a block less",
      "storage/filesystems.json",
      (t) => t.replace('"df_avail_bytes":950214656', '"df_avail_bytes":950210560'),
      /^ext4 of 1073741824, df, available$/,
    ],
    [
      "a loss that is likelier",
      "storage/raid.json",
      (t) => t.replace('"p_loss_5y":6.702808', '"p_loss_5y":6.702809'),
      /loss within five years$/,
    ],
    [
      "a mask of another length",
      "network/ip.json",
      (t) => t.replace('"netmask": "255.255.252.0"', '"netmask": "255.255.254.0"'),
      /^10\.20\.30\.40\/22, netmask$/,
    ],
    [
      "a port that was named otherwise",
      "network/nic-names.json",
      (t) => t.replace('"path": "enp59s0f0"', '"path": "enp3bs0f0"'),
      /^52:54:00:00:3b:00, path$/,
    ],
    [
      "one of another shape, which keeps none of the others from being compared",
      "storage/filesystems.json",
      (t) => t.replace('"size":1073741824', '"size":"1 GiB"'),
      /^ext4, case 1 is read to its end$/,
    ],
    ["a file that is cut off", "keyboard/keyboard-passwords.json", (t) => t.slice(0, 900), /read to its end/],
  ];
  it.each(cases)("%s", (_, file, change, what) => {
    const [first, ...more] = changed(file, change);
    expect(first).toMatch(what);
    expect(more).toEqual([]);
  });

  it("and a value that was not measured is none", () =>
    expect(changed("storage/mdadm.json", (t) => t.replaceAll(/"data_offset_sectors":\d+,/g, ""))).toEqual(
      [],
    ));

  it("an image that is not in the corpus", () => {
    const missing = compared(join(PUBLIC, "boot"), folder).flatMap((o) => o.differences);
    expect(missing).toHaveLength(23);
    expect(missing[0]!.what).toMatch(/^p01-bios-eltorito.iso is in /);
  });
});
