import { readFileSync } from "node:fs";
import { basename } from "node:path";
import { z } from "zod";
import {
  allocated,
  fileUnits,
  poolFigures,
  thickReservation,
  vdevShape,
  volumeSpace,
  type VdevShape,
} from "@/core/storage/zfs";
import type { Compared, TruthReader } from "./reader";

const bySize = z.record(z.string(), z.number());
const specSchema = z.object({
  type: z.string(),
  child_bytes: z.array(z.number()),
  data_disks: z.number().optional(),
  distributed_spares: z.number().optional(),
});
const capacitySchema = z.object({
  pools: z.array(
    z.object({
      name: z.string(),
      ashift: z.number(),
      vdevs: z.array(
        z.object({
          ...{ spec: specSchema, child_asize: z.number(), asize: z.number(), ms_shift: z.number() },
          ...{ ms_count: z.number(), deflate_ratio: z.number(), embedded_slog: z.boolean() },
          psize_to_asize: bySize.optional(),
        }),
      ),
      normal_class: z.object({ space: z.number(), dspace: z.number() }),
      embedded_log_class: z.object({ space: z.number(), dspace: z.number() }),
      slop: z.number(),
      usable: z.number(),
      kernel: z.object({ size: z.number(), used: z.number(), available: z.number() }).optional(),
    }),
  ),
});

const shapeOf = (
  { type, child_bytes, data_disks, distributed_spares }: z.infer<typeof specSchema>,
  ashift: number,
) => vdevShape(type, child_bytes, ashift, { data: data_disks, spares: distributed_spares });

function* capacity(path: string): Generator<Compared> {
  for (const pool of capacitySchema.parse(JSON.parse(readFileSync(path, "utf8"))).pools) {
    const shapes = pool.vdevs.map((v) => shapeOf(v.spec, pool.ashift));
    const found = poolFigures(shapes);
    const line = (what: string, measured: unknown, derrick: unknown): Compared => ({
      ...{ what: `${pool.name}, ${what}`, measured, derrick },
    });
    for (const [i, vdev] of pool.vdevs.entries()) {
      const own = found.vdevs[i]!;
      yield line(`vdev ${i} between its labels`, vdev.child_asize, own.perDevice);
      yield line(`vdev ${i} bytes`, vdev.asize, own.bytes);
      yield line(`vdev ${i} metaslabs`, [vdev.ms_shift, vdev.ms_count], [own.metaslabShift, own.metaslabs]);
      yield line(`vdev ${i} deflate ratio`, vdev.deflate_ratio, own.ratio);
      yield line(`vdev ${i} has a log inside`, vdev.embedded_slog, own.log > 0);
      for (const [psize, asize] of Object.entries(vdev.psize_to_asize ?? {}))
        yield line(`a block of ${psize}`, asize, allocated(shapes[i]!, Number(psize)));
    }
    const raw = (of: "normal" | "log") => found.vdevs.reduce((n, v) => n + v[of], 0);
    yield line(
      "normal class",
      [pool.normal_class.space, pool.normal_class.dspace],
      [raw("normal"), found.space],
    );
    const log = pool.embedded_log_class;
    yield line("log inside the pool", [log.space, log.dspace], [raw("log"), found.logSpace]);
    yield line("slop", pool.slop, found.slop);
    yield line("usable", pool.usable, found.usable);
    if (!pool.kernel) continue;
    yield line("pool size", pool.kernel.size, found.size);
    yield line("used and available", pool.kernel.used + pool.kernel.available, found.usable);
  }
}

const blockRow = z.object({ what: z.string(), psize: z.number(), asize: z.number() });
const blocksSchema = z.object({
  pools: z.array(
    z.object({
      ...{ name: z.string(), ashift: z.number(), vdevs: z.array(specSchema) },
      thick_zvol_refreservation: bySize,
      zvol: z.record(z.string(), z.object({ used: z.number(), blocks: z.array(blockRow).optional() })),
      files: z.record(
        z.string(),
        z.object({
          stat: z.record(z.string(), z.object({ size: z.number(), st_blocks: z.number() })),
          blocks: z.array(blockRow).optional(),
        }),
      ),
    }),
  ),
});

const WRITTEN = 2 ** 24;
const VOLUME = 2 ** 30;
/** Sizes as the tool writes them: 4K, 1M. */
const bytesOf = (text: string): number => parseInt(text, 10) * (text.endsWith("M") ? 2 ** 20 : 2 ** 10);

/** Whether a figure that depends on how pointers were compressed is within a share of what was measured. */
const within = (measured: number, found: number, share: number): number | string =>
  Math.abs(found / measured - 1) <= share ? measured : found;

function* blocks(path: string): Generator<Compared> {
  for (const pool of blocksSchema.parse(JSON.parse(readFileSync(path, "utf8"))).pools) {
    const shapes = pool.vdevs.map((v) => shapeOf(v, pool.ashift));
    const [first] = shapes as [VdevShape];
    const line = (what: string, measured: unknown, derrick: unknown): Compared => ({
      ...{ what: `${pool.name}, ${what}`, measured, derrick },
    });
    for (const [size, reserved] of Object.entries(pool.thick_zvol_refreservation))
      yield line(`thick volume of ${size}`, reserved, thickReservation(shapes, VOLUME, bytesOf(size)));
    const rows = [...Object.entries(pool.zvol), ...Object.entries(pool.files)].flatMap(
      ([size, { blocks: all }]) => (all ?? []).map((b) => ({ size, ...b })),
    );
    for (const { size, what, psize, asize } of rows)
      yield line(`${size}, block of ${psize} ${what}`, asize, allocated(first, psize));
    // One vdev is compared: over several the pool deals blocks out as they come.
    if (shapes.length > 1) continue;
    for (const [size, { used }] of Object.entries(pool.zvol))
      yield line(`volume of ${size}`, used, within(used, volumeSpace(first, WRITTEN, bytesOf(size)), 0.002));
    for (const [size, { stat }] of Object.entries(pool.files))
      for (const [name, { size: bytes, st_blocks: units }] of Object.entries(stat)) {
        const found = fileUnits(first, bytes, bytesOf(size));
        yield line(
          `${name} in records of ${size}`,
          units,
          name === "big" ? within(units, found, 0.005) : found,
        );
      }
  }
}

export const zfsReader: TruthReader = {
  name: "pools",
  reads: (path) => /^zfs-(capacity|blocks).*\.json$/.test(basename(path)),
  compare: (path) => (basename(path).startsWith("zfs-capacity") ? capacity(path) : blocks(path)),
};
