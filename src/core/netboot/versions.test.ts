import { expect, it } from "vitest";
import { kernelVersion, ModuleWalk } from ".";

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

/** What is found in an archive that comes in pieces of a length, and how much of it was taken. */
function walked(whole: Uint8Array, piece: number): { versions: string[]; taken: number; isOver: boolean } {
  const walk = new ModuleWalk();
  let taken = 0;
  for (let at = 0; at < whole.length && !walk.isOver; at += piece)
    taken += walk.push(whole.subarray(at, at + piece));
  return { versions: [...walk.versions].sort(), taken, isOver: walk.isOver };
}

it("reads for which kernels an archive has modules, in whatever pieces it comes and wherever it is cut off", () => {
  const whole = archive("lib/modules/6.1.0-18-amd64/kernel/a.ko", "usr/lib/modules/5.9/b.ko", "bin/sh");
  const both = Uint8Array.from([...whole, 0, 0, 0, 0, ...bytes("what follows")]);
  for (const piece of [1, 7, 110, 4096]) {
    const { versions, taken, isOver } = walked(both, piece);
    expect([versions, isOver]).toEqual([["5.9", "6.1.0-18-amd64"], true]);
    expect(whole.length - taken).toBeLessThan(4);
  }
  for (let cut = 0; cut < whole.length - 12; cut += 7) {
    const { versions, isOver } = walked(whole.subarray(0, cut), 50);
    expect(isOver).toBe(false);
    expect(["5.9", "6.1.0-18-amd64"]).toEqual(expect.arrayContaining(versions));
  }
  expect(walked(archive("bin/lib/modules/7.0/x"), 64).versions).toEqual([]);
  expect(walked(bytes("no archive of this kind".repeat(20)), 64)).toMatchObject({
    versions: [],
    isOver: true,
  });
});
