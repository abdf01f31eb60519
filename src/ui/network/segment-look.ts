import type { Segment } from "@/core/network";

/** Patterns of lines, told apart without their colours; SVG dash lists. The first is a whole line. */
const DASHES = ["", "8 3", "2 3", "12 3 2 3", "5 5", "1 4", "14 4 4 4", "8 2 2 2 2 2"];
const COLOURS = 6;

export interface SegmentLook {
  /** A class that sets `color`. */
  colour: string;
  dashes: string;
}

/** The look of a network by its place among those of its site; colour and pattern change at different paces, so that 24 differ. */
export function segmentLook(segments: readonly Segment[], id: string | null): SegmentLook {
  const at = segments.findIndex((s) => s.id === id);
  return at < 0
    ? { colour: "", dashes: "" }
    : { colour: `network-${at % COLOURS}`, dashes: DASHES[at % DASHES.length]! };
}
