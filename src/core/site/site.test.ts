import { expect, it } from "vitest";
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
  siteSchema,
} from ".";

type Parse = (text: string) => { ok: true; value: unknown } | { ok: false; problems: { message: string }[] };

it.each<[string, Parse, string, RegExp]>([
  [
    "a reservation without a MAC",
    parseReservations,
    "02:61:0a:00:00:09 10.61.10.9 strip\n10.61.10.8 x",
    /^line 2, .*MAC/,
  ],
  [
    "a reservation without an address",
    parseReservations,
    "02:61:0a:00:00:09 strip",
    /^line 1, .*"strip" is not an address/,
  ],
  ["a thing without an address", parseOccupied, "10.61.10.4 switch\n\nprinter", /^line 3, "printer"/],
  ["an address without a thing", parseOccupied, "10.61.10.4", /say what has this address/],
  ["a circuit without watts", parseCircuits, "A1 2300\nA2", /^line 2, "A2": .*A1 2300/],
  ["a circuit of no watts", parseCircuits, "A1 0", /its watts/],
  ["half a range", parseRanges, "10.61.10.100 - 10.61.10.199, 10.61.10.5", /"10\.61\.10\.5": a range is two/],
  ["a name for a name server", parseAddresses, "10.61.10.2, ns1", /"ns1": is not an address/],
])("refuses %s with its line, and loses nothing in silence", (_, parse, text, message) => {
  const read = parse(text);
  if (read.ok) throw new Error("was read");
  expect(read.problems.map((p) => p.message).join("; ")).toMatch(message);
});

it("reads what it writes", () => {
  const reservations = "02:61:0a:00:00:09 10.61.10.9 rack A power strip";
  const occupied = "10.61.10.4 switch wrk-sw1\nfd61:7a1e::4 printer";
  const again = <T>(
    read: { ok: true; value: T } | { ok: false; problems: unknown },
    format: (v: T) => string,
  ) => (read.ok ? format(read.value) : JSON.stringify(read.problems));
  expect(again(parseReservations(reservations), formatReservations)).toBe(reservations);
  expect(again(parseOccupied(occupied), formatOccupied)).toBe(occupied);
  expect(again(parseCircuits("A1 2300\n\nrack A 1500.5 W"), formatCircuits)).toBe("A1 2300\nrack A 1500.5");
  expect(again(parseRanges("10.61.10.100 to 10.61.10.199"), formatRanges)).toBe(
    "10.61.10.100 - 10.61.10.199",
  );
  expect(parseAddresses(" 10.61.10.2 10.61.10.3,")).toMatchObject({
    ok: true,
    value: ["10.61.10.2", "10.61.10.3"],
  });
});

it("keeps a link whose round trip nobody typed as not typed", () => {
  const link = siteSchema.parse({ schemaVersion: 1, name: "Works", link: { bitsPerSecond: 12e6 } }).link;
  expect(link).toEqual({ bitsPerSecond: 12e6, roundTripSeconds: null });
});
