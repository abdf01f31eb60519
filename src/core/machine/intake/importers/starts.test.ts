import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, relative } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { bundleOf } from "../../../../../tests/support/formats";
import {
  emptyMachine,
  mergeReadings,
  readTexts,
  renderBsdCollector,
  renderCollector,
  sanWords,
  startWords,
  type Drive,
} from "../..";
import { lsblk } from "./lsblk";
import { starts } from "./starts";

const folder = mkdtempSync(join(tmpdir(), "derrick-starts-"));
afterAll(() => rmSync(folder, { recursive: true }));

/** The head of an EFI program: MZ, where the PE head stands, its machine word, and the size of its signature table. */
function program(machine: number, isWide: boolean, signature: number): Buffer {
  const bytes = Buffer.alloc(1024);
  const at = 200;
  bytes.write("MZ", 0);
  bytes.writeUInt32LE(at, 60);
  bytes.write("PE\0\0", at);
  bytes.writeUInt16LE(machine, at + 4);
  bytes.writeUInt16LE(isWide ? 0x20b : 0x10b, at + 24);
  bytes.writeUInt32LE(signature, at + (isWide ? 172 : 156));
  return bytes;
}

function sector(name: string, code: number, end: number): string {
  const bytes = Buffer.alloc(8192);
  bytes[0] = code;
  bytes.writeUInt16BE(end, 510);
  writeFileSync(join(folder, name), bytes);
  // The script reads below /dev; a name that leads out of it stands for a drive here.
  return relative("/dev", join(folder, name));
}

/** The functions of a collector, without its own run, and then the given lines. */
const shell = (script: string, lines: string): string =>
  execFileSync("sh", {
    input: `${script.slice(0, script.indexOf("collect() {"))}\n${lines}`,
    encoding: "utf8",
  });

mkdirSync(join(folder, "esp/EFI/BOOT"), { recursive: true });
mkdirSync(join(folder, "esp/EFI/two words"), { recursive: true });
writeFileSync(join(folder, "esp/EFI/BOOT/BOOTX64.EFI"), program(0x8664, true, 2048));
writeFileSync(join(folder, "esp/EFI/BOOT/bootia32.efi"), program(0x14c, false, 512));
writeFileSync(join(folder, "esp/EFI/BOOT/BOOTAA64.EFI"), program(0xaa64, true, 0));
writeFileSync(join(folder, "esp/EFI/BOOT/bootriscv64.efi"), program(0x5064, true, 0));
writeFileSync(join(folder, "esp/EFI/two words/note.efi"), "not a program at all");
writeFileSync(join(folder, "esp/readme.txt"), "no loader");

describe.each([
  ["Linux", renderCollector({ postUrl: null })],
  ["BSD", renderBsdCollector({ postUrl: null })],
])("the collector of a %s system", (_, script) => {
  it("tells how a first sector ends and whether code stands in it", () => {
    const names = [sector("code", 0xeb, 0x55aa), sector("empty", 0, 0x55aa), sector("blank", 0, 0)];
    const said = shell(script, names.map((n) => `first_sector ${n}`).join("\n")).trim();
    expect(said.replaceAll(/\S*derrick-starts-\w+\//g, "").split("\n")).toEqual([
      "drive code ends=55aa code=yes",
      "drive empty ends=55aa code=",
      "drive blank ends=0000 code=",
    ]);
    expect(shell(script, "first_sector no/such/drive")).toBe("drive no/such/drive unread\n");
  });

  it("reads the machine word and the signature table of every EFI program, and no other file", () => {
    const said = shell(script, `efi_volume /dev/sda1 '${folder}/esp'`).trim().split("\n");
    expect(said[0]!.trim()).toBe("volume sda1");
    expect(said.slice(1).toSorted()).toEqual([
      "file machine=332 signature=512 /EFI/BOOT/bootia32.efi",
      "file machine=34404 signature=2048 /EFI/BOOT/BOOTX64.EFI",
      "file machine=20580 signature=0 /EFI/BOOT/bootriscv64.efi",
      "file machine=43620 signature=0 /EFI/BOOT/BOOTAA64.EFI",
      "file machine=none signature=0 /EFI/two words/note.efi",
    ].toSorted()); // prettier-ignore
  });
});

const TOLD = `collector.starts=1
drive sda ends=55aa code=yes
drive sdb unread
drive nvme0n1 ends=0000 code=
volume sda1 0f3c-GUID
file machine=34404 signature=2048 /EFI/BOOT/BOOTX64.EFI
file machine=none signature=0 /EFI/two words/note.efi
file nonsense
volume nvme0n1p2
file machine=20580 signature=0 /efi/x.efi
volume sdb
volume md127
file machine=34404 signature=1 /EFI/lost.efi
volume sdb2 unread
drive sdc odd words
`;

