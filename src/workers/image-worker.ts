import { expose } from "comlink";
import { createMD5, createSHA1, createSHA256, createSHA512 } from "hash-wasm";
import { driveLater, inspectImage, type Checksum, type ImageWork, type Inspection } from "@/core/image";

const MAKERS = { md5: createMD5, sha1: createSHA1, sha256: createSHA256, sha512: createSHA512 };
/** Measured: slices cost no more than a stream, and give progress and a place to stop. */
const SLICE = 8 * 2 ** 20;

let stopped = false;

const work: ImageWork = {
  async inspect(file: File): Promise<Inspection> {
    const { value, bytesRead } = await driveLater(
      inspectImage(file.size),
      file.size,
      async ({ offset, length }) => new Uint8Array(await file.slice(offset, offset + length).arrayBuffer()),
    );
    return { ...value, bytesRead };
  },

  async hash(
    file: File,
    algorithm: Checksum["algorithm"],
    onProgress: (done: number) => void,
  ): Promise<string | null> {
    stopped = false;
    const hasher = await MAKERS[algorithm]();
    hasher.init();
    for (let at = 0; at < file.size; at += SLICE) {
      if (stopped) return null;
      hasher.update(new Uint8Array(await file.slice(at, at + SLICE).arrayBuffer()));
      onProgress(Math.min(file.size, at + SLICE));
    }
    return hasher.digest("hex");
  },

  stop(): void {
    stopped = true;
  },
};

expose(work);
