export { btrfsFigures, LEAST_BTRFS, type BtrfsFigures } from "./btrfs";
export { ext4Figures, type Ext4Figures, type Ext4Options } from "./ext4";
export { fatFigures, STRICT_FAT32_CLUSTERS, type FatFigures, type FatOptions } from "./fat";
export { swapBytes } from "./swap";
export { xfsFault, xfsFigures, type Stripe, type XfsFigures } from "./xfs";
