import type { Mode } from "../work";

/** For which firmware a stick was prepared, when it was written; "as the image" is a byte-for-byte copy. */
export type StickWritten = "as the image" | "uefi" | "legacy" | "several images" | "data only" | "unknown";

/** Whether a stick starts in a mode: by how it was written, or, for a plain copy, by what the image can do. */
export function stickBoots(
  written: StickWritten,
  imageModes: readonly Mode[],
  mode: Mode,
): boolean | "unknown" {
  if (written === "unknown" || written === "several images") return "unknown";
  return written === "as the image" ? imageModes.includes(mode) : written === mode;
}
