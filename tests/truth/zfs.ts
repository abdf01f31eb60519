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
import { eachCase, listsOf, measuredOnes, type Compared, type TruthReader } from "./reader";

const maybe = z.number().nullish();
const bySize = z.record(z.string(), z.number());
const specSchema = z.object({
  type: z.string(),
  child_bytes: z.array(z.number()),
  data_disks: maybe,
  distributed_spares: maybe,
});
const classSchema = z.object({ space: z.number(), dspace: z.number() }).nullish();
const poolSchema = z.object({
  name: z.string(),
  ashift: z.number(),
  vdevs: z.array(
    z.object({
      ...{ spec: specSchema, child_asize: maybe, asize: maybe, ms_shift: maybe, ms_count: maybe },
      ...{ deflate_ratio: maybe, embedded_slog: z.boolean().nullish(), psize_to_asize: bySize.nullish() },
    }),
  ),
  ...{ normal_class: classSchema, embedded_log_class: classSchema, slop: maybe, usable: maybe },
  kernel: z.object({ size: z.number(), used: z.number(), available: z.number() }).nullish(),
});

const shapeOf = (
  { type, child_bytes, data_disks, distributed_spares }: z.infer<typeof specSchema>,
  ashift: number,
) =>
  vdevShape(type, child_bytes, ashift, {
    data: data_disks ?? undefined,
    spares: distributed_spares ?? undefined,
  });

function* capacity(pool: z.infer<typeof poolSchema>): Generator<Compared> {
  const shapes = pool.vdevs.map((v) => shapeOf(v.spec, pool.ashift));
  const found = poolFigures(shapes);
  for (const [i, vdev] of pool.vdevs.entries()) {
    const own = found.vdevs[i]!;
    const slabs = vdev.ms_shift == null ? null : [vdev.ms_shift, vdev.ms_count];
    yield* measuredOnes(`${pool.name}, vdev ${i}`, [
      ["between its labels", vdev.child_asize, own.perDevice],
      ["bytes", vdev.asize, own.bytes],
      ["metaslabs", slabs, [own.metaslabShift, own.metaslabs]],
      ["deflate ratio", vdev.deflate_ratio, own.ratio],
      ["has a log inside", vdev.embedded_slog, own.log > 0],
      ...Object.entries(vdev.psize_to_asize ?? {}).map(
        ([psize, asize]) => [`a block of ${psize}`, asize, allocated(shapes[i]!, Number(psize))] as const,
      ),
    ]);
  }
  const raw = (of: "normal" | "log") => found.vdevs.reduce((n, v) => n + v[of], 0);
  const both = (c: z.infer<typeof classSchema>) => (c ? [c.space, c.dspace] : null);
  const { kernel } = pool;
  yield* measuredOnes(pool.name, [
    ["normal class", both(pool.normal_class), [raw("normal"), found.space]],
    ["log inside the pool", both(pool.embedded_log_class), [raw("log"), found.logSpace]],
    ["slop", pool.slop, found.slop],
    ["usable", pool.usable, found.usable],
    ["pool size", kernel?.size, found.size],
    ["used and available", kernel ? kernel.used + kernel.available : null, found.usable],
  ]);
}

const blockRow = z.object({ what: z.string(), psize: z.number(), asize: z.number() });
const writtenSchema = z.object({
  ...{ name: z.string(), ashift: z.number(), vdevs: z.array(specSchema) },
  thick_zvol_refreservation: bySize.default({}),
  zvol: z.record(z.string(), z.object({ used: maybe, blocks: z.array(blockRow).nullish() })).default({}),
  files: z
    .record(
      z.string(),
      z.object({
        stat: z.record(z.string(), z.object({ size: z.number(), st_blocks: z.number() })).default({}),
        blocks: z.array(blockRow).nullish(),
      }),
    )
    .default({}),
});

const WRITTEN = 2 ** 24;
const VOLUME = 2 ** 30;
/** Sizes as the tool writes them: 4K, 1M. */
const bytesOf = (text: string): number => parseInt(text, 10) * (text.endsWith("M") ? 2 ** 20 : 2 ** 10);

/** Whether a figure that depends on how pointers were compressed is within a share of what was measured. */
const within = (measured: number, found: number, share: number): number | string =>
  Math.abs(found / measured - 1) <= share ? measured : found;

function* blocks(pool: z.infer<typeof writtenSchema>): Generator<Compared> {
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
  if (shapes.length > 1) return;
  for (const [size, { used }] of Object.entries(pool.zvol))
    if (used != null)
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

export const zfsReader: TruthReader = {
  name: "pools",
  reads: (path) => /^zfs-(capacity|blocks).*\.json$/.test(basename(path)),
  compare: (path) =>
    basename(path).startsWith("zfs-capacity")
      ? eachCase(listsOf(path).pools, "pools", poolSchema, capacity)
      : eachCase(listsOf(path).pools, "pools", writtenSchema, blocks),
};
