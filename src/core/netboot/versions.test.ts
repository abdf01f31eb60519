import { expect, it } from "vitest";
import { kernelVersion, moduleVersions } from ".";

const bytes = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));
const entry = (name: string, content = ""): string => {
  const field = (n: number): string => n.toString(16).padStart(8, "0");
  const sizes = [1, 0o100644, 0, 0, 1, 0, content.length, 0, 0, 0, 0, name.length + 1, 0].map(field).join("");
  const pad = (text: string): string => text.padEnd(Math.ceil(text.length / 4) * 4, "\0");
  return pad(`070701${sizes}${name}\0`) + pad(content);
};
const archive = (...names: string[]): Uint8Array =>
  bytes([...names.map((name) => entry(name, "content")), entry("TRAILER!!!")].join(""));
const kernel = (version: string): Uint8Array => {
  const head = new Uint8Array(4096);
  head.set(bytes("HdrS"), 0x202);
  head.set([0x00, 0x04], 0x20e);
  head.set(bytes(`${version} (builder@host) #1\0`), 0x600);
  return head;
};

it("reads the version of a kernel from its header, and none from another file", () => {
  expect(kernelVersion(kernel("6.1.0-18-amd64"))).toBe("6.1.0-18-amd64");
  for (const other of [new Uint8Array(0), new Uint8Array(4096), kernel("none"), bytes("MZ".repeat(9000))])
    expect(kernelVersion(other)).toBeNull();
});

it("reads for which kernels an archive has modules, wherever they lie and wherever it is cut off", () => {
  const whole = archive("lib/modules/6.1.0-18-amd64/kernel/a.ko", "usr/lib/modules/5.9/b.ko", "bin/sh");
  expect(moduleVersions(whole)).toEqual({ versions: ["5.9", "6.1.0-18-amd64"], end: whole.length });
  for (let cut = 0; cut < whole.length - 4; cut += 7) {
    const { versions, end } = moduleVersions(whole.subarray(0, cut));
    expect(end).toBeNull();
    expect(["5.9", "6.1.0-18-amd64"]).toEqual(expect.arrayContaining(versions));
  }
  expect(moduleVersions(archive("bin/lib/modules/7.0/x")).versions).toEqual([]);
});
