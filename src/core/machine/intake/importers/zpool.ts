import { fail, ok, type Result } from "../../../result";
import { own } from "../../../text";
import type { DriveSet } from "../../facts/facts";
import { cleanText, cutOff, plausibleBytes, plural, type Importer, type Reading } from "./importer";

type ObservedSet = Pick<DriveSet, "id" | "kind" | "name" | "state" | "health"> & Partial<DriveSet>;

const HEALTH: Record<string, DriveSet["health"]> = {
  ONLINE: "good",
  DEGRADED: "degraded",
  FAULTED: "failed",
  UNAVAIL: "failed",
  SUSPENDED: "failed",
  OFFLINE: "failed",
  REMOVED: "failed",
};

const VDEV = /^(mirror|raidz\d?|draid\S*|spare|replacing)-\d+$|^(mirror|raidz\d?)$/;
const SECTIONS = /^(spares|logs|cache|special|dedup)$/;
/** What stands under a heading of the tree; all else keeps data. */
const ROLES: Record<string, DriveSet["members"][number]["role"]> = {
  ...{ spares: "spare", logs: "log", cache: "cache", special: "special", dedup: "special" },
};

/** Splits "name: value" blocks of `zpool status` and `zpool import`, one a pool. */
function poolsOf(text: string): { line: number; lines: string[] }[] {
  const blocks: { line: number; lines: string[] }[] = [];
  text.split(/\r?\n/).forEach((line, i) => {
    if (/^\s*pool:\s/.test(line)) blocks.push({ line: i + 1, lines: [] });
    blocks.at(-1)?.lines.push(line);
  });
  return blocks;
}

function field(lines: string[], name: string): string | null {
  const at = lines.findIndex((l) => new RegExp(`^\\s*${name}:`).test(l));
  if (at < 0) return null;
  const parts = [(lines[at] ?? "").replace(/^\s*[a-z]+:\s*/, "")];
  // A long value goes on in lines that begin with a tab.
  for (const line of lines.slice(at + 1)) {
    if (!/^\t\S/.test(line)) break;
    parts.push(line.trim());
  }
  return cleanText(parts.join(" "));
}

/**
 * The config tree: names by depth of indent (two spaces a level below one tab). Leaves are members; what stands below
 * a heading such as "spares" has that role; a vdev is never a member itself.
 */
function membersOf(lines: string[], pool: string): { members: DriveSet["members"]; level: string | null } {
  const start = lines.findIndex((l) => /^\s*config:/.test(l));
  const rows = lines
    .slice(start + 1)
    .map((l) => /^\t( *)(\S+)(?:\s+([A-Z]+))?(?:\s+(\d+)\s+(\d+)\s+(\d+))?\s*(.*)$/.exec(l))
    .filter((m) => m !== null && m[2] !== "NAME")
    .map((m) => ({
      depth: (m?.[1] ?? "").length,
      name: m?.[2] ?? "",
      state: m?.[3] ?? "",
      errors: [m?.[4], m?.[5], m?.[6]].map(Number),
      remark: m?.[7] ?? "",
    }));
  const levels = new Map<string, number>();
  let section = "";
  let group = -1;
  const members: DriveSet["members"] = [];
  for (const row of rows) {
    if (row.depth === 0 && SECTIONS.test(row.name)) section = row.name;
    else if (row.depth === 0) section = row.name === pool ? "" : section;
    const vdev = VDEV.exec(row.name);
    if (row.depth === 2 && section === "") {
      group += 1;
      const kind = row.name.replace(/-\d+$/, "");
      levels.set(vdev ? kind : "single", (levels.get(vdev ? kind : "single") ?? 0) + 1);
    }
    if (vdev || row.depth === 0) continue;
    const errors = row.errors.some((n) => n > 0) ? ` (errors ${row.errors.join("/")})` : "";
    members.push({
      name: row.name,
      drive: null,
      role: ROLES[section] ?? "member",
      group: section === "" ? group : null,
      state: `${row.state || "listed"}${errors}${row.remark ? ` ${row.remark}` : ""}`.slice(0, 200),
    });
  }
  // A spare in use stands twice, under "spare-N" and under "spares": once is enough.
  const names = new Set<string>();
  const unique = members.filter((m) => names.size < names.add(m.name).size);
  const level = [...levels].map(([kind, n]) => (n > 1 ? `${n} × ${kind}` : kind)).join(", ");
  return { members: unique, level: level || null };
}

