import { ok, type Result } from "../../../result";
import type { BootEntry } from "../../facts/facts";
import { cleanText, plural, type Importer, type Reading } from "./importer";

const ENTRY = /^Boot([0-9A-F]{4})([* ]) (.*)$/;

/** What kind of thing an entry means, by its device path and its name. */
export function entryKind(path: string, label: string): BootEntry["kind"] {
  if (/FvVol|FvFile/.test(path)) return "firmware";
  if (/MAC\(|Uri\(|IPv[46]\(/.test(path)) return "network";
  if (/CDROM\(|DVD|CD-ROM/i.test(`${path} ${label}`)) return "optical";
  if (/HD\(|NVMe\(|Sata\(|USB\(|Scsi\(|VenHw\(/i.test(path)) return "disk";
  return "other";
}

function toEntry(match: RegExpExecArray): BootEntry {
  // Label and device path are parted by a tab in newer versions, by two spaces in older ones.
  const [label = "", ...path] = (match[3] ?? "").split(/\t| {2,}/);
  const devicePath = cleanText(path.join(" ")) ?? "";
  return {
    id: match[1] ?? "",
    label: cleanText(label) ?? "(no name)",
    active: match[2] === "*",
    kind: entryKind(devicePath, label),
    path: devicePath,
  };
}

/** `efibootmgr -v`; its refusal on a machine started in legacy mode is a fact too. */
export const efibootmgr: Importer = {
  tool: "efibootmgr",
  command: "efibootmgr -v",
  recognises: (text) =>
    /^(BootCurrent|BootOrder|BootNext|Timeout): /m.test(text.slice(0, 400)) ||
    /EFI variables are not supported/.test(text.slice(0, 400)),
  hasEnd: (text) => /EFI variables are not supported/.test(text.slice(0, 400)),
  parse(text): Result<Reading> {
    if (/EFI variables are not supported/.test(text))
      return ok({
        facts: { firmware: { mode: "legacy" } },
        understood: "booted in legacy mode: the system has no EFI variables",
        ignored: [],
      });
    const lines = text.split(/\r?\n/);
    const header = (name: string): string | null =>
      cleanText(lines.find((l) => l.startsWith(`${name}: `))?.slice(name.length + 2)) ??
      (lines.some((l) => l.startsWith(`${name}: 0000`)) ? "0000" : null);
    const entries = lines
      .map((l) => ENTRY.exec(l))
      .filter((m) => m !== null)
      .map(toEntry);
    const order = (lines.find((l) => l.startsWith("BootOrder: "))?.slice(11) ?? "")
      .split(",")
      .filter(Boolean);
    const known = new Set(entries.map((e) => e.id));
    const unknown = [...new Set(order)].filter((id) => !known.has(id)).slice(0, 20);
    return ok(
      {
        facts: {
          firmware: {
            mode: "uefi",
            currentEntry: header("BootCurrent"),
            nextEntry: header("BootNext"),
            order,
            entries,
          },
        },
        understood: `booted in UEFI mode; ${plural(entries.length, "boot entry", "boot entries")}, order ${order.join(" ")}`,
        ignored: [],
      },
      unknown.map((id) => ({
        message: `the boot order has entry ${id}, which is not in the list: the text may be truncated`,
      })),
    );
  },
};
