import { basename } from "node:path";
import { z } from "zod";
import {
  btrfsFigures,
  ext4Figures,
  fatFigures,
  swapBytes,
  xfsFault,
  xfsFigures,
  type Ext4Options,
  type Stripe,
} from "@/core/storage/filesystem";
import {
  gptBounds,
  layOut,
  PARTITION_TYPES,
  type PartitionUse,
  type Table,
  type TableLabel,
  type TableTool,
  type WantedPartition,
} from "@/core/storage/partition";
import { eachCase, listsOf, measuredOnes, type Compared, type TruthReader } from "./reader";

const partition = z.object({ start: z.number(), size: z.number(), type: z.string() });
const madeSchema = z.union([
  z.object({ error: z.string() }),
  z.array(partition),
  z.looseObject({
    partitions: z.array(partition),
    firstlba: z.number().nullish(),
    lastlba: z.number().nullish(),
  }),
]);
type Made = z.infer<typeof madeSchema>;
const tools = [
  "sfdisk_gpt",
  "sfdisk_dos",
  "parted_gpt",
  "parted_msdos",
  "parted_gpt_1MiB",
  "parted_msdos_1MiB",
] as const;
const singleSchema = z.looseObject({
  ...{ size_name: z.string().nullish(), size: z.number(), sector: z.number() },
  sgdisk: z
    .looseObject({
      ...{ first_usable: z.number().nullish(), last_usable: z.number().nullish() },
      one_partition: madeSchema.nullish(),
    })
    .nullish(),
  ...{ sfdisk_gpt: madeSchema.nullish(), sfdisk_dos: madeSchema.nullish() },
  ...{ parted_gpt: madeSchema.nullish(), parted_msdos: madeSchema.nullish() },
  ...{ parted_gpt_1MiB: madeSchema.nullish(), parted_msdos_1MiB: madeSchema.nullish() },
});
const layoutSchema = z.looseObject({
  tool: z.enum(["sgdisk", "sfdisk"]),
  ...{ layout: z.string(), script: z.string().nullish(), args: z.string().nullish() },
  ...{ size: z.number(), sector: z.number(), result: madeSchema },
});

/** A table in the shape of the file: start, length and type of each partition, or that the tool refuses it. */
const asFile = ({ partitions, fault, label }: Table) =>
  fault?.kind === "refused"
    ? "refused"
    : partitions.map(({ start, sectors, use }) => {
        const { guid, dos } = PARTITION_TYPES[use];
        return { start, size: sectors, type: label === "gpt" ? guid : dos };
      });
function measuredOf(made: Made | null | undefined) {
  if (made == null) return null;
  const found = Array.isArray(made) ? made : "error" in made ? "refused" : made.partitions;
  return found === "refused" ? found : found.map(({ start, size, type }) => ({ start, size, type }));
}

const UNITS: Record<string, number> = { K: 2 ** 10, M: 2 ** 20, G: 2 ** 30, T: 2 ** 40 };
/** "512MiB", "8G"; without a unit the tools count sectors. */
const amount = (text: string, sector: number): number =>
  parseInt(text, 10) * (UNITS[text.replace(/[^A-Z]/g, "")[0] ?? ""] ?? sector);
const useOf = (kind: "sgdisk" | "sfdisk", code: string): PartitionUse =>
  (Object.entries(PARTITION_TYPES).find(([, t]) => t[kind] === code || t.guid === code)?.[0] ??
    "linux") as PartitionUse;

/** "size=512MiB, type=U" a line. */
const fromScript = (script: string, sector: number): WantedPartition[] =>
  script
    .split("\n")
    .filter((l) => /(size|type)=/.test(l))
    .map((l) => ({
      use: useOf("sfdisk", /type=([\w-]+)/.exec(l)?.[1] ?? "L"),
      bytes: ((size) => (size ? amount(size, sector) : null))(/size= *(\d+[A-Za-z]*)/.exec(l)?.[1]),
    }));

/** "-n 1:0:+512M -t 1:ef00". */
function fromArguments(args: string, sector: number): WantedPartition[] {
  const types = new Map([...args.matchAll(/-t (\d+):(\w+)/g)].map((m) => [m[1], m[2]]));
  return [...args.matchAll(/-n (\d+):0:(\+\w+|0)/g)].map(([, n, size = "0"]) => ({
    use: useOf("sgdisk", types.get(n) ?? "8300"),
    bytes: size === "0" ? null : amount(size.slice(1), sector),
  }));
}

const WHOLE: WantedPartition[] = [{ use: "linux", bytes: null }];

