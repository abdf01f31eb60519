import { fail, ok, type Result } from "../../../result";
import type { DriveSet } from "../../facts/facts";
import { cleanText, cutOff, plausibleBytes, plural, type Importer, type Reading } from "./importer";

type ObservedSet = Pick<DriveSet, "id" | "kind" | "name" | "state" | "health"> & Partial<DriveSet>;

const DURATION = /finish=([\d.]+)min/;

/** Of n members wanted, `working` are there: an array of level 0 or linear does not survive the first loss. */
function healthOf(active: boolean, level: string, wanted: number, working: number): DriveSet["health"] {
  if (!active) return "failed";
  if (working >= wanted) return "good";
  const spared = { raid1: wanted - 1, raid10: wanted / 2, raid4: 1, raid5: 1, raid6: 2 }[level] ?? 0;
  return wanted - working > spared ? "failed" : "degraded";
}

const UNUSED = /^unused devices:.*$/m;

/** "sda1[0]", "sdb1[1](F)", "sdc1[2](S)". */
function memberWord(word: string): DriveSet["members"] {
  const at = word.indexOf("[");
  if (at < 1 || !/^\[\d+\](?:\([A-Z]\))*$/.test(word.slice(at))) return [];
  const isSpare = word.includes("(S)", at);
  const state = word.includes("(F)", at) ? "faulty" : isSpare ? "spare" : "in use";
  return [{ name: word.slice(0, at), drive: null, role: isSpare ? "spare" : "member", group: null, state }];
}

/** `/proc/mdstat`: arrays with level, members, and what is under way. Sizes there are in KiB. */
export const mdstat: Importer = {
  tool: "mdstat",
  command: "cat /proc/mdstat",
  recognises: (text) => /^Personalities :/.test(text.trimStart()),
  hasEnd: (text) => UNUSED.test(text),
  parse(text): Result<Reading> {
    if (!UNUSED.test(text)) return fail(cutOff(text, 'its last line "unused devices:"'));
    const lines = text.split(/\r?\n/);
    const sets: ObservedSet[] = [];
    lines.forEach((line, i) => {
      const head =
        /^(md\S+) : (active|inactive)(?: \([^)]*\))? ?(raid\d+|linear|faulty|multipath)? ?(.*)$/.exec(line);
      if (!head) return;
      const [, name = "", active, level = "not reported", rest = ""] = head;
      const below = lines.slice(i + 1, i + 4);
      const [, wanted, working] = /\[(\d+)\/(\d+)\]/.exec(below[0] ?? "") ?? [];
      const blocks = /^\s*(\d+) blocks/.exec(below[0] ?? "")?.[1];
      const doing = below
        .map((l) => /(resync|recovery|reshape|check)\s*=\s*([\d.]+)%.*/.exec(l))
        .find(Boolean);
      const minutes = DURATION.exec(doing?.[0] ?? "")?.[1];
      sets.push({
        id: `array ${name}`,
        kind: "array",
        name,
        level,
        state: `${active}${working && wanted ? `, ${working} of ${wanted} members` : ""}`,
        health: healthOf(active === "active", level, Number(wanted ?? 0), Number(working ?? wanted ?? 0)),
        sizeBytes: blocks ? plausibleBytes(Number(blocks) * 1024) : null,
        members: rest.split(" ").flatMap(memberWord),
        progress: doing
          ? {
              what: doing[1] ?? "",
              percent: Number(doing[2]),
              secondsLeft: minutes ? Math.round(Number(minutes) * 60) : null,
            }
          : null,
      });
    });
    return ok({ facts: { sets }, understood: plural(sets.length, "array"), ignored: [] });
  },
};

const titleOf = (line = ""): string => line.replace(/:\s*$/, "");

function memberOf(line: string): DriveSet["members"] {
  const [number = "", major = "", minor = "", place = "", ...words] = line.trim().split(/\s+/);
  const device = words.pop() ?? "";
  const isRow = [number, major, minor, place].every((w) => w === "-" || /^\d+$/.test(w));
  if (!isRow || !device.startsWith("/dev/")) return [];
  const state = words.join(" ");
  const role = /^spare$/.test(state) ? "spare" : "member";
  return [{ name: device.replace(/^\/dev\//, ""), drive: null, role, group: null, state }];
}

/** `mdadm --detail DEVICE...`: one block an array. */
export const mdadmDetail: Importer = {
  tool: "mdadm",
  command: "mdadm --detail DEVICE",
  recognises: (text) =>
    /^\/dev\/md\S*:\s*$/m.test(text.slice(0, 400)) && /Raid Level :|Version :/.test(text.slice(0, 1000)),
  parse(text): Result<Reading> {
    const lines = text.split(/\r?\n/);
    const starts = lines.flatMap((l, i) => (/^\/dev\/md\S*:\s*$/.test(l) ? [i] : []));
    const sets: ObservedSet[] = [];
    for (const [n, start] of starts.entries()) {
      const block = lines.slice(start, starts[n + 1]);
      const values = new Map(
        block.flatMap((l): [string, string][] => {
          const at = l.indexOf(" : ");
          return at < 0 ? [] : [[l.slice(0, at).trim(), l.slice(at + 3)]];
        }),
      );
      const get = (name: string): string | null => cleanText(values.get(name));
      const state = get("State");
      const table = block.findIndex((l) => /^\s*Number\s+Major\s+Minor/.test(l));
      if (!state || table < 0)
        return fail({
          message: `mdadm: ${titleOf(lines[start])} has no state or no member table; the text seems to be truncated`,
          line: start + 1,
        });
      const name = (lines[start] ?? "").replace(/^\/dev\/(md\/)?/, "").replace(/:\s*$/, "");
      const kib = /^(\d+)/.exec(get("Array Size") ?? "")?.[1];
      const rebuild = /(\d+)% complete/.exec(get("Rebuild Status") ?? get("Resync Status") ?? "")?.[1];
      const level = get("Raid Level") ?? "not reported";
      const members = block.slice(table + 1).flatMap(memberOf);
      const counted = Number(get("Total Devices") ?? 0);
      if (members.length < counted)
        return fail({
          message: `mdadm: ${titleOf(lines[start])} reports ${counted} devices and lists ${members.length}: the text is truncated`,
          line: start + block.length,
        });
      sets.push({
        id: `array ${name}`,
        kind: "array",
        name,
        level,
        state,
        health: /FAILED|inactive/i.test(state)
          ? "failed"
          : healthOf(
              true,
              level,
              Number(get("Raid Devices") ?? 0),
              Number(get("Active Devices") ?? get("Raid Devices") ?? 0),
            ),
        sizeBytes: kib ? plausibleBytes(Number(kib) * 1024) : null,
        members,
        progress: rebuild ? { what: "rebuild", percent: Number(rebuild), secondsLeft: null } : null,
      });
    }
    return ok({ facts: { sets }, understood: plural(sets.length, "array"), ignored: ["events and bitmaps"] });
  },
};