describe("what the collector says of starts", () => {
  it("goes to the drive and the partition that it speaks of", () => {
    const read = starts.parse(TOLD);
    if (!read.ok) throw new Error("refused");
    expect(read.value.facts.drives).toEqual([
      {
        seenAs: "sda",
        firstSector: { signature: true, code: true },
        efiVolumes: [
          {
            ...{ partition: 1, partUuid: "0f3c-GUID" },
            files: [
              { path: "\\EFI\\BOOT\\BOOTX64.EFI", arch: "x64", isSigned: true },
              { path: "\\EFI\\two words\\note.efi", arch: null, isSigned: false },
            ],
          },
        ],
      },
      { seenAs: "sdb", efiVolumes: [{ partition: 0, files: [] }] },
      {
        ...{ seenAs: "nvme0n1", firstSector: { signature: false, code: false } },
        efiVolumes: [{ partition: 2, files: [{ path: "\\efi\\x.efi", arch: "other", isSigned: false }] }],
      },
      { seenAs: "sdc" },
    ]);
    expect(read.value.ignored).toEqual([
      expect.stringContaining("first sector of sdb"),
      expect.stringContaining("md127"),
      expect.stringContaining("sdb2"),
    ]);
    expect(read.warnings.map((w) => w.line)).toEqual([8, 15]);
  });

  it("stays with the drive when a later import without it speaks of other facts only", () => {
    const lsblk = JSON.stringify({
      blockdevices: [{ name: "sda", type: "disk", size: 1e12, serial: "AA10001", model: "M", wwn: null }],
    });
    const read = (parts: Record<string, string>) =>
      readTexts([{ name: "b", text: bundleOf("b", parts) }]).readings;
    const first = mergeReadings(emptyMachine(), read({ lsblk, starts: TOLD }), "2026-11-20T10:00:00.000Z");
    const then = mergeReadings(first.document, read({ lsblk }), "2026-11-21T10:00:00.000Z");
    expect(then.changes).toEqual([]);
    expect(then.document.facts.drives[0]).toMatchObject({
      id: "AA10001",
      firstSector: { signature: true, code: true },
    });
  });
});

it("a volume of a storage network is one drive over several paths; two disks with one serial are not", () => {
  const node = { type: "disk", size: 1e12, model: "LUN", wwn: null };
  const read = (tran: string) =>
    lsblk.parse(
      JSON.stringify({
        blockdevices: ["sda", "sdb"].map((name) => ({ ...node, name, tran, serial: "VOL-7" })),
      }),
    );
  const drives = (tran: string) => {
    const result = read(tran);
    return result.ok ? result.value.facts.drives : [];
  };
  expect(drives("iscsi")).toMatchObject([{ id: "VOL-7", seenAs: "sda", san: "iSCSI", sanPaths: 2 }]);
  expect(drives("fc")).toMatchObject([{ san: "Fibre Channel" }]);
  expect(drives("sas")?.map((d) => [d.id, d.san])).toEqual([
    ["VOL-7", null],
    ["VOL-7@sdb", null],
  ]);
});

it("a drive that tells of its shingled tracks has them, and one that says none has none", () => {
  const read = (zoned: string | null) => {
    const node = { name: "sda", type: "disk", size: 1e12, serial: "AA1", zoned };
    const result = lsblk.parse(JSON.stringify({ blockdevices: [node] }));
    return result.ok ? result.value.facts.drives?.[0]?.shingled : undefined;
  };
  expect(["host-managed", "host-aware", "none", null].map(read)).toEqual([
    "host-managed",
    "host-aware",
    null,
    null,
  ]);
});

it("what a drive starts is said as far as somebody has looked", () => {
  const drive = (more: Partial<Drive>) =>
    startWords({ firstSector: null, efiVolumes: null, ...more } as Drive);
  const file = { path: "\\EFI\\a.efi", isSigned: true };
  expect(drive({})).toBe("");
  expect(drive({ efiVolumes: [{ partition: 1, files: [] }] })).toBe("no EFI program on its FAT volumes");
  expect(
    drive({
      firstSector: { signature: true, code: false },
      efiVolumes: [
        {
          partition: 1,
          files: [
            { ...file, arch: "x64" },
            { ...file, arch: "other", isSigned: false },
            { ...file, arch: null },
          ],
        },
      ],
    }),
  ).toBe(
    "the first sector ends with 55 AA and has no boot code; \\EFI\\a.efi (x64, signed), \\EFI\\a.efi (another processor architecture, not signed), \\EFI\\a.efi (not a program)",
  );
  expect(drive({ firstSector: { signature: false, code: true } })).toMatch(
    /the first sector does not end with 55 AA$/,
  );
  const san = { san: "iSCSI", sanPaths: 1 } as Drive;
  expect([sanWords(san), sanWords({ ...san, san: null })]).toEqual(["over iSCSI, by 1 path", null]);
});