function* single(s: z.infer<typeof singleSchema>): Generator<Compared> {
  const disk = { bytes: s.size, sectorBytes: s.sector };
  const { first, last } = gptBounds(disk);
  const made = (tool: TableTool, label: TableLabel, from: "0%" | "1MiB" = "0%") =>
    asFile(layOut(tool, label, disk, WHOLE, from));
  const bounds = s.sgdisk?.first_usable == null ? null : [s.sgdisk.first_usable, s.sgdisk.last_usable];
  yield* measuredOnes(`${s.size_name ?? s.size} of ${s.sector}-byte sectors`, [
    ["bounds", bounds, [first, last]],
    ["sgdisk", measuredOf(s.sgdisk?.one_partition), made("sgdisk", "gpt")],
    ...tools.map((key) => {
      const [tool, label, from] = key.split("_") as [TableTool, string, "1MiB" | undefined];
      return [key, measuredOf(s[key]), made(tool, label === "gpt" ? "gpt" : "dos", from)] as const;
    }),
  ]);
}

function* layout(l: z.infer<typeof layoutSchema>): Generator<Compared> {
  const label = /label: dos/.test(l.script ?? "") ? "dos" : "gpt";
  const wanted = l.script ? fromScript(l.script, l.sector) : fromArguments(l.args ?? "", l.sector);
  const table = layOut(l.tool, label, { bytes: l.size, sectorBytes: l.sector }, wanted);
  const name = `${l.layout} on ${l.size}, ${l.sector}`;
  yield { what: name, measured: measuredOf(l.result), derrick: asFile(table) };
  if ("firstlba" in l.result && l.result.firstlba != null)
    yield {
      what: `${name}, bounds`,
      ...{ measured: [l.result.firstlba, l.result.lastlba], derrick: [table.first, table.last] },
    };
}

export const partitionReader: TruthReader = {
  name: "partition tables",
  reads: (path) => /^partitions.*\.json$/.test(basename(path)),
  *compare(path): Generator<Compared> {
    const lists = listsOf(path);
    yield* eachCase(lists.single, "single", singleSchema, single);
    yield* eachCase(lists.layouts, "layouts", layoutSchema, layout);
  },
};

const maybe = z.number().nullish();
const df = z.looseObject({ df_size_bytes: maybe, df_avail_bytes: maybe, f_files: maybe }).nullish();
const n = z.number();
const options = z.string().nullish();
const ext4Schema = z.looseObject({
  ...{ size: n, options, statvfs: df, "Block count": maybe, "Reserved block count": maybe },
  ...{ "Inode count": maybe, "Overhead clusters": maybe, "Block size": maybe },
});
const xfsSchema = z.looseObject({
  ...{ size: n, sector: maybe, options, statvfs: df, agcount: maybe, agsize: maybe, blocks: maybe },
  ...{ log_blocks: maybe, imaxpct: maybe, sunit: maybe, swidth: maybe, error: options },
});
const btrfsSchema = z.looseObject({ size: n, options, statvfs: df });
const fatSchema = z.looseObject({
  ...{ size: n, device_sector: maybe, options, sectors_per_cluster: maybe, reserved_sectors: maybe },
  ...{ total_sectors: maybe, fat_sectors: maybe, clusters: maybe, fat_bits: maybe, usable_bytes: maybe },
  error: options,
});
const swapSchema = z.looseObject({ size: n, mkswap_bytes: n });

/** Bytes to an inode of the kinds that the tool knows by name. */
const INODE_KINDS: Record<string, number> = {
  ...{ news: 4096, largefile: 2 ** 20, largefile4: 2 ** 22, big: 32_768, huge: 65_536 },
};

/** The number behind an option: 65536 of "-i 65536". */
const optionOf = (text: string | null | undefined, name: string): number | undefined => {
  const found = new RegExp(`-${name} *([\\d.]+)`).exec(text ?? "")?.[1];
  return found === undefined ? undefined : Number(found);
};

/** "-m 1 -i 65536 -b 4096 -T largefile". */
function ext4Options(text: string | null | undefined): Ext4Options {
  const kind = /-T (\w+)/.exec(text ?? "")?.[1];
  return {
    ...{ blockBytes: optionOf(text, "b"), reservePercent: optionOf(text, "m") },
    bytesPerInode: optionOf(text, "i") ?? (kind === undefined ? undefined : INODE_KINDS[kind]),
  };
}

function* ext4(c: z.infer<typeof ext4Schema>): Generator<Compared> {
  const f = ext4Figures(c.size, ext4Options(c.options));
  yield* measuredOnes(`ext4 of ${c.size} ${c.options ?? ""}`.trim(), [
    ["block", c["Block size"], f.blockBytes],
    ["blocks", c["Block count"], f.blocks],
    ["reserve", c["Reserved block count"], f.reserved],
    ["inodes", c["Inode count"], f.inodes],
    ["overhead", c["Overhead clusters"], f.overhead],
    ["df", c.statvfs?.df_size_bytes, f.sizeBytes],
    ["df, available", c.statvfs?.df_avail_bytes, f.availableBytes],
  ]);
}

