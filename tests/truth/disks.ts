import { readFileSync } from "node:fs";
import { basename } from "node:path";
import { z } from "zod";
import {
  btrfsFigures,
  ext4Figures,
  fatFigures,
  swapBytes,
  xfsFigures,
  type Ext4Options,
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
import type { Compared, TruthReader } from "./reader";

const json = (path: string): unknown => JSON.parse(readFileSync(path, "utf8"));
const partition = z.object({ start: z.number(), size: z.number(), type: z.string() });
const madeSchema = z.union([
  z.object({ error: z.string() }),
  z.looseObject({
    partitions: z.array(partition),
    firstlba: z.number().nullish(),
    lastlba: z.number().nullish(),
  }),
]);
const bareSchema = z.union([z.object({ error: z.string() }), z.array(partition)]);
const partitionsSchema = z.object({
  single: z.array(
    z.looseObject({
      ...{ size_name: z.string(), size: z.number(), sector: z.number() },
      sgdisk: z.looseObject({
        first_usable: z.number(),
        last_usable: z.number(),
        one_partition: z.array(partition),
      }),
      ...{ sfdisk_gpt: madeSchema, sfdisk_dos: madeSchema, parted_gpt: madeSchema, parted_msdos: madeSchema },
      ...{ parted_gpt_1MiB: bareSchema.optional(), parted_msdos_1MiB: bareSchema.optional() },
    }),
  ),
  layouts: z.array(
    z.object({
      tool: z.enum(["sgdisk", "sfdisk"]),
      ...{ layout: z.string(), script: z.string().optional(), args: z.string().optional() },
      ...{ size: z.number(), sector: z.number(), result: madeSchema },
    }),
  ),
});

/** A table in the shape of the file: start, length and type of each partition, or that the tool refuses it. */
const asFile = ({ partitions, fault, label }: Table) =>
  fault?.kind === "refused"
    ? "refused"
    : partitions.map(({ start, sectors, use }) => {
        const { guid, dos } = PARTITION_TYPES[use];
        return { start, size: sectors, type: label === "gpt" ? guid : dos };
      });
const measuredOf = (made: z.infer<typeof madeSchema> | z.infer<typeof bareSchema>) =>
  Array.isArray(made) ? made : "error" in made ? "refused" : (made as { partitions: unknown }).partitions;

const UNITS: Record<string, number> = { K: 2 ** 10, M: 2 ** 20, G: 2 ** 30, T: 2 ** 40 };
const amount = (text: string): number => parseInt(text, 10) * UNITS[text.replace(/[^A-Z]/g, "")[0] ?? "M"]!;
const useOf = (kind: "sgdisk" | "sfdisk", code: string): PartitionUse =>
  (Object.entries(PARTITION_TYPES).find(([, t]) => t[kind] === code || t.guid === code)?.[0] ??
    "linux") as PartitionUse;

/** "size=512MiB, type=U" a line. */
const fromScript = (script: string): WantedPartition[] =>
  script
    .split("\n")
    .filter((l) => /(size|type)=/.test(l))
    .map((l) => ({
      use: useOf("sfdisk", /type=([\w-]+)/.exec(l)?.[1] ?? "L"),
      bytes: ((size) => (size ? amount(size) : null))(/size=(\d+[A-Za-z]+)/.exec(l)?.[1]),
    }));

/** "-n 1:0:+512M -t 1:ef00". */
function fromArguments(args: string): WantedPartition[] {
  const types = new Map([...args.matchAll(/-t (\d+):(\w+)/g)].map((m) => [m[1], m[2]]));
  return [...args.matchAll(/-n (\d+):0:(\+\w+|0)/g)].map(([, n, size = "0"]) => ({
    use: useOf("sgdisk", types.get(n) ?? "8300"),
    bytes: size === "0" ? null : amount(size.slice(1)),
  }));
}

const WHOLE: WantedPartition[] = [{ use: "linux", bytes: null }];

export const partitionReader: TruthReader = {
  name: "partition tables",
  reads: (path) => /^partitions.*\.json$/.test(basename(path)),
  *compare(path): Generator<Compared> {
    const { single, layouts } = partitionsSchema.parse(json(path));
    for (const s of single) {
      const disk = { bytes: s.size, sectorBytes: s.sector };
      const name = `${s.size_name} of ${s.sector}-byte sectors`;
      const { first, last } = gptBounds(disk);
      const made = (tool: TableTool, label: TableLabel) => asFile(layOut(tool, label, disk, WHOLE));
      yield {
        what: `${name}, bounds`,
        measured: [s.sgdisk.first_usable, s.sgdisk.last_usable],
        derrick: [first, last],
      };
      yield { what: `${name}, sgdisk`, measured: s.sgdisk.one_partition, derrick: made("sgdisk", "gpt") };
      yield {
        what: `${name}, sfdisk GPT`,
        measured: measuredOf(s.sfdisk_gpt),
        derrick: made("sfdisk", "gpt"),
      };
      yield {
        what: `${name}, sfdisk MBR`,
        measured: measuredOf(s.sfdisk_dos),
        derrick: made("sfdisk", "dos"),
      };
      for (const [of, label] of [
        ["gpt", "gpt"],
        ["msdos", "dos"],
      ] as const)
        for (const made of [s[`parted_${of}`], s[`parted_${of}_1MiB`]])
          if (made)
            yield {
              what: `${name}, parted ${of}`,
              ...{ measured: measuredOf(made), derrick: asFile(layOut("parted", label, disk, WHOLE)) },
            };
    }
    for (const { tool, layout, script, args, size, sector, result } of layouts) {
      const label = /label: dos/.test(script ?? "") ? "dos" : "gpt";
      const wanted = script ? fromScript(script) : fromArguments(args ?? "");
      const table = layOut(tool, label, { bytes: size, sectorBytes: sector }, wanted);
      yield { what: `${layout} on ${size}, ${sector}`, measured: measuredOf(result), derrick: asFile(table) };
      if ("firstlba" in result && result.firstlba != null)
        yield {
          what: `${layout} on ${size}, ${sector}, bounds`,
          ...{ measured: [result.firstlba, result.lastlba], derrick: [table.first, table.last] },
        };
    }
  },
};

const df = z.looseObject({ df_size_bytes: z.number(), df_avail_bytes: z.number(), f_files: z.number() });
const n = z.number();
const plain = z.literal("").optional();
const filesystemsSchema = z.object({
  ext4: z.array(
    z.looseObject({
      ...{
        size: n,
        options: z.string().optional(),
        statvfs: df,
        "Block count": n,
        "Reserved block count": n,
        "Inode count": n,
      },
      ...{ "Overhead clusters": n, "Block size": n },
    }),
  ),
  xfs: z.array(
    z.looseObject({
      ...{ size: n, sector: n, options: plain, statvfs: df, agcount: n, agsize: n, blocks: n, log_blocks: n },
      imaxpct: n,
    }),
  ),
  btrfs: z.array(z.looseObject({ size: n, options: plain, statvfs: df })),
  vfat: z.array(
    z.looseObject({
      ...{ size: n, device_sector: n, options: z.string(), sectors_per_cluster: n, reserved_sectors: n },
      ...{ total_sectors: n, fat_sectors: n, clusters: n, fat_bits: n, usable_bytes: n },
    }),
  ),
  swap: z.array(z.looseObject({ size: n, mkswap_bytes: n })),
});

/** Bytes to an inode of the kinds that the tool knows by name. */
const INODE_KINDS: Record<string, number> = {
  ...{ news: 4096, largefile: 2 ** 20, largefile4: 2 ** 22, big: 32_768, huge: 65_536 },
};

/** "-m 1 -i 65536 -b 4096 -T largefile". */
function ext4Options(text = ""): Ext4Options {
  const option = (name: string): number | undefined => {
    const found = new RegExp(`-${name} (\\d+)`).exec(text)?.[1];
    return found === undefined ? undefined : Number(found);
  };
  const kind = /-T (\w+)/.exec(text)?.[1];
  return {
    ...{ blockBytes: option("b"), reservePercent: option("m") },
    bytesPerInode: option("i") ?? (kind === undefined ? undefined : INODE_KINDS[kind]),
  };
}

export const filesystemReader: TruthReader = {
  name: "file systems",
  reads: (path) => /^filesystems.*\.json$/.test(basename(path)),
  *compare(path): Generator<Compared> {
    const file = filesystemsSchema.parse(json(path));
    for (const c of file.ext4) {
      const f = ext4Figures(c.size, ext4Options(c.options));
      const own = [
        c["Block size"],
        c["Block count"],
        c["Reserved block count"],
        c["Inode count"],
        c["Overhead clusters"],
      ];
      yield {
        what: `ext4 of ${c.size}`,
        measured: own,
        derrick: [f.blockBytes, f.blocks, f.reserved, f.inodes, f.overhead],
      };
      const shown = [c.statvfs.df_size_bytes, c.statvfs.df_avail_bytes];
      yield { what: `ext4 of ${c.size}, df`, measured: shown, derrick: [f.sizeBytes, f.availableBytes] };
    }
    for (const c of file.xfs) {
      const f = xfsFigures(c.size, c.sector);
      const measured = [c.agcount, c.agsize, c.blocks, c.log_blocks, c.imaxpct];
      const derrick = [f.groups, f.groupBlocks, f.blocks, f.logBlocks, f.inodePercent];
      yield { what: `xfs of ${c.size}, ${c.sector}`, measured, derrick };
      const shown = [c.statvfs.df_size_bytes, c.statvfs.df_avail_bytes, c.statvfs.f_files];
      yield {
        what: `xfs of ${c.size}, df`,
        measured: shown,
        derrick: [f.sizeBytes, f.availableBytes, f.inodes],
      };
    }
    for (const c of file.btrfs) {
      const f = btrfsFigures(c.size);
      const shown = [c.statvfs.df_size_bytes, c.statvfs.df_avail_bytes];
      yield { what: `btrfs of ${c.size}, df`, measured: shown, derrick: [f.sizeBytes, f.availableBytes] };
    }
    for (const c of file.vfat) {
      const option = (name: string): number | null =>
        Number(new RegExp(`-${name} (\\d+)`).exec(c.options)?.[1]) || null;
      const f = fatFigures(c.size, {
        ...{
          sectorBytes: c.device_sector,
          bits: option("F") as 16 | 32 | null,
          sectorsPerCluster: option("s"),
        },
      });
      const measured = [
        c.fat_bits,
        c.sectors_per_cluster,
        c.reserved_sectors,
        c.total_sectors,
        c.fat_sectors,
      ];
      const derrick = f && [f.bits, f.sectorsPerCluster, f.reserved, f.sectors, f.fatSectors];
      yield { what: `FAT of ${c.size} ${c.options}`, measured, derrick };
      yield {
        what: `FAT of ${c.size} ${c.options}, for files`,
        ...{ measured: [c.clusters, c.usable_bytes], derrick: f && [f.clusters, f.usableBytes] },
      };
    }
    for (const { size, mkswap_bytes } of file.swap)
      yield { what: `swap of ${size}`, measured: mkswap_bytes, derrick: swapBytes(size) };
  },
};
