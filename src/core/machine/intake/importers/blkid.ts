import { fail, ok, type Result } from "../../../result";
import { own } from "../../../text";
import type { Drive, DriveContent } from "../../facts/drive";
import { deviceOf, type ObservedDrive } from "../../facts/identity";
import { blocksOf, cleanText, plural, type Importer, type Reading } from "./importer";

const MEMBER_OF: Record<string, (tags: Map<string, string>) => string> = {
  zfs_member: (tags) => `pool ${tags.get("LABEL") ?? "(unnamed)"}`,
};

/** Both forms: "export" blocks of NAME=value, and the default "/dev/sda1: NAME="value" ..." lines. */
function entriesOf(text: string): Map<string, string>[] {
  if (/^DEVNAME=/m.test(text))
    return blocksOf(text).map(
      (block) =>
        new Map(
          block
            .split(/\r?\n/)
            .map((l) => /^([A-Z_]+)=(.*)$/.exec(l))
            .filter((m) => m !== null)
            // The export form escapes what a shell would read: "\ " for a blank.
            .map((m) => [m[1] ?? "", (m[2] ?? "").replace(/\\(.)/g, "$1")] as const),
        ),
    );
  return text.split(/\r?\n/).flatMap((line) => {
    const head = /^(\/dev\/[^:]+):\s/.exec(line);
    if (!head) return [];
    const tags = [...line.matchAll(/\b([A-Z_]+)="([^"]*)"/g)].map((m) => [m[1] ?? "", m[2] ?? ""] as const);
    return [new Map([["DEVNAME", head[1] ?? ""], ...tags])];
  });
}

/**
 * `blkid -o export` (also plain `blkid`): what stands on drives and partitions. It knows neither serials nor sizes, so
 * it only adds to drives that another tool of the same reading has named.
 */
export const blkid: Importer = {
  tool: "blkid",
  command: "blkid -o export",
  recognises: (text) =>
    /^DEVNAME=\/dev\//m.test(text.slice(0, 400)) ||
    /^\/dev\/[^:\s]+: (?:[A-Z_]+="|$)/m.test(text.slice(0, 400)),
  parse(text): Result<Reading> {
    const entries = entriesOf(text).filter((e) => e.get("DEVNAME") && e.get("TYPE"));
    if (entries.length === 0) return fail({ message: "blkid lists no device with a TYPE", line: 1 });
    const drives = new Map<string, { memberOf: string[]; parts: DriveContent[] }>();
    for (const entry of entries) {
      const name = (entry.get("DEVNAME") ?? "").replace(/^\/dev\//, "");
      if (!/^(sd|hd|vd|xvd|nvme|mmcblk)/.test(name)) continue;
      const drive = drives.get(deviceOf(name)) ?? { memberOf: [], parts: [] };
      const kind = entry.get("TYPE") ?? "";
      drive.parts.push({
        part: name,
        sizeBytes: 0,
        kind,
        label: cleanText(entry.get("LABEL")),
        mountedAt: [],
        partUuid: cleanText(entry.get("PARTUUID")) ?? undefined,
      });
      const member = own(MEMBER_OF, kind)?.(entry);
      if (member) drive.memberOf.push(member);
      drives.set(deviceOf(name), drive);
    }
    return ok({
      facts: { drives: [...drives].map(([seenAs, d]) => toObserved(seenAs, d)) },
      understood: `${plural(entries.length, "signature")} on ${plural(drives.size, "drive")}`,
      ignored: ["mapped devices and arrays: lsblk reports their position"],
    });
  },
};

const toObserved = (
  seenAs: string,
  d: { memberOf: Drive["memberOf"]; parts: DriveContent[] },
): ObservedDrive => ({
  seenAs,
  signatures: d.parts,
  ...(d.memberOf.length > 0 && { memberOf: [...new Set(d.memberOf)] }),
});
