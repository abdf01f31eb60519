import { closeSync, existsSync, openSync, readFileSync, readSync, statSync } from "node:fs";
import { drive, inspectImage, type Inspection } from "@/core/image";

export const CORPUS = ".derrick/corpus";

/** What really booted, and what standard tools say of each image of the corpus. */
export interface Truth {
  size: number;
  sha256: string;
  sha256_reproducible: boolean;
  volume_id: string | null;
  truth: Record<string, boolean | null | string[]>;
  structure: {
    iso9660: boolean;
    udf_descriptors: boolean;
    joliet_volume_id?: string;
    file_shorter_than_pvd?: boolean;
    bytes_after_pvd?: number;
    eltorito_validation_checksum_ok?: boolean;
    eltorito?: {
      platform: string;
      emulation: string;
      lba_2048: number;
      efi_programs?: { path: string; arch: string }[];
    }[];
    sfdisk?: { label: string; partitions: { start: number; size: number; type: string }[] };
  };
}

const truthOf = (file: string): Record<string, Truth> =>
  (JSON.parse(readFileSync(`tests/fixtures/boot/${file}`, "utf8")) as { images: Record<string, Truth> })
    .images;

/** The corpus that everybody has, and what begins with a driver map. */
export const bootTruth = truthOf("boot-truth.json");
export const driverMapTruth = truthOf("drivermap-truth.json");

export function corpusFile(name: string): string {
  const path = `${CORPUS}/${name}`;
  if (!existsSync(path)) throw new Error(`${path} is not there: run "npm run corpus" first`);
  return path;
}

/** Inspects a file by range reads, as the server does. */
export function inspectFile(path: string): { value: Omit<Inspection, "bytesRead">; bytesRead: number } {
  const { size } = statSync(path);
  const fd = openSync(path, "r");
  try {
    return drive(inspectImage(size), size, ({ offset, length }) => {
      const buffer = Buffer.alloc(length);
      return new Uint8Array(buffer.subarray(0, readSync(fd, buffer, 0, length, offset)));
    });
  } finally {
    closeSync(fd);
  }
}

/** Inspects bytes at hand. */
export const inspectBytes = (bytes: Uint8Array) =>
  drive(inspectImage(bytes.length), bytes.length, ({ offset, length }) =>
    bytes.subarray(offset, offset + length),
  );
