import type { Checksum } from "./image";
import type { Inspection } from "./inspect";

/** What the image worker does with a file that stays where it is. */
export interface ImageWork {
  /** Reads what the image is, in range reads. */
  inspect(file: File): Promise<Inspection>;
  /** The digest of the whole file; null when it was stopped. Progress is in bytes. */
  hash(
    file: File,
    algorithm: Checksum["algorithm"],
    onProgress: (done: number) => void,
  ): Promise<string | null>;
  stop(): void;
}
