import { fail, ok, type Result } from "../../../result";
import { own } from "../../../text";
import type { Drive, DriveContent } from "../../facts/drive";
import { cleanText, plausibleBytes, plural, wholeNumber, type Importer, type Reading } from "./importer";

/** One provider of `geom` or `gpart`: its geom and the "key: value" lines under its number. */
interface Provider {
  geom: string;
  name: string;
  values: Map<string, string>;
}

/** Providers of a "Geom name: … / Providers: / 1. Name: …" listing; consumers, which repeat them, are left out. */
function providersOf(text: string): Provider[] {
  const providers: Provider[] = [];
  let geom = "";
  let inProviders = false;
  for (const line of text.split(/\r?\n/)) {
    const head = /^Geom name: (\S+)/.exec(line);
    if (head) geom = head[1] ?? "";
    if (head || /^Consumers:/.test(line)) inProviders = false;
    if (/^Providers:/.test(line)) inProviders = true;
    const numbered = /^\d+\. Name: (\S+)/.exec(line);
    if (numbered && inProviders) providers.push({ geom, name: numbered[1] ?? "", values: new Map() });
    const pair = /^\s+(\w+):\s*(.*)$/.exec(line);
    if (pair && inProviders) providers.at(-1)?.values.set((pair[1] ?? "").toLowerCase(), pair[2] ?? "");
  }
  return providers;
}

const firstNumber = (text: string | undefined): number | null => plausibleBytes(/^\d+/.exec(text ?? "")?.[0]);

function mediaOf(name: string, rotation: string | undefined): Drive["media"] {
  if (/^(nda|nvd)/.test(name)) return "nvme";
  if (/^mmcsd/.test(name)) return "card";
  if (/^vtbd/.test(name)) return "virtual";
  if (rotation === "0") return "flash";
  return wholeNumber(rotation) ? "spinning" : "unknown";
}

/** `geom disk list`: drives with model, serial, size and sector size; it does not say what stands on them. */
export const geomDisk: Importer = {
  tool: "geom disk",
  command: "geom disk list",
  recognises: (text) => /^Geom name: /m.test(text.slice(0, 200)) && /^[ \t]+(fwsectors|descr):/m.test(text),
  parse(text): Result<Reading> {
    const found = providersOf(text).filter(
      (p) => !/^cd\d/.test(p.name) && firstNumber(p.values.get("mediasize")),
    );
    if (found.length === 0) return fail({ message: "geom lists no drive with a size", line: 1 });
    const drives = found.map(({ name, values }) => ({
      serial: cleanText(values.get("ident")),
      wwn: cleanText(values.get("lunid")),
      model: cleanText(values.get("descr")),
      sizeBytes: firstNumber(values.get("mediasize")) ?? 0,
      logicalSectorBytes: wholeNumber(values.get("sectorsize")),
      physicalSectorBytes: wholeNumber(values.get("stripesize")) || null,
      media: mediaOf(name, values.get("rotationrate")),
      rotationRpm: wholeNumber(values.get("rotationrate")) || null,
      seenAs: name,
    }));
    return ok({
      facts: { drives },
      understood: plural(drives.length, "drive"),
      ignored: ["their contents: gpart and zpool report them"],
      complete: { drives: true },
    });
  },
};

/** GPT partition types by the first group of their GUID (UEFI 2.10, 5.3.3, and the registered ones of BSD systems). */
const TYPES: Record<string, string> = {
  c12a7328: "vfat",
  "516e7cb5": "swap",
  "516e7cb6": "ufs",
  "516e7cba": "zfs_member",
  "83bd6b9d": "boot code",
  ebd0a0a2: "basic data",
};

function contentOf({ name, values }: Provider): DriveContent {
  const type = values.get("rawtype")?.toLowerCase() ?? "";
  return {
    part: name,
    sizeBytes: firstNumber(values.get("mediasize")) ?? 0,
    kind: own(TYPES, type.slice(0, 8)) ?? cleanText(values.get("type")) ?? "unknown content",
    label: cleanText(values.get("label")?.replace(/^\(null\)$/, "")),
    mountedAt: [],
    partUuid: cleanText(values.get("rawuuid")) ?? undefined,
  };
}

/** `gpart list`: the partitions of each drive that has a table. Of a drive that it does not list nothing is said. */
export const gpart: Importer = {
  tool: "gpart",
  command: "gpart list",
  recognises: (text) => /^Geom name: /m.test(text.slice(0, 200)) && /^[ \t]*scheme: /m.test(text),
  parse(text): Result<Reading> {
    const byGeom = new Map<string, DriveContent[]>();
    for (const [, geom = ""] of text.matchAll(/^Geom name: (\S+)/gm)) byGeom.set(geom, []);
    for (const p of providersOf(text)) byGeom.get(p.geom)?.push(contentOf(p));
    const drives = [...byGeom]
      .filter(([name]) => !/^cd\d/.test(name))
      .map(([seenAs, contents]) => ({ seenAs, contents }));
    return ok({
      facts: { drives },
      understood: `partition tables of ${plural(drives.length, "drive")}`,
      ignored: [],
    });
  },
};

/** `camcontrol devlist`: models by name; it adds to drives that geom has named. */
export const camcontrol: Importer = {
  tool: "camcontrol",
  command: "camcontrol devlist",
  recognises: (text) => /^<[^>]+>\s+at scbus\d+ target \d+ lun \d+ \(/m.test(text.slice(0, 400)),
  parse(text): Result<Reading> {
    const lines = text.split(/\r?\n/).filter((l) => /^<[^>]+>\s+at scbus\d+ /.test(l));
    const drives = lines.flatMap((line) => {
      const model = line.slice(1, line.indexOf(">"));
      const names = line.slice(line.lastIndexOf("(") + 1).replace(/\).*$/, "");
      const seenAs = names.split(",").find((n) => /^(ada|da|nda)\d+$/.test(n.trim()));
      // The revision stands behind the model, after blanks that fill the field.
      return seenAs ? [{ seenAs: seenAs.trim(), firmware: cleanText(/\s(\S+)\s*$/.exec(model)?.[1]) }] : [];
    });
    return ok({
      facts: { drives },
      understood: `firmware of ${plural(drives.length, "drive")}`,
      ignored: [`${lines.length - drives.length} devices that are not drives`],
    });
  },
};
