import type { Bytes } from "../../binary";
import type { FatVolume } from "./fat";
import type { BootCatalog, IsoVolume } from "./iso";
import type { Foreign } from "./kinds";
import type { Gpt, Mbr, Partition } from "./partitions";
import type { UdfVolume } from "./udf";

/** Everything that was read of a file, before it is judged. */
export interface Findings {
  size: number;
  head: Bytes;
  mbr: Mbr;
  gpt: Gpt | null;
  iso: IsoVolume | null;
  /** Looked for where there is no ISO 9660. */
  udf: UdfVolume | null;
  catalog: BootCatalog | null;
  /** Set where it is no image as it stands. */
  foreign: Foreign | null;
  /** A raw disk with the footer of a fixed virtual disk. */
  vhd: boolean;
  treeLoaders: string[];
  /** FAT volumes by where they stand: an El Torito image, a partition, or the whole file. */
  volumes: {
    where: "boot image" | "partition" | "whole file";
    volume: FatVolume;
    partition: Partition | null;
  }[];
}
