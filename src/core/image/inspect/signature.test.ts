import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { bootTruth, corpusFile, inspectFile } from "../../../../tests/support/corpus";
import { soundInside } from "../../../../tests/support/builds";
import { seeded } from "../../../../tests/support/random";
import { Bytes, type Span } from "../../binary";
import { imageSchema, loaderSignature } from "..";
import { drive } from "./reader";
import { readSignature } from "./signature";

const fixture = (name: string): Uint8Array => new Uint8Array(readFileSync(`tests/fixtures/boot/${name}`));

/** Reads the signature of a program that lies in these bytes in one piece. */
function signatureOf(bytes: Uint8Array) {
  const part = function* (span: Span) {
    return new Bytes(yield span);
  };
  return drive(readSignature(new Bytes(bytes.subarray(0, 2048)), part), bytes.length, ({ offset, length }) =>
    bytes.subarray(offset, offset + length),
  ).value;
}

describe("the signature table of a program", () => {
  it("names who signed, as the signing program wrote it", () => {
    expect(signatureOf(fixture("signed-loader.efi"))).toEqual({
      signed: true,
      signer: "Cairn Loader Signing 2026",
    });
  });

  it("says unsigned where the table is empty, and nothing where there is no program", () => {
    expect(signatureOf(fixture("plain-loader.efi"))).toEqual({ signed: false, signer: null });
    expect(signatureOf(new TextEncoder().encode("<html>"))).toBeNull();
  });

  it("cut off anywhere, or changed at random, is never more than a signature without a name", () => {
    const whole = fixture("signed-loader.efi");
    for (let cut = 0; cut < whole.length; cut += 13) signatureOf(whole.slice(0, cut));
    const random = seeded(5);
    for (let round = 0; round < 400; round += 1) {
      const bytes = whole.slice();
      for (let i = 0; i < 6; i += 1)
        bytes[1500 + Math.floor(random() * (whole.length - 1500))] = Math.floor(random() * 256);
      expect([true, false, undefined]).toContain(signatureOf(bytes)?.signed);
    }
  });

  it("is absent in every loader of the corpus, which nobody has signed", () => {
    const loaders = Object.keys(bootTruth).flatMap((n) => inspectFile(corpusFile(n)).value.loaders);
    const read = loaders.filter((l) => l.arch !== null);
    expect(read.length).toBeGreaterThan(8);
    expect(read.filter((l) => l.signed !== false)).toEqual([]);
  });
});

describe("the loader that a build starts", () => {
  const image = (loaders: object[], more: object = {}) =>
    imageSchema.parse({
      schemaVersion: 1,
      name: "Cairn 9",
      profile: "cairn-hypervisor",
      version: "9.0",
      architecture: "x86_64",
      sizeBytes: 5,
      bootModes: ["uefi"],
      inside: {
        found: { ...soundInside(), loaders },
        fileName: "c.iso",
        at: "2026-11-20T08:00:00Z",
        by: "J. Pell",
      },
      ...more,
    });
  const loader = (where: string, signed: boolean | null) => ({
    path: "EFI/BOOT/BOOTX64.EFI",
    arch: "x64",
    where,
    signed,
    signer: "Cairn Works",
  });

  it.each([
    [
      "as a CD, from the boot image",
      [loader("boot image", true), loader("partition", false)],
      "virtual media",
      "signed",
    ],
    [
      "as a stick, from its partition",
      [loader("boot image", true), loader("partition", false)],
      "stick",
      "unsigned",
    ],
    ["by what was typed, where nobody read it", [loader("boot image", null)], "disc", "unknown"],
    ["by what was typed, over the network", [loader("boot image", true)], "network", "unknown"],
  ] as const)("%s", (_, loaders, way, state) => {
    expect(loaderSignature(image([...loaders]), way).state).toBe(state);
  });

  it("is told by the file, whatever somebody typed", () => {
    const typed = image([loader("boot image", false)], { loaderSigned: "signed" });
    expect(loaderSignature(typed, "virtual media")).toMatchObject({
      state: "unsigned",
      source: expect.stringContaining("inside the file"),
    });
  });
});
