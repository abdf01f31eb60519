import { basename } from "node:path";
import { z } from "zod";
import { extentsOf, physicalVolume, thinMetadata, thinPool } from "@/core/storage/lvm";
import { mdFault, MD_LEVELS, mdFigures, ringWidth, type MdLayout, type MdShape } from "@/core/storage/md";
import { eachCase, listsOf, measuredOnes, type Compared, type TruthReader } from "./reader";

const maybe = z.number().nullish();

const mdSchema = z.looseObject({
  ...{ member_bytes: z.number(), level: z.literal([...MD_LEVELS]), members: z.number() },
  metadata: z.enum(["0.90", "1.0", "1.1", "1.2"]).default("1.2"),
  ...{ chunk_opt_kib: maybe, layout_opt: z.string().nullish(), array_bytes: maybe },
  ...{ chunk_bytes: maybe, optimal_io_size: maybe, used_dev_sectors: maybe, data_offset_sectors: maybe },
  ...{ avail_dev_sectors: maybe, error: z.string().nullish() },
});

/** "far", "f2", "near", "o3" and the like. */
function layoutOf(text: string | null | undefined): { layout: MdLayout; copies: number } {
  const [, letter = "n", copies] = /^(?:--layout=)?([nfo])[a-z]*(\d)?$/.exec(text ?? "n") ?? [];
  const names: Record<string, MdLayout> = { n: "near", f: "far", o: "offset" };
  return { layout: names[letter]!, copies: Number(copies ?? 2) };
}

function* arrays(a: z.infer<typeof mdSchema>): Generator<Compared> {
  const shape: MdShape = {
    ...{ level: a.level, members: a.members, memberBytes: a.member_bytes, ...layoutOf(a.layout_opt) },
    ...{ metadata: a.metadata, chunkKib: a.level === 1 ? null : (a.chunk_opt_kib ?? null) },
  };
  const name = `RAID${a.level} of ${a.members} x ${a.member_bytes}, ${a.metadata}`;
  const isRefused = a.array_bytes == null && a.error != null;
  yield { what: `${name}, made`, measured: !isRefused, derrick: mdFault(shape) === null };
  if (isRefused) return;
  const found = mdFigures(shape);
  yield* measuredOnes(name, [
    ["bytes", a.array_bytes, found.arrayBytes],
    ["data offset", a.data_offset_sectors, found.dataOffset],
    // Level 0 uses all of each member, and its superblock tells 0.
    ["used of a member", a.level === 0 ? null : a.used_dev_sectors, found.used],
    ["usable of a member", a.avail_dev_sectors, found.available],
    ["chunk", a.chunk_bytes, found.chunkBytes],
    ["best size of a read", a.optimal_io_size, found.optimalIoBytes],
  ]);
}

export const mdReader: TruthReader = {
  name: "arrays",
  reads: (path) => /^mdadm.*\.json$/.test(basename(path)),
  compare: (path) => eachCase(listsOf(path).arrays, "arrays", mdSchema, arrays),
};

const held = { pe_start: z.number(), pe_count: z.number(), vg_size: z.number() };
const pvSchema = z.looseObject({ device_bytes: z.number(), extent_bytes: z.number().nullish(), ...held });
const onMdSchema = z.looseObject({
  ...{ md_level: z.number(), members: z.number(), chunk_kib: maybe, md_bytes: z.number(), ...held },
});
const madeSchema = z.looseObject({
  ...{ pv_device_bytes: z.number(), lvcreate: z.string(), lvs: z.array(z.array(z.string())) },
});

/** Bytes of a whole stripe, at which LVM begins: all members of a RAID10 whose copies do not come out even. */
function stripeBytes({ md_level: level, members, chunk_kib }: z.infer<typeof onMdSchema>): number {
  if (level === 1) return 0;
  const parity = level === 6 ? 2 : level === 5 || level === 4 ? 1 : 0;
  const data = level === 10 ? ringWidth({ members, copies: 2, layout: "near" }) : members - parity;
  return (chunk_kib ?? 512) * 1024 * data;
}

function* lvm(path: string): Generator<Compared> {
  const lists = listsOf(path);
  yield* eachCase(lists.pv, "pv", pvSchema, function* (p) {
    const { start, extents, bytes } = physicalVolume(p.device_bytes, 0, p.extent_bytes ?? undefined);
    const measured = [p.pe_start, p.pe_count, p.vg_size];
    yield { what: `physical volume on ${p.device_bytes}`, measured, derrick: [start, extents, bytes] };
  });
  yield* eachCase(lists.pv_on_md, "pv_on_md", onMdSchema, function* (p) {
    const { start, extents, bytes } = physicalVolume(p.md_bytes, stripeBytes(p));
    const measured = [p.pe_start, p.pe_count, p.vg_size];
    yield { what: `physical volume on RAID${p.md_level}`, measured, derrick: [start, extents, bytes] };
  });
  yield* eachCase(lists.thin, "thin", madeSchema, function* (t) {
    if (t.lvcreate !== "-l 100%FREE") return;
    const pool = t.lvs.find(([name]) => name && !name.startsWith("["));
    const { data, chunk, metadata } = thinPool(physicalVolume(t.pv_device_bytes).extents);
    const derrick = [data, chunk, metadata].map(String);
    yield { what: `thin pool on ${t.pv_device_bytes}`, measured: pool?.slice(1, 4), derrick };
  });
  yield* eachCase(lists.lv, "lv", madeSchema, function* (l) {
    const [, amount = "", unit = ""] = /^-L (\d+)([GMT])$/.exec(l.lvcreate) ?? [];
    const wanted = Number(amount) * { M: 2 ** 20, G: 2 ** 30, T: 2 ** 40 }[unit as "M" | "G" | "T"];
    const derrick = String(extentsOf(wanted) * 2 ** 22);
    yield { what: `volume ${l.lvcreate}`, measured: l.lvs[0]?.[1], derrick };
  });
}

const thinSchema = z.looseObject({
  ...{ pool: z.string(), block: z.string(), max_thins: z.number(), bytes: maybe },
});
const binary = (text: string): number =>
  parseInt(text, 10) *
  { k: 2 ** 10, m: 2 ** 20, g: 2 ** 30, t: 2 ** 40 }[text.slice(-1) as "k" | "m" | "g" | "t"];

function* thin({ pool, block, max_thins, bytes }: z.infer<typeof thinSchema>): Generator<Compared> {
  const derrick = thinMetadata(binary(pool), binary(block), max_thins);
  yield* measuredOnes(`metadata of ${max_thins} volumes on ${pool} in ${block}`, [["", bytes, derrick]]);
}

export const lvmReader: TruthReader = {
  name: "volume groups",
  reads: (path) => /^(lvm|thin-metadata).*\.json$/.test(basename(path)),
  compare: (path) =>
    basename(path).startsWith("lvm") ? lvm(path) : eachCase(listsOf(path).rows, "rows", thinSchema, thin),
};
