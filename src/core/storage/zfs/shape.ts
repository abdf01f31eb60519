import { isOneOf } from "../../text";

/** The kinds of top-level vdevs that hold data. */
const VDEV_KINDS = ["stripe", "mirror", "raidz", "draid"] as const;
export type VdevKind = (typeof VDEV_KINDS)[number];

/** A top-level vdev: its devices as they are given to ZFS (a whole drive or a partition), in bytes. */
export interface VdevShape {
  kind: VdevKind;
  devices: readonly number[];
  /** Parity of raidz and dRAID; 0 otherwise. */
  parity: number;
  /** Data devices of a dRAID group, and its distributed spares; 0 otherwise. */
  data: number;
  spares: number;
  /** Sectors are 2^ashift bytes. */
  ashift: number;
}

const KIND = /^(stripe|mirror|raidz|draid)([1-3])?$/;

/** "raidz2" and the like, with its devices; throws nothing: what cannot be is told by `shapeFault`. */
export function vdevShape(
  type: string,
  devices: readonly number[],
  ashift: number,
  draid: { data?: number; spares?: number } = {},
): VdevShape {
  const [, word, parity] = KIND.exec(type) ?? [];
  const kind = isOneOf(VDEV_KINDS, word) ? word : "stripe";
  const hasParity = kind === "raidz" || kind === "draid";
  return {
    kind,
    ...{ devices, ashift, parity: hasParity ? Number(parity ?? 1) : 0 },
    // The tool takes eight, or all that parity and spares leave.
    data:
      kind === "draid"
        ? (draid.data ?? Math.min(8, devices.length - Number(parity ?? 1) - (draid.spares ?? 0)))
        : 0,
    spares: kind === "draid" ? (draid.spares ?? 0) : 0,
  };
}

/** 2^14 children are more than any pool has; dRAID takes 255. */
const MOST_DEVICES = 255;
/** ZFS refuses devices below 64 MiB. */
const LEAST_BYTES = 64 * 2 ** 20;
/** Above this a double no longer counts single bytes, and the figures would not be exact. */
const MOST_BYTES = 2 ** 53 / 256;

/** Why a shape is none, in words; null where it is one. */
export function shapeFault({ kind, devices, parity, data, spares, ashift }: VdevShape): string | null {
  const n = devices.length;
  if (n === 0) return "it has no devices";
  if (n > MOST_DEVICES) return `it has ${n} devices, and ${MOST_DEVICES} are the most`;
  if (devices.some((d) => !Number.isFinite(d) || d < LEAST_BYTES)) return "a device is smaller than 64 MiB";
  if (devices.some((d) => d > MOST_BYTES)) return "a device is larger than 32 PiB: check its size";
  if (!Number.isInteger(ashift) || ashift < 9 || ashift > 16) return "its sectors are 2^9 to 2^16 bytes";
  if (kind === "stripe" && n > 1) return "a stripe is made of one device each";
  if (kind === "mirror" && n < 2) return "a mirror has two devices or more";
  if (kind === "raidz" && n <= parity) return `raidz${parity} has more than ${parity} devices`;
  if (kind !== "draid") return null;
  if (data < 1) return "a dRAID group has a data device or more";
  if (spares < 0) return "a dRAID has no spares, or some";
  return data + parity + spares > n
    ? `${data} data, ${parity} parity and ${spares} spares are more than ${n} devices`
    : null;
}
