import { z } from "zod";
import { contentsToday, standingWords, type Facts } from "../machine";
import { addressKey } from "../network";
import { formatBytes } from "../units";
import { lookAtClock, type Reading } from "./clock";
import type { Expectation } from "./expect";
import { lookAtListening } from "./listening";
import { lookAtPort } from "./port";
import { differs, notSeen, seen, type Seen } from "./seen";
import { lookAtSet } from "./set";
import { lookAtStart } from "./start";
import { lookAtTarget } from "./target";
import { lookAtVersion } from "./version";

export const acceptanceLineSchema = z.object({
  id: z.string(),
  zone: z.string(),
  what: z.string(),
  planned: z.string(),
  found: z.string(),
  verdict: z.enum(["as planned", "differs", "not seen"]),
});
export type AcceptanceLine = z.infer<typeof acceptanceLineSchema>;

/** en_GB.UTF-8 and en_GB.utf8 are one locale. */
const normal = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/utf-?8$/, "utf8");

/**
 * Compares what was read from the installed system with the plan, line by line. Silence is "not seen", never agreement,
 * and never a difference.
 */
export function compareWithPlan(
  expectations: readonly Expectation[],
  facts: Facts,
  reading: Reading,
): AcceptanceLine[] {
  return expectations.map(({ id, zone, what, planned, match }) => ({
    id,
    zone,
    what,
    planned,
    ...look(match, facts, reading),
  }));
}

function look(match: Expectation["match"], facts: Facts, reading: Reading): Seen {
  const { system } = facts;
  switch (match.kind) {
    case "fact": {
      const found = factAt(facts, match.path);
      return found === null ? notSeen() : seen(found, normal(found) === normal(match.equals));
    }
    case "secure boot": {
      const on = facts.firmware?.secureBoot;
      return typeof on === "boolean" ? seen(on ? "on" : "off", on === match.on) : notSeen();
    }
    case "system":
      return lookAtVersion(match, facts);
    case "host name": {
      const found = system?.hostName;
      if (!found) return notSeen();
      return seen(
        found,
        [match.name, match.full].some((n) => normal(n) === normal(found)),
      );
    }
    case "address": {
      const addresses = system?.addresses ?? facts.ports.flatMap((p) => p.addresses);
      if (addresses.length === 0) return notSeen();
      const same = addresses.find((a) => addressKey(a.address) === addressKey(match.address));
      const found = (same ? [same] : addresses).map((a) => `${a.address}/${a.prefixLength}`).join(", ");
      return seen(
        found,
        same !== undefined && (match.prefixLength === null || same.prefixLength === match.prefixLength),
      );
    }
    case "name servers": {
      const found = system?.nameServers;
      if (!found || found.length === 0) return notSeen();
      const keys = new Set(found.map(addressKey));
      return seen(
        found.join(", "),
        match.all.every((s) => keys.has(addressKey(s))),
      );
    }
    case "listening":
      return lookAtListening(match, facts);
    case "port":
      return lookAtPort(match, facts);
    case "start":
      return lookAtStart(match, facts);
    case "target":
      return lookAtTarget(match, facts);
    case "set":
      return lookAtSet(match, facts);
    case "untouched":
      return lookAtUntouched(match, facts);
    case "free space": {
      const { rootFreeBytes: free, rootSizeBytes: size } = system ?? {};
      if (typeof free !== "number" || !size) return notSeen();
      return seen(`${formatBytes(free)} of ${formatBytes(size)} free`, free >= size * match.leastShare);
    }
    case "clock":
      return lookAtClock(facts, reading);
  }
}

function lookAtUntouched(match: { drive: string; holds: string }, facts: Facts): Seen {
  const holds = contentsToday(match.holds);
  if (facts.drives.length === 0) return notSeen();
  const drive = facts.drives.find((d) => d.id === match.drive);
  if (!drive) return differs("the drive is missing");
  const found = standingWords(drive);
  // What nobody had read before, or nobody has read now, cannot be compared.
  if (found.startsWith("not collected")) return notSeen();
  if (holds.startsWith("not collected")) return notSeen(`${found}; earlier contents unknown`);
  // Runs of older databases have where it was mounted as well, which begins with a slash; a label may say "at" too.
  return seen(found, [holds, holds.replace(/ at \/[^,;]*/g, "")].includes(found));
}

function factAt(facts: Facts, path: string): string | null {
  const value = path
    .split(".")
    .reduce<unknown>(
      (v, key) => (typeof v === "object" && v !== null ? (v as Record<string, unknown>)[key] : undefined),
      facts,
    );
  return value === null || value === undefined || value === "" ? null : String(value);
}

/** "9 as planned, 1 differs, 2 not seen". */
export function tally(lines: readonly AcceptanceLine[]): Record<AcceptanceLine["verdict"], number> {
  const count = (verdict: AcceptanceLine["verdict"]): number =>
    lines.filter((l) => l.verdict === verdict).length;
  return { "as planned": count("as planned"), differs: count("differs"), "not seen": count("not seen") };
}
