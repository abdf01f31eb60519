import { readFileSync } from "node:fs";
import { basename } from "node:path";
import { z } from "zod";
import { extentsOf, physicalVolume, thinMetadata, thinPool } from "@/core/storage/lvm";
import { MD_LEVELS, mdFigures, type MdLayout, type MdMetadata } from "@/core/storage/md";
import type { Compared, TruthReader } from "./reader";

const json = (path: string): unknown => JSON.parse(readFileSync(path, "utf8"));
const maybe = z.number().nullish();

const mdSchema = z.object({
  arrays: z.array(
    z.looseObject({
      ...{ member_bytes: z.number(), level: z.literal([...MD_LEVELS]), members: z.number() },
      metadata: z.enum(["0.90", "1.0", "1.1", "1.2"]),
      ...{ chunk_opt_kib: maybe, layout_opt: z.string().nullish(), array_bytes: z.number() },
      ...{ chunk_bytes: maybe, optimal_io_size: maybe, used_dev_sectors: maybe, data_offset_sectors: maybe },
      avail_dev_sectors: maybe,
    }),
  ),
});

/** "far", "f2", "near", "o3" and the like. */
function layoutOf(text: string | null | undefined): { layout: MdLayout; copies: number } {
  const [, letter = "n", copies] = /^(?:--layout=)?([nfo])[a-z]*(\d)?$/.exec(text ?? "n") ?? [];
  const names: Record<string, MdLayout> = { n: "near", f: "far", o: "offset" };
  return { layout: names[letter]!, copies: Number(copies ?? 2) };
}

export const mdReader: TruthReader = {
  name: "arrays",
  reads: (path) => /^mdadm.*\.json$/.test(basename(path)),
  *compare(path): Generator<Compared> {
    for (const a of mdSchema.parse(json(path)).arrays) {
      const found = mdFigures({
        ...{ level: a.level, members: a.members, memberBytes: a.member_bytes, ...layoutOf(a.layout_opt) },
        ...{ metadata: a.metadata as MdMetadata, chunkKib: a.chunk_opt_kib ?? null },
      });
      const name = `RAID${a.level} of ${a.members} x ${a.member_bytes}, ${a.metadata}`;
      const pairs: [string, number | null | undefined, number][] = [
        ["bytes", a.array_bytes, found.arrayBytes],
        ["data offset", a.data_offset_sectors, found.dataOffset],
        // Level 0 uses all of each member, and its superblock tells 0.
        ["used of a member", a.level === 0 ? null : a.used_dev_sectors, found.used],
        ["usable of a member", a.avail_dev_sectors, found.available],
        ["chunk", a.chunk_bytes, found.chunkBytes],
        ["best size of a read", a.optimal_io_size, found.optimalIoBytes],
      ];
      for (const [what, measured, derrick] of pairs)
        if (measured != null) yield { what: `${name}, ${what}`, measured, derrick };
    }
  },
};

const lvmSchema = z.object({
  pv: z.array(
    z.looseObject({
      ...{ device_bytes: z.number(), pe_start: z.number(), pe_count: z.number() },
      ...{ extent_bytes: z.number(), vg_size: z.number() },
    }),
  ),
  pv_on_md: z.array(
    z.looseObject({
      ...{ md_level: z.number(), members: z.number(), chunk_kib: z.number(), md_bytes: z.number() },
      ...{ pe_start: z.number(), pe_count: z.number(), vg_size: z.number() },
    }),
  ),
  thin: z.array(
    z.looseObject({ pv_device_bytes: z.number(), lvcreate: z.string(), lvs: z.array(z.array(z.string())) }),
  ),
  lv: z.array(
    z.looseObject({ pv_device_bytes: z.number(), lvcreate: z.string(), lvs: z.array(z.array(z.string())) }),
  ),
});

const parityOf = (level: number): number => (level === 6 ? 2 : level === 5 || level === 4 ? 1 : 0);

function* lvm(path: string): Generator<Compared> {
  const file = lvmSchema.parse(json(path));
  for (const p of file.pv) {
    const { start, extents, bytes } = physicalVolume(p.device_bytes, 0, p.extent_bytes);
    const measured = [p.pe_start, p.pe_count, p.vg_size];
    yield { what: `physical volume on ${p.device_bytes}`, measured, derrick: [start, extents, bytes] };
  }
  for (const p of file.pv_on_md) {
    const stripe = p.md_level === 1 ? 0 : p.chunk_kib * 1024 * (p.members - parityOf(p.md_level));
    const { start, extents, bytes } = physicalVolume(p.md_bytes, stripe);
    const measured = [p.pe_start, p.pe_count, p.vg_size];
    yield { what: `physical volume on RAID${p.md_level}`, measured, derrick: [start, extents, bytes] };
  }
  for (const t of file.thin.filter((t) => t.lvcreate === "-l 100%FREE")) {
    const pool = t.lvs.find(([name]) => name && !name.startsWith("["));
    const { data, chunk, metadata } = thinPool(physicalVolume(t.pv_device_bytes).extents);
    const derrick = [data, chunk, metadata].map(String);
    yield { what: `thin pool on ${t.pv_device_bytes}`, measured: pool?.slice(1, 4), derrick };
  }
  for (const l of file.lv) {
    const [, amount = "", unit = ""] = /^-L (\d+)([GMT])$/.exec(l.lvcreate) ?? [];
    const wanted = Number(amount) * { M: 2 ** 20, G: 2 ** 30, T: 2 ** 40 }[unit as "M" | "G" | "T"];
    const derrick = String(extentsOf(wanted) * 2 ** 22);
    yield { what: `volume ${l.lvcreate}`, measured: l.lvs[0]?.[1], derrick };
  }
}

const thinSchema = z.object({
  rows: z.array(
    z.looseObject({
      pool: z.string(),
      block: z.string(),
      max_thins: z.number(),
      bytes: z.number().nullable(),
    }),
  ),
});
const binary = (text: string): number =>
  parseInt(text, 10) *
  { k: 2 ** 10, m: 2 ** 20, g: 2 ** 30, t: 2 ** 40 }[text.slice(-1) as "k" | "m" | "g" | "t"];

function* thin(path: string): Generator<Compared> {
  for (const { pool, block, max_thins, bytes } of thinSchema.parse(json(path)).rows)
    if (bytes !== null)
      yield {
        what: `metadata of ${max_thins} volumes on ${pool} in ${block}`,
        ...{ measured: bytes, derrick: thinMetadata(binary(pool), binary(block), max_thins) },
      };
}

export const lvmReader: TruthReader = {
  name: "volume groups",
  reads: (path) => /^(lvm|thin-metadata).*\.json$/.test(basename(path)),
  compare: (path) => (basename(path).startsWith("lvm") ? lvm(path) : thin(path)),
};
