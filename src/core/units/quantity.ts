declare const unit: unique symbol;
type In<Unit extends string> = number & { readonly [unit]: Unit };

/**
 * Counts that must not be taken for one another: a disk speaks of sectors, a person of bytes, and both are numbers. A
 * bare number is none of them; whoever reads one says what it counts.
 */
export type ByteCount = In<"bytes">;
export type SectorCount = In<"sectors">;
export type SecondCount = In<"seconds">;

export const byteCount = (n: number): ByteCount => n as ByteCount;
export const sectorCount = (n: number): SectorCount => n as SectorCount;
export const secondCount = (n: number): SecondCount => n as SecondCount;

/** The bytes of some sectors of this size. */
export const bytesOf = (sectors: SectorCount, sector: ByteCount): ByteCount => byteCount(sectors * sector);

/** The whole sectors of this size that fit into some bytes. */
export const sectorsIn = (bytes: ByteCount, sector: ByteCount): SectorCount =>
  sectorCount(Math.floor(bytes / sector));

/** The sum of counts of one unit. */
export const total = <Count extends ByteCount | SectorCount | SecondCount>(counts: readonly Count[]): Count =>
  counts.reduce<number>((sum, n) => sum + n, 0) as Count;
