const BLOCK = 4;
const encode = (text: string): Uint8Array => new TextEncoder().encode(text);
const padded = (bytes: Uint8Array): Uint8Array[] => [
  bytes,
  new Uint8Array((BLOCK - (bytes.length % BLOCK)) % BLOCK),
];
const hex = (value: number): string => value.toString(16).padStart(8, "0");

/** Mode bits: a file that root alone reads. */
const MODE = 0o100600;

/** One member of an archive of the kind "newc" (cpio(5)). */
function member(inode: number, mode: number, name: string, data: Uint8Array): Uint8Array[] {
  const fields = [inode, mode, 0, 0, 1, 0, data.length, 0, 0, 0, 0, name.length + 1, 0];
  const head = encode(`070701${fields.map(hex).join("")}${name}\0`);
  return [...padded(head), ...padded(data)];
}

/**
 * A further initial file system that holds these texts as files of its root folder: loaders put it behind the first, and the kernel
 * unpacks both into one tree.
 */
export function packedFiles(files: readonly { name: string; text: string }[]): Uint8Array {
  const parts = [
    ...files.flatMap(({ name, text }, i) => member(i + 1, MODE, name, encode(text))),
    ...member(0, 0, "TRAILER!!!", new Uint8Array(0)),
  ];
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
