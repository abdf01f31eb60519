import type { Bytes } from "../../binary";
import { readIso, SECTOR } from "../inspect/iso";
import { read, type Reading } from "../inspect/reader";
import { MOST_FOLDER_BYTES, type TreeEntry } from "./entry";

/** The root of an ISO 9660 volume; null where there is none. */
export function* isoRoot(): Reading<TreeEntry | null> {
  const volume = yield* readIso();
  return (
    volume && {
      ...{ name: "", isFolder: true, bytes: volume.rootBytes },
      spans: [{ offset: volume.rootLba * SECTOR, length: volume.rootBytes }],
    }
  );
}

interface SystemUse {
  /** The name that Rock Ridge gives (IEEE P1282, NM); "" where it gives none. */
  name: string;
  isLink: boolean;
}

const MOST_AREAS = 8;

/** What stands behind a directory record for systems of the POSIX kind (SUSP 5, RRIP 4.1.4), continued elsewhere if it says so. */
function* systemUse(first: Bytes): Reading<SystemUse> {
  let [name, isLink, area] = ["", false, first];
  for (let turn = 0; turn < MOST_AREAS; turn += 1) {
    let next: { offset: number; length: number } | null = null;
    for (let at = 0; area.has(at, 4);) {
      const length = area.u8(at + 2);
      if (length < 4) break;
      if (area.starts(at, "NM") && (area.u8(at + 4) & 6) === 0)
        name += new TextDecoder().decode(area.sub(at + 5, length - 5).raw);
      if (area.starts(at, "SL")) isLink = true;
      if (area.starts(at, "CE"))
        next = { offset: area.u32(at + 4) * SECTOR + area.u32(at + 12), length: area.u32(at + 20) };
      if (area.starts(at, "ST")) break;
      at += length;
    }
    if (!next || next.length > SECTOR) break;
    area = yield* read(next.offset, next.length);
  }
  return { name, isLink };
}

const [FOLDER, GOES_ON] = [0x02, 0x80];

/** What a folder holds (ECMA-119, 9.1). A file in several pieces has a record for each of them; links lead nowhere here. */
export function* isoEntries(folder: TreeEntry): Reading<TreeEntry[]> {
  const [span] = folder.spans;
  if (!span) return [];
  const b = yield* read(span.offset, Math.min(span.length, MOST_FOLDER_BYTES));
  const found: TreeEntry[] = [];
  let open: TreeEntry | null = null;
  for (let at = 0; at < b.length;) {
    const length = b.u8(at);
    if (length < 34) {
      at = (Math.floor(at / SECTOR) + 1) * SECTOR;
      continue;
    }
    const record = b.sub(at, length);
    at += length;
    const nameLength = record.u8(32);
    // The folder itself and the one above it are named by a single 0 or 1.
    if (nameLength === 1 && record.u8(33) <= 1) continue;
    const own = yield* systemUse(record.sub(33 + nameLength + ((nameLength + 1) % 2), length));
    if (own.isLink) continue;
    const flags = record.u8(25);
    const extent = {
      offset: (record.u32(2) + record.u8(1)) * SECTOR,
      length: record.u32(10),
    };
    open ??= {
      name: own.name || record.text(33, nameLength).replace(/;\d+$/, "").replace(/\.$/, ""),
      ...{ isFolder: (flags & FOLDER) !== 0, bytes: 0, spans: [] },
    };
    open.bytes += extent.length;
    open.spans.push(extent);
    if ((flags & GOES_ON) !== 0) continue;
    found.push(open);
    open = null;
  }
  return found;
}
