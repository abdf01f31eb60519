// docs/pool-ladder.md: how a pool comes down from its drives to what can be used, with an example worked by the code.
import { allocated, poolFigures, vdevShape } from "@/core/storage/zfs";
import { poolPartition, RUNG_WORDS, questionSchema, searchLayouts } from "@/core/storage/bench";
import { formatBytes, formatNumber } from "@/core/units";

const n = (value: number): string => formatNumber(value);
const DRIVES = "12x20T";
const LAYOUT = "raidz2 of 12";

/** The example: what the bench says of it, and the figures behind each rung. */
function example() {
  const answer = searchLayouts(questionSchema.parse({ drives: DRIVES, school: "ZFS" }));
  if (!answer.ok) throw new Error(answer.problems[0]?.message);
  const candidate = answer.value.candidates.find((c) => c.name === LAYOUT);
  if (!candidate) throw new Error(`the bench has no ${LAYOUT}`);
  const drive = answer.value.sizes[0]!;
  const part = poolPartition(drive, 512);
  const shape = vdevShape("raidz2", Array<number>(12).fill(part), 12);
  return { candidate, drive, part, shape, pool: poolFigures([shape]) };
}

/** The page of the ladder. */
export function renderLadder(): string {
  const { candidate, drive, part, shape, pool } = example();
  const [vdev] = pool.vdevs;
  const block = allocated(shape, 131_072);
  const small = (kib: number): string => (allocated(shape, kib * 1024) / (kib * 1024)).toFixed(2);
  return `# From raw to usable: the ladder of a pool

Written by \`npm run docs:write\` from the code; a test compares this page with it. The rules are those of OpenZFS 2.3 with
its defaults; \`tests/truth/zfs.ts\` compares them with what the real program made, to the byte.

The example is ${LAYOUT} drives of 20 TB, ${n(drive)} bytes each. Whoever takes ten twelfths of what is printed on the drives
expects 200 TB.

| lost to | bytes | left |
| --- | ---: | ---: |
| the drives as they are | | ${formatBytes(candidate.rawBytes)} |
${candidate.ladder.map((r) => `| ${RUNG_WORDS[r.what]} | ${n(r.lost)} | ${formatBytes(r.left)} |`).join("\n")}

Usable: **${n(candidate.usableBytes)} bytes, ${formatBytes(candidate.usableBytes)}**.

## The rungs

1. **Partition.** A whole drive gets a GPT. The data partition begins at sector 2,048 and ends, at a multiple of 2,048
   sectors, in front of a last one of 16,384 sectors: ${n(part)} bytes of ${n(drive)}. With 4,096-byte sectors the counts are the
   same, so the pool begins at 8 MiB and the last partition is 64 MiB.
2. **Labels.** The size is rounded down to 256 KiB; two labels and a boot area stand in front (4 MiB), two labels behind
   (512 KiB): ${n(vdev!.perDevice)} bytes.
3. **Metaslabs.** About two hundred of them, each a power of two between 16 MiB and 16 GiB; what does not fill one is lost. Here
   ${n(vdev!.metaslabs)} of 2^${vdev!.metaslabShift} bytes.
4. **Log inside the pool.** A group with more than 64 metaslabs gives one of them to it. It counts in the pool's size, and not
   in what is available.
5. **Parity with padding.** A block of *p* bytes takes *s* = ⌈*p* / 2^ashift⌉ sectors and, for each row of data drives, its
   parity: *s* + parity × ⌈*s* / (drives - parity)⌉, rounded up to a multiple of parity + 1. A block of 128 KiB takes
   ${n(block)} bytes here, so the pool counts ${vdev!.ratio} of each 512 raw bytes: the ratio of every file, whatever its blocks.
6. **Kept for itself.** A 32nd of the space, at least 128 MiB and at most 128 GiB, less the log inside the pool by at most
   half of it: ${n(pool.slop)} bytes.

## What blocks make of it

The ratio is that of a 128 KiB block. Others take more or less of this pool for each byte:

| block | raw bytes for a byte | against the ratio |
| --- | ---: | ---: |
${[4, 8, 16, 32, 64, 128, 1024].map((k) => `| ${k < 1024 ? `${k} KiB` : "1 MiB"} | ${small(k)} | ${((allocated(shape, k * 1024) / (k * 1024)) * (vdev!.ratio / 512)).toFixed(2)} |`).join("\n")}

So a volume of small blocks fills such a pool long before its size says so, and large records make it hold a little more
than it promises.
`;
}
