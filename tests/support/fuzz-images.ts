import { readFileSync } from "node:fs";
import { drive, inspectImage, inspectionSchema, READ_BUDGET } from "@/core/image";
import type { Span } from "@/core/binary";
import { corpusFile } from "./corpus";
import { seeded } from "./random";

// Images changed at random in the places that an inspection reads, and cut anywhere; no copy of the image is made.

export const IMAGES = [
  "p02-bios-isohybrid.iso",
  "p03-uefi-eltorito.iso",
  "p17-data-udf-bridge.iso",
  "p07-gpt-esp.img",
  "p08-mbr-syslinux.img",
] as const;

const EXTREMES = [0, 1, 0x7f, 0x80, 0xff] as const;

/** One inspection of a changed image; what is wrong with it, or null. Throws what the inspection throws. */
function faultOf(whole: Uint8Array, spans: readonly Span[], random: () => number): string | null {
  const upTo = (n: number): number => Math.floor(random() * n);
  const size = random() < 0.3 ? upTo(whole.length) : whole.length;
  const changes = new Map<number, number>();
  for (let i = 1 + upTo(12); i > 0; i -= 1) {
    const span = spans[upTo(spans.length)]!;
    const at = span.offset + upTo(span.length);
    const value = random() < 0.5 ? EXTREMES[upTo(EXTREMES.length)]! : upTo(256);
    for (let k = random() < 0.5 ? 1 : 4; k > 0; k -= 1) changes.set(at + k, value);
  }
  const { value, bytesRead } = drive(inspectImage(size), size, ({ offset, length }) => {
    const bytes = whole.slice(offset, Math.min(offset + length, size));
    for (const [at, byte] of changes)
      if (at >= offset && at < offset + bytes.length) bytes[at - offset] = byte;
    return bytes;
  });
  if (bytesRead > READ_BUDGET) return `${bytesRead} bytes were read`;
  const shaped = inspectionSchema.safeParse({ ...value, bytesRead });
  if (!shaped.success) return JSON.stringify(shaped.error.issues[0]);
  const beyond = value.regions.find((r) => r.kind !== "missing" && r.offset + r.length > size);
  return beyond ? `${beyond.name} goes beyond the end` : null;
}

/** The first fault of `count` changed copies of an image; the same for the same seed. */
export function firstImageFault(name: (typeof IMAGES)[number], count: number, seed: number): string | null {
  const whole = new Uint8Array(readFileSync(corpusFile(name)));
  const spans: Span[] = [];
  drive(inspectImage(whole.length), whole.length, (span) => {
    // The beginning of each part is where its numbers stand.
    spans.push({ offset: span.offset, length: Math.min(span.length, 256) }, span);
    return whole.subarray(span.offset, span.offset + span.length);
  });
  const random = seeded(seed);
  for (let i = 0; i < count; i += 1)
    try {
      const fault = faultOf(whole, spans, random);
      if (fault !== null) return `case ${i}: ${fault}`;
    } catch (error) {
      return `case ${i}: ${String((error as Error).stack).slice(0, 600)}`;
    }
  return null;
}
