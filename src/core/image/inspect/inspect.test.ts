import { createHash } from "node:crypto";
import { closeSync, ftruncateSync, openSync, readFileSync, rmSync, writeSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { bootTruth, corpusFile, inspectBytes, inspectFile } from "../../../../tests/support/corpus";
import { seeded } from "../../../../tests/support/random";
import { FIRMWARES, inspectionSchema, READ_BUDGET } from ".";

const names = Object.keys(bootTruth);
const boots = (cell: { answer: string }): boolean => cell.answer === "boots";
const ARCHES = ["x64", "ia32", "aa64"] as const;

describe("the corpus of images that were really booted", () => {
  it("is all there", () => expect(names).toHaveLength(23));

  it.each(names)("%s: the verdict is what booted, and no more than the structure allows", (name) => {
    const { truth, size, sha256, sha256_reproducible: fixed } = bootTruth[name]!;
    const path = corpusFile(name);
    if (fixed) expect(createHash("sha256").update(readFileSync(path)).digest("hex")).toBe(sha256);
    const { value, bytesRead } = inspectFile(path);
    const { optical, stick } = value.verdict;
    expect(value.sizeBytes).toBe(size);
    expect(boots(optical.legacy)).toBe(truth.bios_cd);
    expect(boots(stick.legacy)).toBe(truth.bios_usb);
    expect(ARCHES.some((a) => boots(optical[a]))).toBe(truth.uefi_cd_by_structure);
    expect(ARCHES.some((a) => boots(stick[a]))).toBe(truth.uefi_usb_by_partition_or_fat);
    expect(ARCHES.some((a) => stick[a].answer === "on some firmware")).toBe(
      truth.uefi_usb_only_thanks_to_eltorito_on_usb,
    );
    for (const arch of ARCHES) {
      const [cd, usb] = [truth[`uefi_cd_${arch}`], truth[`uefi_usb_${arch}`]];
      if (typeof cd === "boolean") expect(boots(optical[arch]), `optical ${arch}`).toBe(cd);
      if (typeof usb === "boolean") expect(stick[arch].answer !== "does not", `stick ${arch}`).toBe(usb);
    }
    for (const cell of [...Object.values(optical), ...Object.values(stick)]) expect(cell.reason).not.toBe("");
    expect(bytesRead).toBeLessThan(400_000);
  });

  it.each(names)("%s: names, loaders, partitions and faults are those of the standard tools", (name) => {
    const { structure: s, volume_id } = bootTruth[name]!;
    const { value } = inspectFile(corpusFile(name));
    if (s.iso9660) expect(value.volumeId ?? "").toBe(volume_id ?? "");
    expect(value.kind.startsWith("ISO 9660")).toBe(s.iso9660);
    expect(value.udf).toBe(s.udf_descriptors);
    expect(value.joliet).toBe(s.joliet_volume_id ?? null);
    expect(value.faults.some((f) => f.message.startsWith("cut off"))).toBe(s.file_shorter_than_pvd ?? false);
    const efi = (s.eltorito ?? []).flatMap((e) => e.efi_programs ?? []).map((p) => p.path);
    expect(value.loaders.filter((l) => l.where === "boot image").map((l) => l.path)).toEqual(efi);
    for (const e of s.eltorito ?? [])
      expect(
        value.regions.some((r) => r.name.startsWith("boot image") && r.offset === e.lba_2048 * 2048),
      ).toBe(true);
    const partitions = value.regions.filter((r) => r.kind === "partition").map((r) => r.offset);
    expect(partitions).toEqual(
      (s.sfdisk?.partitions ?? [])
        .map((p) => p.start * 512)
        .filter((offset) => offset < value.sizeBytes)
        .sort((a, b) => a - b),
    );
    expect(inspectionSchema.safeParse({ ...value, bytesRead: 0 }).success).toBe(true);
  });
});

describe("hostile and broken files", () => {
  const hybrid = () => new Uint8Array(readFileSync(corpusFile("p04-both-hybrid-gpt.iso")));

  it("cut off anywhere give a verdict, and say that they are cut off", () => {
    const whole = hybrid();
    for (let cut = 0; cut < whole.length; cut += 40_961) {
      const { value } = inspectBytes(whole.slice(0, cut));
      if (cut > 20 * 2048)
        expect(value.faults.some((f) => f.grave && f.message.startsWith("cut off"))).toBe(true);
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
    expect(inspectBytes(noise).value.kind).toBe("no kind of image that Derrick knows");
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
