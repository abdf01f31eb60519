import type { Result } from "@/core/result";
import {
  formatCircuits,
  formatOccupied,
  formatRanges,
  formatReservations,
  parseAddresses,
  parseCircuits,
  parseOccupied,
  parseRanges,
  parseReservations,
} from "@/core/site";

/** A list that people type, and what is wrong with it; what does not fit stays in its field. */
const listed = <T>(format: (value: T) => string, parse: (text: string) => Result<T>) => ({
  format,
  parse(text: string): { value: T } | { problem: string } {
    const read = parse(text);
    return read.ok ? { value: read.value } : { problem: read.problems.map((p) => p.message).join("; ") };
  },
});

export const addresses = listed((l: string[]) => l.join(", "), parseAddresses);
export const ranges = listed(formatRanges, parseRanges);
export const reservations = listed(formatReservations, parseReservations);
export const occupied = listed(formatOccupied, parseOccupied);
export const circuits = listed(formatCircuits, parseCircuits);
