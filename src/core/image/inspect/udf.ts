import type { Bytes } from "../../binary";
import { read, type Reading } from "./reader";

/** A volume of UDF (ECMA-167, part 3): its name, and where its partition ends. */
export interface UdfVolume {
  label: string;
  /** Bytes from the start of the file to the end of its partition. */
  declaredBytes: number;
}

export const BLOCKS = [2048, 512, 4096] as const;
/** The anchor stands at this block (3/8.4.2.1). */
export const ANCHOR = 256;
const MOST_DESCRIPTORS = 64;
/** Descriptors by the number in their tag (3/7.2.1). */
const [PRIMARY, ANCHOR_POINTER, PARTITION, LOGICAL, TERMINATING] = [1, 2, 5, 6, 8];

/** The number of a descriptor's tag, which has at least so many bytes; null where its check sum says that there is none (3/7.2.3). */
export function tagOf(b: Bytes, least = 512): number | null {
  if (b.length < least) return null;
  const sum = Array.from({ length: 16 }, (_, i) => (i === 4 ? 0 : b.u8(i))).reduce((n, v) => n + v, 0);
  return b.u16(0) !== 0 && (sum & 0xff) === b.u8(4) ? b.u16(0) : null;
}

/** A text of a fixed length: its last byte counts those that are used, its first tells 8 or 16 bits a sign (1/7.2.12, OSTA UDF 2.1.1). */
function dstring(b: Bytes, at: number, length: number): string {
  const used = Math.min(b.u8(at + length - 1), length - 1);
  if (b.u8(at) === 16) return clean(b.utf16be(at + 1, Math.max(0, used - 1)));
  const signs = Array.from({ length: Math.max(0, used - 1) }, (_, i) => b.u8(at + 1 + i));
  return b.u8(at) === 8 ? clean(String.fromCharCode(...signs)) : "";
}

const clean = (text: string): string => text.replace(/[\p{Cc}\p{Cf}\p{Cs}\p{Zl}\p{Zp}]/gu, "·").trim();

/** A UDF volume by its anchor, in whatever blocks it was made; null where there is none. */
export function* readUdf(): Reading<UdfVolume | null> {
  for (const block of BLOCKS) {
    const anchor = yield* read(ANCHOR * block, 512);
    if (tagOf(anchor) !== ANCHOR_POINTER || anchor.u32(12) !== ANCHOR) continue;
    const [length, start] = [anchor.u32(16), anchor.u32(20)];
    const count = Math.min(Math.ceil(length / block), MOST_DESCRIPTORS);
    let [name, set, end] = ["", "", 0];
    for (let i = 0; i < count; i += 1) {
      const d = yield* read((start + i) * block, 512);
      const tag = tagOf(d);
      if (tag === null || tag === TERMINATING) break;
      if (tag === LOGICAL) name = dstring(d, 84, 128);
      if (tag === PRIMARY) set = dstring(d, 24, 32);
      if (tag === PARTITION) end = Math.max(end, (d.u32(188) + d.u32(192)) * block);
    }
    return { label: name || set, declaredBytes: end };
  }
  return null;
}
