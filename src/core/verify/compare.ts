import { z } from "zod";
import { contentWords, type Facts } from "../machine";
import { addressKey } from "../network";
import type { Expectation } from "./expect";

export const acceptanceLineSchema = z.object({
  id: z.string(),
  zone: z.string(),
  what: z.string(),
  planned: z.string(),
  found: z.string(),
  verdict: z.enum(["as planned", "differs", "not seen"]),
});
export type AcceptanceLine = z.infer<typeof acceptanceLineSchema>;

interface Seen {
  found: string;
  agrees: boolean;
}

/** en_GB.UTF-8 and en_GB.utf8 are one locale. */
const normal = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/utf-?8$/, "utf8");

/** Compares what was read from the installed system with the plan, line by line. Silence is "not seen", never agreement. */
export function compareWithPlan(expectations: readonly Expectation[], facts: Facts): AcceptanceLine[] {
  return expectations.map(({ id, zone, what, planned, match }) => {
    const seen = look(match, facts);
    const verdict = seen === null ? "not seen" : seen.agrees ? "as planned" : "differs";
    return { id, zone, what, planned, found: seen?.found ?? "", verdict };
  });
}

function look(match: Expectation["match"], facts: Facts): Seen | null {
  const { system } = facts;
  switch (match.kind) {
    case "fact": {
      const found = factAt(facts, match.path);
      return found === null ? null : { found, agrees: normal(found) === normal(match.equals) };
    }
    case "system": {
      if (!system?.osId) return null;
      const version = system.osVersion ?? "";
      const agrees =
        system.osId === match.id && (version === match.version || version.startsWith(`${match.version}.`));
      return { found: system.osName ?? `${system.osId} ${version}`, agrees };
    }
    case "host name": {
      const found = system?.hostName;
      return found
        ? { found, agrees: [match.name, match.full].some((n) => normal(n) === normal(found)) }
        : null;
    }
    case "address": {
      const addresses = system?.addresses ?? facts.ports.flatMap((p) => p.addresses);
      if (addresses.length === 0) return null;
      const same = addresses.find((a) => addressKey(a.address) === addressKey(match.address));
      const found = (same ? [same] : addresses).map((a) => `${a.address}/${a.prefixLength}`).join(", ");
      return {
        found,
        agrees:
          same !== undefined && (match.prefixLength === null || same.prefixLength === match.prefixLength),
      };
    }
    case "name servers": {
      const found = system?.nameServers;
      if (!found || found.length === 0) return null;
      const keys = new Set(found.map(addressKey));
      return { found: found.join(", "), agrees: match.all.every((s) => keys.has(addressKey(s))) };
    }
    case "port":
      if (facts.ports.length === 0) return null;
      return {
        found: facts.ports.map((p) => p.mac).join(", "),
        agrees: facts.ports.some((p) => p.mac === match.mac),
      };
    case "target":
      return lookAtTarget(match.drive, facts);
    case "untouched": {
      if (facts.drives.length === 0) return null;
      const drive = facts.drives.find((d) => d.id === match.drive);
      const found = drive
        ? contentWords({ ...drive, contents: unmounted(drive.contents) })
        : "the drive is not there";
      return { found, agrees: drive !== undefined && found === match.holds.replace(/ at [^,;]*/g, "") };
    }
  }
}

const unmounted = (contents: Facts["drives"][number]["contents"]) =>
  contents.map((c) => ({ ...c, mountedAt: [] }));

/** The system stands on the drive that carries "/"; where no drive does, a drive with content is all that can be said. */
function lookAtTarget(id: string, facts: Facts): Seen | null {
  if (facts.drives.length === 0) return null;
  const carriesRoot = facts.drives.filter((d) => d.contents.some((c) => c.mountedAt.includes("/")));
  const target = facts.drives.find((d) => d.id === id);
  if (carriesRoot.length > 0)
    return {
      found: `the system stands on ${carriesRoot.map((d) => d.id).join(", ")}`,
      agrees: carriesRoot.some((d) => d.id === id),
    };
  if (!target) return { found: "the drive is not there", agrees: false };
  return target.contents.length === 0
    ? { found: "nothing found on it", agrees: false }
    : { found: contentWords(target), agrees: true };
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
