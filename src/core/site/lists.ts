import { isAddress } from "../network";
import { fail, ok, type Problem, type Result } from "../result";
import type { Site } from "./site";

type Segment = Site["segments"][number];

/** Reads entries one by one; empty ones are passed over. Every one that does not fit is a problem that quotes it. */
function readEntries<T>(
  entries: readonly string[],
  read: (entry: string) => T | string,
  place: (i: number) => string = () => "",
): Result<T[]> {
  const problems: Problem[] = [];
  const values = entries.flatMap((raw, i): T[] => {
    const entry = raw.trim();
    if (entry === "") return [];
    const value = read(entry);
    if (typeof value !== "string") return [value];
    problems.push({ message: `${place(i)}"${entry.slice(0, 60)}": ${value}`, line: i + 1 });
    return [];
  });
  return problems.length > 0 ? fail(...problems) : ok(values);
}

/** One entry a line; a problem names its line. */
const readLines = <T>(text: string, read: (line: string) => T | string): Result<T[]> =>
  readEntries(text.split("\n"), read, (i) => `line ${i + 1}, `);

const MAC = /^([0-9a-f]{2}[:-]){5}[0-9a-f]{2}$/i;

/** "02:61:0a:00:00:09 10.61.10.9 rack A power strip" a line: MAC, address, name. */
export const parseReservations = (text: string): Result<Segment["reservations"]> =>
  readLines(text, (line) => {
    const [mac = "", address = "", ...name] = line.split(/\s+/);
    if (!MAC.test(mac)) return "a reservation begins with a MAC such as 02:61:0a:00:00:09";
    if (!isAddress(address)) return `"${address}" is not an address`;
    return { mac: mac.toLowerCase().replaceAll("-", ":"), address, name: name.join(" ") || "not named" };
  });

export const formatReservations = (all: Segment["reservations"]): string =>
  all.map((r) => `${r.mac} ${r.address} ${r.name}`).join("\n");

/** "10.61.10.4 switch wrk-sw1" a line: address and what it is. */
export const parseOccupied = (text: string): Result<Site["occupied"]> =>
  readLines(text, (line) => {
    const [address = "", ...what] = line.split(/\s+/);
    if (!isAddress(address)) return `"${address}" is not an address`;
    return what.length === 0 ? "say what has this address" : { address, what: what.join(" ") };
  });

export const formatOccupied = (all: Site["occupied"]): string =>
  all.map((o) => `${o.address} ${o.what}`).join("\n");

/** "A1 2300" a line: the circuit's name and the watts that the site's electrician allows. */
export const parseCircuits = (text: string): Result<Site["circuits"]> =>
  readLines(text, (line) => {
    const match = /^(.*?)\s+(\d+(?:\.\d+)?)\s*W?$/i.exec(line);
    const limitWatts = Number(match?.[2]);
    if (!match || !(limitWatts > 0)) return "a circuit is its name and its watts, such as A1 2300";
    return { name: match[1] ?? "", limitWatts };
  });

export const formatCircuits = (all: Site["circuits"]): string =>
  all.map((c) => `${c.name} ${c.limitWatts}`).join("\n");

/** "10.61.10.100 - 10.61.10.199, ..." : ranges from and to. */
export const parseRanges = (text: string): Result<Segment["dhcp"]> =>
  readEntries(text.split(","), (line) => {
    const [, from = "", to = ""] = /^(\S+)\s*(?:-|–|to)\s*(\S+)$/.exec(line) ?? [];
    return isAddress(from) && isAddress(to)
      ? { from, to }
      : "a range is two addresses, such as 10.61.10.100 - 10.61.10.199";
  });

export const formatRanges = (all: Segment["dhcp"]): string =>
  all.map((r) => `${r.from} - ${r.to}`).join(", ");

/** Addresses parted by commas or blanks. */
export function parseAddresses(text: string): Result<string[]> {
  const read = readEntries(text.split(/[\s,]+/), (line) =>
    isAddress(line) ? { line } : "is not an address",
  );
  return read.ok ? ok(read.value.map((v) => v.line)) : read;
}