function progressOf(scan: string | null): DriveSet["progress"] {
  const percent = /([\d.]+)% done/.exec(scan ?? "")?.[1];
  if (!scan || percent === undefined || !/in progress/.test(scan)) return null;
  const left = /(?:(\d+) days? )?(\d+):(\d\d):(\d\d) to go/.exec(scan);
  const secondsLeft = left
    ? Number(left[1] ?? 0) * 86_400 + Number(left[2]) * 3600 + Number(left[3]) * 60 + Number(left[4])
    : null;
  return { what: scan.startsWith("resilver") ? "resilver" : "scrub", percent: Number(percent), secondsLeft };
}

function toSet({ lines }: { lines: string[] }): ObservedSet | null {
  const name = field(lines, "pool");
  const state = field(lines, "state");
  if (!name || !state) return null;
  const { members, level } = membersOf(lines, name);
  const health = own(HEALTH, state.split(" ")[0] ?? "") ?? "unknown";
  const broken = members.some(
    (m) => /^(FAULTED|UNAVAIL|OFFLINE|REMOVED|DEGRADED)/.test(m.state) || /errors/.test(m.state),
  );
  const scan = field(lines, "scan");
  return {
    id: `pool ${name}`,
    kind: "pool",
    name,
    level,
    state,
    health: health === "good" && broken ? "degraded" : health,
    members,
    progress: progressOf(scan),
    remark: [field(lines, "status"), scan].filter(Boolean).join(" ") || null,
  };
}

function parsePools(text: string, tool: string): Result<Reading> {
  const blocks = poolsOf(text);
  const sets = blocks.map(toSet);
  const cut = sets.findIndex((s, i) => s === null || !blocks[i]?.lines.some((l) => /^\s*config:/.test(l)));
  if (cut >= 0)
    return fail({
      message: `${tool}: the pool that begins here has no state or no config part; the text seems to be truncated`,
      line: blocks[cut]?.line ?? 1,
    });
  const found = sets.filter((s) => s !== null);
  return ok({
    facts: { sets: found },
    understood: found
      .map((s) => `pool ${s.name}: ${s.level ?? "layout not reported"}, ${s.state}`)
      .join("; "),
    ignored: [],
  });
}

/** Every status ends its pool with an "errors:" line; without it the last members may be missing. */
const hasErrorsLine = (text: string): boolean => /^errors: /m.test(text.slice(text.lastIndexOf("pool:")));

/** `zpool status`: pools with layout, members, errors, and what is under way. */
export const zpoolStatus: Importer = {
  tool: "zpool status",
  command: "zpool status",
  recognises: (text) =>
    (/^\s*pool:\s/.test(text) && !/^\s*id:\s*\d+/m.test(text.slice(0, 400))) ||
    /^no pools available/.test(text),
  hasEnd: (text) => hasErrorsLine(text) || /^no pools available/.test(text),
  parse(text): Result<Reading> {
    if (/^no pools available/.test(text))
      return ok({ facts: { sets: [] }, understood: "no pool is imported here", ignored: [] });
    const parsed = parsePools(text, "zpool status");
    if (parsed.ok && !hasErrorsLine(text)) return fail(cutOff(text, 'the line "errors:" of its last pool'));
    return parsed;
  },
};

/** `zpool import` without a name: pools that stand on the drives and are not imported. */
export const zpoolImport: Importer = {
  tool: "zpool import",
  command: "zpool import",
  recognises: (text) => /^\s*pool:\s/.test(text) && /^\s*id:\s*\d+/m.test(text.slice(0, 400)),
  parse(text): Result<Reading> {
    const parsed = parsePools(text, "zpool import");
    if (!parsed.ok) return parsed;
    for (const set of parsed.value.facts.sets ?? []) set.remark = `not imported; ${set.remark ?? ""}`.trim();
    return parsed;
  },
};

/** `zpool list -Hp` (also -Hpv): sizes in bytes and health, one pool a line. */
export const zpoolList: Importer = {
  tool: "zpool list",
  command: "zpool list -Hp",
  recognises: (text) => /^\S+\t\d+\t(\d+|-)\t(\d+|-)\t[^\n]*\t[A-Z]+\t/.test(text),
  parse(text): Result<Reading> {
    const sets: ObservedSet[] = [];
    for (const line of text.split(/\r?\n/)) {
      const cells = line.split("\t");
      const [name = "", size = ""] = cells;
      const state = cells[9];
      const health = state ? HEALTH[state] : undefined;
      const sizeBytes = plausibleBytes(size);
      if (name === "" || sizeBytes === null || !health || !state) continue;
      sets.push({
        id: `pool ${name}`,
        kind: "pool",
        name: cleanText(name) ?? name,
        state,
        health,
        sizeBytes,
      });
    }
    return sets.length === 0
      ? fail({
          message: "zpool list: no line has a pool with its size and health; run it with -Hp",
          line: 1,
        })
      : ok({ facts: { sets }, understood: plural(sets.length, "pool"), ignored: [] });
  },
};
