import type { Span } from "../../binary";

/** A file or a folder of an image, and where its bytes lie. */
export interface TreeEntry {
  name: string;
  isFolder: boolean;
  bytes: number;
  /** Where its bytes lie in the image, in their order; together as many as `bytes`. */
  spans: Span[];
}

/** No folder of an image is longer; what is longer is hostile or broken. */
export const MOST_FOLDER_BYTES = 2 ** 20;

/** The names that lead to a file, without what would lead elsewhere; null for a path that is none. */
export function namesIn(path: string): string[] | null {
  const names = path.split("/").filter((name) => name !== "");
  const isBad = (name: string): boolean => name === "." || name === ".." || /[\0\\]/.test(name);
  return names.length === 0 || names.length > 16 || names.some(isBad) ? null : names;
}

/** Names that an image writes in another case than people do are the same where nothing fits better. */
export const named = (entries: readonly TreeEntry[], name: string): TreeEntry | null =>
  entries.find((e) => e.name === name) ??
  entries.find((e) => e.name.toLowerCase() === name.toLowerCase()) ??
  null;