/** Stripes as they were asked for, or as the device told them, which stand among the results in blocks. */
function stripeOf({ options: text, sunit, swidth }: z.infer<typeof xfsSchema>): Stripe | null {
  const [, su, unit = ""] = /\bsu=(\d+)([kmg]?)/.exec(text ?? "") ?? [];
  const sw = /\bsw=(\d+)/.exec(text ?? "")?.[1];
  const inSectors = [/\bsunit=(\d+)/, /\bswidth=(\d+)/].map((of) => Number(of.exec(text ?? "")?.[1] ?? 0));
  if (su && sw) {
    const unitBytes = Number(su) * ({ k: 2 ** 10, m: 2 ** 20, g: 2 ** 30 }[unit] ?? 1);
    return { unitBytes, members: Number(sw), isAsked: true };
  }
  if (inSectors[0] && inSectors[1])
    return { unitBytes: inSectors[0] * 512, members: inSectors[1] / inSectors[0], isAsked: true };
  return sunit && swidth ? { unitBytes: sunit * 4096, members: swidth / sunit } : null;
}

function* xfs(c: z.infer<typeof xfsSchema>): Generator<Compared> {
  const [sector, stripe] = [c.sector ?? 512, stripeOf(c)];
  const name = `xfs of ${c.size}, ${sector} ${c.options ?? ""}`.trim();
  const isRefused = c.blocks == null && c.error != null;
  yield { what: `${name}, made`, measured: !isRefused, derrick: xfsFault(c.size, stripe) === null };
  if (isRefused) return;
  const f = xfsFigures(c.size, sector, stripe);
  yield* measuredOnes(name, [
    ["groups", c.agcount, f.groups],
    ["group", c.agsize, f.groupBlocks],
    ["blocks", c.blocks, f.blocks],
    ["log", c.log_blocks, f.logBlocks],
    ["share for inodes", c.imaxpct, f.inodePercent],
    ["df", c.statvfs?.df_size_bytes, f.sizeBytes],
    ["df, available", c.statvfs?.df_avail_bytes, f.availableBytes],
    ["inodes", c.statvfs?.f_files, f.inodes],
  ]);
}

function* btrfs(c: z.infer<typeof btrfsSchema>): Generator<Compared> {
  const f = btrfsFigures(c.size);
  yield* measuredOnes(`btrfs of ${c.size}, df`, [
    ["size", c.statvfs?.df_size_bytes, f.sizeBytes],
    ["available", c.statvfs?.df_avail_bytes, f.availableBytes],
  ]);
}

function* fat(c: z.infer<typeof fatSchema>): Generator<Compared> {
  const f = fatFigures(c.size, {
    sectorBytes: c.device_sector ?? 512,
    bits: (optionOf(c.options, "F") ?? null) as 16 | 32 | null,
    sectorsPerCluster: optionOf(c.options, "s") ?? null,
  });
  const name = `FAT of ${c.size}, ${c.device_sector ?? 512} ${c.options ?? ""}`.trim();
  const isRefused = c.total_sectors == null && c.error != null;
  yield { what: `${name}, made`, measured: !isRefused, derrick: f !== null };
  if (isRefused) return;
  yield* measuredOnes(name, [
    ["bits", c.fat_bits, f?.bits],
    ["cluster", c.sectors_per_cluster, f?.sectorsPerCluster],
    ["reserved", c.reserved_sectors, f?.reserved],
    ["sectors", c.total_sectors, f?.sectors],
    ["of each table", c.fat_sectors, f?.fatSectors],
    ["clusters", c.clusters, f?.clusters],
    ["for files", c.usable_bytes, f?.usableBytes],
  ]);
}

export const filesystemReader: TruthReader = {
  name: "file systems",
  reads: (path) => /^filesystems.*\.json$/.test(basename(path)),
  *compare(path): Generator<Compared> {
    const lists = listsOf(path);
    yield* eachCase(lists.ext4, "ext4", ext4Schema, ext4);
    yield* eachCase(lists.xfs, "xfs", xfsSchema, xfs);
    yield* eachCase(lists.btrfs, "btrfs", btrfsSchema, btrfs);
    yield* eachCase(lists.vfat, "vfat", fatSchema, fat);
    yield* eachCase(lists.swap, "swap", swapSchema, function* ({ size, mkswap_bytes }) {
      yield { what: `swap of ${size}`, measured: mkswap_bytes, derrick: swapBytes(size) };
    });
  },
};
