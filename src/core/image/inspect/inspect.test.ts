import { closeSync, ftruncateSync, openSync, readFileSync, rmSync, writeSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import CRC32 from "crc-32";
import { describe, expect, it } from "vitest";
import {
  bootTruth,
  CORPUS,
  corpusFile,
  driverMapTruth,
  inspectBytes,
  inspectFile,
} from "../../../../tests/support/corpus";
import { compareImage } from "../../../../tests/truth/boot";
import { seeded } from "../../../../tests/support/random";
import { FIRMWARES, inspectionSchema, READ_BUDGET } from ".";

const booted = { ...bootTruth, ...driverMapTruth };
const names = Object.keys(booted);
describe("the corpus of images that were really booted", () => {
  it("is all there", () => expect(names).toHaveLength(25));

  it.each(names)("%s: what Derrick says is what booted, and what the standard tools say", (name) => {
    const compared = [...compareImage(name, booted[name]!, CORPUS)];
    expect(compared.length).toBeGreaterThan(12);
    for (const { what, measured, derrick } of compared) expect(derrick, what).toEqual(measured);
    const { value } = inspectFile(corpusFile(name));
    for (const cell of [...Object.values(value.verdict.optical), ...Object.values(value.verdict.stick)])
      expect(cell.reason).not.toBe("");
    expect(inspectionSchema.safeParse({ ...value, bytesRead: 0 }).success).toBe(true);
  });
});

it("boot code that begins with a driver map is there, and a driver map alone is none", () => {
  for (const name of Object.keys(driverMapTruth)) {
    const bytes = new Uint8Array(readFileSync(corpusFile(name)));
    expect([bytes[0], bytes[1]]).toEqual([0x45, 0x52]);
    bytes.fill(0, 8, 440);
    expect(inspectBytes(bytes).value.verdict.stick.legacy).toMatchObject({ answer: "does not" });
  }
});

describe("hostile and broken files", () => {
  const hybrid = () => new Uint8Array(readFileSync(corpusFile("p04-both-hybrid-gpt.iso")));

  it("cut off anywhere give a verdict, and say that they are cut off", () => {
    const whole = hybrid();
    for (let cut = 0; cut < whole.length; cut += 40_961) {
      const { value } = inspectBytes(whole.slice(0, cut));
      if (cut > 20 * 2048)
        expect(value.faults.some((f) => f.grave && f.message.startsWith("truncated"))).toBe(true);
      expect(
        value.regions.reduce((end, r) => Math.max(end, r.kind === "missing" ? 0 : r.offset + r.length), 0),
      ).toBeGreaterThanOrEqual(Math.min(cut, 1) - 1);
    }
  });

  it("with bytes changed at random neither hang nor throw", () => {
    const random = seeded(7);
    for (const name of ["p04-both-hybrid-gpt.iso", "p05-arm64-appended-gpt.iso", "p10-memtest-x64.iso"]) {
      const whole = new Uint8Array(readFileSync(corpusFile(name))).slice(0, 3_000_000);
      for (let round = 0; round < 60; round += 1) {
        const bytes = whole.slice();
        for (let i = 0; i < 200; i += 1)
          bytes[Math.floor(random() * (round % 2 === 0 ? 70_000 : bytes.length))] = Math.floor(
            random() * 256,
          );
        expect(inspectBytes(bytes).bytesRead).toBeLessThanOrEqual(READ_BUDGET);
      }
    }
  });

  it("of random bytes, and of none, are called unknown", () => {
    const random = seeded(11);
    const noise = Uint8Array.from({ length: 200_000 }, () => Math.floor(random() * 256));
    expect(inspectBytes(noise).value.kind).toBe("unknown type of file");
    const empty = inspectBytes(new Uint8Array(0)).value;
    expect(empty.kind).toBe("an empty file");
    for (const f of FIRMWARES) expect(empty.verdict.stick[f].answer).toBe("does not");
  });

  it("a directory record that points to itself, and a GPT with a billion entries, end soon", () => {
    const tree = new Uint8Array(readFileSync(corpusFile("p13-efi-in-tree-only.iso")));
    const view = new DataView(tree.buffer);
    const root = view.getUint32(16 * 2048 + 158, true);
    // Every record of the root names the root itself.
    for (let at = root * 2048; tree[at]; at += tree[at]!) view.setUint32(at + 2, root, true);
    expect(inspectBytes(tree).bytesRead).toBeLessThan(READ_BUDGET);
    const gpt = new Uint8Array(readFileSync(corpusFile("p07-gpt-esp.img"))).slice(0, 2_000_000);
    new DataView(gpt.buffer).setUint32(512 + 80, 1_000_000_000, true);
    const { value, bytesRead } = inspectBytes(gpt);
    expect(value.faults.some((f) => f.message.includes("first copy of the GPT is damaged"))).toBe(true);
    expect(bytesRead).toBeLessThan(READ_BUDGET);
  });

  it("names with control characters are shown with dots", () => {
    const bytes = hybrid();
    bytes.set([65, 7, 27, 66], 16 * 2048 + 40);
    expect(inspectBytes(bytes).value.volumeId).toMatch(/^A··B/);
  });

  it("20 GB of nothing are read in a few hundred kilobytes", () => {
    const path = join(tmpdir(), `derrick-sparse-${process.pid}.img`);
    const fd = openSync(path, "w");
    ftruncateSync(fd, 20_000_000_000);
    writeSync(fd, hybrid(), 0, 2_000_000, 0);
    closeSync(fd);
    try {
      const { value, bytesRead } = inspectFile(path);
      expect(value.verdict.optical.x64.answer).toBe("boots");
      expect(value.regions.some((r) => r.kind === "beyond")).toBe(true);
      expect(bytesRead).toBeLessThan(400_000);
    } finally {
      rmSync(path);
    }
  });
});

describe("what is no image as it stands", () => {
  const bytes = (...parts: [number, string][]): Uint8Array => {
    const out = new Uint8Array(70_000);
    for (const [at, text] of parts)
      out.set(
        [...text].map((c) => c.charCodeAt(0)),
        at,
      );
    return out;
  };
  const BOOT_SECTOR: [number, string] = [510, "\x55\xaa"];
  const CODE: [number, string] = [100, "x".repeat(100)];
  it.each([
    ["a virtual disk (qcow2)", [0, "QFI\xfb\0\0\0\x03"]],
    ["a virtual disk (VMDK)", [0, "KDMV\x01\0\0\0"]],
    ["the descriptor of a virtual disk (VMDK)", [0, "# Disk DescriptorFile\nversion=1\n"]],
    ["a virtual disk (VDI)", [64, "\x7f\x10\xda\xbe"]],
    ["a virtual disk (VHD)", [0, "conectix"]],
    ["a virtual disk (VHDX)", [0, "vhdxfile"]],
    ["a kernel for x86", [514, "HdrS"]],
    ["a kernel for arm64", [56, "ARM\x64"]],
    ["an initramfs", [0, "070701"]],
    ["a tar archive", [257, "ustar"]],
    ["a gzip file", [0, "\x1f\x8b\x08"]],
    ["an xz file", [0, "\xfd7zXZ\0"]],
    ["a zstd file", [0, "\x28\xb5\x2f\xfd"]],
    ["a bzip2 file", [0, "BZh9"]],
  ] as [string, [number, string]][])(
    "is named, with what to do first, and boots nowhere: %s",
    (what, sign) => {
      const { kind, verdict } = inspectBytes(bytes(CODE, BOOT_SECTOR, sign)).value;
      expect(kind.startsWith(what), kind).toBe(true);
      expect(kind).toMatch(/first|not bootable|not a bootable|may be inside/);
      for (const way of [verdict.optical, verdict.stick])
        for (const f of FIRMWARES) expect(way[f]).toEqual({ answer: "does not", reason: `it is ${kind}` });
    },
  );

  it("a container with an image somewhere in it is a container", () => {
    const iso = new Uint8Array(readFileSync(corpusFile("p04-both-hybrid-gpt.iso")));
    iso.set([0x51, 0x46, 0x49, 0xfb], 0);
    expect(inspectBytes(iso).value).toMatchObject({
      kind: expect.stringMatching(/^a virtual disk \(qcow2\)/),
      verdict: { optical: { x64: { answer: "does not" } } },
    });
    const kept = new Uint8Array(readFileSync(corpusFile("p04-both-hybrid-gpt.iso")));
    kept.set([0x1f, 0x8b], 0);
    expect(inspectBytes(kept).value.kind).toMatch(/^ISO 9660/);
  });

  it("a virtual disk of fixed size is a raw disk with a footer, and boots as the disk does", () => {
    const raw = new Uint8Array(readFileSync(corpusFile("p07-gpt-esp.img")));
    const footer = new Uint8Array(512);
    footer.set([..."conectix"].map((c) => c.charCodeAt(0)));
    footer[63] = 2;
    const { value } = inspectBytes(new Uint8Array([...raw, ...footer]));
    expect(value.kind).toMatch(/^a virtual disk \(VHD of fixed size\): a raw disk/);
    expect(value.verdict.stick.x64).toEqual(inspectBytes(raw).value.verdict.stick.x64);
  });
});

describe("words that fit what is there", () => {
  const changed = (name: string, change: (bytes: Uint8Array, view: DataView) => void) => {
    const bytes = new Uint8Array(readFileSync(corpusFile(name)));
    change(bytes, new DataView(bytes.buffer));
    return inspectBytes(bytes).value;
  };
  const CATALOG = 17 * 2048 + 71;

  it("an entry that is marked as not bootable is told as such", () => {
    const { verdict } = changed("p01-bios-eltorito.iso", (bytes, view) => {
      bytes[view.getUint32(CATALOG, true) * 2048 + 32] = 0;
    });
    expect(verdict.optical.legacy).toEqual({
      answer: "does not",
      reason: "its legacy BIOS entry is marked as not bootable",
    });
  });
  it("a loader that stands in the file tree of the ISO only is started by some firmware from optical media", () => {
    const { optical, stick } = inspectFile(corpusFile("p13-efi-in-tree-only.iso")).value.verdict;
    expect(optical.x64).toMatchObject({
      answer: "on some firmware",
      reason: expect.stringMatching(/some firmware boots EFI\/BOOT from the file tree of the ISO/),
    });
    expect(optical.aa64).toEqual({ answer: "does not", reason: "the boot catalogue has no entry for UEFI" });
    expect(stick.x64.answer).toBe("does not");
  });
  it("partitions are spoken of where there are some", () => {
    const { verdict } = inspectFile(corpusFile("p06-data-only.iso")).value;
    expect(verdict.stick.x64.reason).toBe("no partition table");
  });
  it("regions end with the file, wherever it is cut", () => {
    const whole = new Uint8Array(readFileSync(corpusFile("p04-both-hybrid-gpt.iso")));
    for (let cut = 600; cut < whole.length; cut += 30_011)
      for (const r of inspectBytes(whole.slice(0, cut)).value.regions)
        if (r.kind !== "missing") expect(r.offset + r.length, r.name).toBeLessThanOrEqual(cut);
  });
});

describe("what does not boot although it looks so", () => {
  const gptEsp = () => new Uint8Array(readFileSync(corpusFile("p07-gpt-esp.img")));
  const at = (bytes: Uint8Array, word: string): number => Buffer.from(bytes).indexOf(word, 0, "latin1");

  it("a GPT for other sectors than a stick has is told, and not taken for bootable", () => {
    const small = gptEsp();
    const large = new Uint8Array(small.length + 16 * 4096);
    // The partition stays where its entry says, in sectors of 4096 bytes; the header and its sums are made anew.
    const view = new DataView(small.buffer);
    const first = view.getUint32(1024 + 32, true);
    const header = small.slice(512, 1024);
    const entries = small.slice(1024, 1024 + 16_384);
    const words = new DataView(entries.buffer);
    words.setUint32(32, 16, true);
    words.setUint32(40, 16 + Math.ceil((view.getUint32(1024 + 40, true) - first + 1) / 8), true);
    const head = new DataView(header.buffer);
    head.setUint32(72, 2, true);
    head.setUint32(88, CRC32.buf(entries) >>> 0, true);
    head.setUint32(16, 0, true);
    head.setUint32(16, CRC32.buf(header.subarray(0, head.getUint32(12, true))) >>> 0, true);
    large.set(small.subarray(0, 512));
    large.set(header, 4096);
    large.set(entries, 2 * 4096);
    large.set(small.subarray(first * 512, first * 512 + large.length - 16 * 4096), 16 * 4096);
    const { faults, verdict } = inspectBytes(large).value;
    expect(faults[0]).toMatchObject({
      grave: true,
      message: expect.stringMatching(/its GPT is for sectors of 4096 bytes/),
    });
    expect(verdict.stick.x64).toMatchObject({
      answer: "does not",
      reason: expect.stringMatching(/stick has 512/),
    });
  });

  it.each([
    // The second copy is in the last sector of the image, and a stick is larger.
    ["the first header", [512 + 16], "does not"],
    ["the first entries", [1024 + 40], "does not"],
    ["the protective entry", [446 + 4], "does not"],
  ] as [string, number[], string][])(
    "a GPT of which %s is damaged is treated as firmware does",
    (_, places, answer) => {
      const bytes = gptEsp();
      for (const place of places) bytes[place] = (bytes[place]! + 1) & 0xff;
      const { verdict, faults } = inspectBytes(bytes).value;
      expect(verdict.stick.x64.answer, verdict.stick.x64.reason).toBe(answer);
      expect(faults).not.toEqual([]);
    },
  );
  it("a GPT of which both copies are damaged is read by nobody", () => {
    const bytes = gptEsp();
    for (const place of [512 + 16, bytes.length - 512 + 16]) bytes[place] = (bytes[place]! + 1) & 0xff;
    const { verdict, faults } = inspectBytes(bytes).value;
    expect(verdict.stick.x64.answer).toBe("does not");
    expect(faults.some((f) => f.grave && /both copies of the GPT are damaged/.test(f.message))).toBe(true);
  });
  it("a file system without partitions starts as a disc too, and its boot code is no table of partitions", () => {
    const whole = gptEsp();
    const partition = inspectBytes(whole).value.regions.find((r) => r.kind === "partition")!;
    const bytes = whole.slice(partition.offset, partition.offset + partition.length);
    bytes.set(
      [0xb4, 0x0e, 0xcd, 0x10, 0xeb, 0xf5, 0x5e, 0x8a, 0x04, 0x46, 0x0a, 0xc0, 0x74, 0x09, 0x3c, 0x0a],
      446,
    );
    const { verdict, faults } = inspectBytes(bytes).value;
    expect(faults).toEqual([]);
    expect([verdict.optical.x64.answer, verdict.stick.x64.answer]).toEqual(["boots", "boots"]);
    expect(verdict.optical.legacy.answer).toBe("does not");
  });
  it("a loader that is cut off is told, wherever the cut is", () => {
    const whole = gptEsp();
    const loader = at(whole, "MZ");
    const cut = inspectBytes(whole.slice(0, loader + 5000)).value;
    expect(cut.verdict.stick.x64).toMatchObject({
      answer: "does not",
      reason: expect.stringMatching(/EFI\/BOOT\/BOOTX64\.EFI is truncated/i),
    });
    expect(
      cut.faults.some((f) => f.grave && /truncated: a part of it is beyond the end/.test(f.message)),
    ).toBe(true);
    const short = gptEsp();
    const entry = at(short, "BOOTX64 EFI");
    new DataView(short.buffer).setUint32(entry + 28, 3000, true);
    expect(inspectBytes(short).value.verdict.stick.x64.reason).toMatch(
      /its header declares \d+ bytes, and it has 3000/,
    );
  });

  it("a hybrid boot sector that begins with a driver map holds code, and an empty one with it does not", () => {
    const hybrid = new Uint8Array(readFileSync(corpusFile("p04-both-hybrid-gpt.iso")));
    hybrid.set([0x45, 0x52, 0x08, 0x00, 0xeb, 0x02, 0xff, 0xff]);
    expect(inspectBytes(hybrid).value.verdict.stick.legacy.answer).not.toBe("does not");
    expect(inspectFile(corpusFile("p15-mkrescue-x64efi.iso")).value.verdict.stick.legacy).toEqual({
      answer: "does not",
      reason: "its first sector has no boot code",
    });
  });
});

describe("UDF without ISO 9660, as Debian's own tool makes it", () => {
  it.each([
    ["u01-udf-2048.img", "Überfahrt Süd"],
    ["u02-udf-512.img", "Рама 12"],
  ])("%s is named, with its accents, and boots nowhere", (file, label) => {
    const { value } = inspectFile(corpusFile(file));
    expect(value).toMatchObject({
      kind: "UDF image, without ISO 9660",
      volumeId: label,
      udf: true,
      faults: [],
    });
    expect(value.verdict.optical.x64).toEqual({
      answer: "does not",
      reason: "it is UDF without ISO 9660, so firmware finds no boot record",
    });
    const cut = inspectBytes(new Uint8Array(readFileSync(corpusFile(file))).slice(0, 1_200_000)).value;
    expect(cut.faults[0]).toMatchObject({ grave: true, message: expect.stringMatching(/^truncated/) });
  });
});
