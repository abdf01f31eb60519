import { mdFigures, type MdShape } from "../md";
import { gptBounds } from "../partition";
import { poolFigures, vdevShape, type VdevShape } from "../zfs";
import type { Layout } from "./layout";
import type { Question } from "./question";

/** A rung of the ladder from raw to usable: what is lost there, and what is left. */
export interface Rung {
  what: keyof typeof RUNG_WORDS;
  lost: number;
  left: number;
}

/** What is lost at each rung, in words with where it comes from. */
export const RUNG_WORDS = {
  spares: "hot spares",
  out: "unused drives",
  mixed: "capacity above the smallest drive of the vdev",
  table: "partition table, and a last partition of 16,384 sectors",
  labels: "four labels and the boot area, 4.5 MiB per drive",
  metaslabs: "remainder that does not fill a metaslab",
  log: "one metaslab per vdev for the log inside the pool",
  parity: "copies or parity",
  padding: "parity and padding, for blocks of 128 KiB",
  slop: "reserved by the file system: 1/32, at most 128 GiB",
  offset: "superblock, bitmap and reshape space before the data",
  chunks: "remainder that does not fill a chunk",
  coercion: "capacity rounding of the controller, and 512 MiB for its metadata",
} as const;

const sum = (all: readonly number[]): number => all.reduce((a, b) => a + b, 0);

const SECTOR_START = 2048;
const LAST_PARTITION = 16_384;

/** The data partition that the pool's tool makes on a whole drive: from sector 2048, in front of one of 16,384 sectors. */
export function poolPartition(bytes: number, sectorBytes: number): number {
  const { last } = gptBounds({ bytes, sectorBytes });
  const sectors = Math.floor((last + 1 - LAST_PARTITION - SECTOR_START) / SECTOR_START) * SECTOR_START;
  return Math.max(0, sectors * sectorBytes);
}

const COERCION = { none: 1, "128 MiB": 128 * 2 ** 20, "1 GiB": 2 ** 30 } as const;
const CONTROLLER_RESERVE = 512 * 2 ** 20;

/** Data members of a group. */
function dataOf({ kind, groups }: Layout): number {
  const width = groups[0]?.length ?? 0;
  const type = Number(kind.type);
  return type === 1
    ? 1
    : type === 10
      ? width / 2
      : width - (type % 10 === 6 || type === 60 ? 2 : type === 0 ? 0 : 1);
}

/** The rungs by which a layout comes down from its drives to what can be used. */
export function ladderOf(layout: Layout, sizes: readonly number[], question: Question): Rung[] {
  const bytes = (places: readonly number[]): number => sum(places.map((i) => sizes[i]!));
  const rungs: Rung[] = [];
  let left = sum(sizes);
  const step = (what: Rung["what"], next: number): void => {
    if (next !== left) rungs.push({ what, lost: left - next, left: next });
    left = next;
  };
  step("spares", left - bytes(layout.spares));
  step("out", left - bytes(layout.left));
  const least = layout.groups.map((g) => Math.min(...g.map((i) => sizes[i]!)));
  const width = layout.groups[0]?.length ?? 0;
  const { kind } = layout;
  if (kind.school === "ZFS") {
    step("mixed", sum(layout.groups.map((g, i) => g.length * least[i]!)));
    zfsRungs(layout, least, question, step);
  } else {
    const smallest = Math.min(...least);
    step("mixed", smallest * sum(layout.groups.map((g) => g.length)));
    if (kind.school === "md") mdRungs(layout, smallest, step);
    else {
      const unit = COERCION[question.coercion];
      const each = Math.max(0, Math.floor((smallest - CONTROLLER_RESERVE) / unit) * unit);
      step("coercion", each * width * layout.groups.length);
      step("parity", each * dataOf(layout) * layout.groups.length);
    }
  }
  return rungs;
}

type Step = (what: Rung["what"], next: number) => void;

/** The vdevs of a pool over whole drives, each as large as its smallest one allows. */
export function poolShapes(
  { kind, groups, distributed, data }: Layout,
  least: readonly number[],
  { sector }: Pick<Question, "sector">,
): VdevShape[] {
  return groups.map((g, i) =>
    vdevShape(String(kind.type), Array<number>(g.length).fill(poolPartition(least[i]!, sector)), 12, {
      ...{ data, spares: distributed },
    }),
  );
}

function zfsRungs(layout: Layout, least: readonly number[], question: Question, step: Step) {
  const { kind, groups, distributed } = layout;
  const members = sum(groups.map((g) => g.length));
  step("table", sum(groups.map((g, i) => g.length * poolPartition(least[i]!, question.sector))));
  const shapes = poolShapes(layout, least, question);
  const { vdevs, space, slop, usable } = poolFigures(shapes);
  step("labels", sum(vdevs.map((v, i) => v.perDevice * groups[i]!.length)));
  if (distributed > 0)
    step("spares", (sum(vdevs.map((v) => v.perDevice)) * (members - distributed)) / groups.length);
  // A mirror keeps its metaslabs once; all its copies are counted down together.
  const copies = vdevs.map((v, i) => (v.shape.kind === "mirror" ? groups[i]!.length : 1));
  step("metaslabs", sum(vdevs.map((v, i) => (v.normal + v.log) * copies[i]!)));
  step("log", sum(vdevs.map((v, i) => v.normal * copies[i]!)));
  step(kind.type === "mirror" ? "parity" : "padding", space);
  if (slop > 0) step("slop", usable);
}

/** An array over the drives of a layout, as the tool makes it; a chunk counts for all but plain copies. */
export const mdShape = ({ kind, groups, chunkKib = null }: Layout, smallest: number): MdShape => ({
  ...{ level: kind.type as 0 | 1 | 5 | 6 | 10, members: groups[0]?.length ?? 0, memberBytes: smallest },
  ...{ metadata: "1.2", chunkKib: kind.type === 1 ? null : chunkKib, layout: "near", copies: 2 },
});

function mdRungs(layout: Layout, smallest: number, step: Step) {
  const members = layout.groups[0]?.length ?? 0;
  const figures = mdFigures(mdShape(layout, smallest));
  step("offset", figures.available * 512 * members);
  step("chunks", figures.used * 512 * members);
  step("parity", figures.arrayBytes);
}
