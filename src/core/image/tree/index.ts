import type { Reading } from "../inspect/reader";
import { named, namesIn, type TreeEntry } from "./entry";
import { isoEntries, isoRoot } from "./iso-tree";
import { udfEntries, udfRoot } from "./udf-tree";

export type { TreeEntry } from "./entry";

/** Follows the names of a path from a root, folder by folder. */
function* walk(
  root: TreeEntry,
  names: readonly string[],
  entries: (folder: TreeEntry, wanted: string) => Reading<TreeEntry[]>,
): Reading<TreeEntry | null> {
  let here = root;
  for (const name of names) {
    if (!here.isFolder) return null;
    const next = named(yield* entries(here, name), name);
    if (!next) return null;
    here = next;
  }
  return here.isFolder ? null : here;
}

/**
 * A file inside an image by its path, where its bytes lie: looked for in the ISO 9660 volume, by its Rock Ridge names
 * first, and then in the UDF volume. Null for what is not there, is a folder or a link, leads outside, or ends behind the
 * end of the image, which is cut off then.
 */
export function* fileInImage(size: number, path: string): Reading<TreeEntry | null> {
  const names = namesIn(path);
  if (!names) return null;
  const iso = yield* isoRoot();
  const isWhole = (file: TreeEntry): boolean => file.spans.every((s) => s.offset + s.length <= size);
  const found = iso && (yield* walk(iso, names, isoEntries));
  if (found) return isWhole(found) ? found : null;
  const udf = yield* udfRoot();
  const other = udf && (yield* walk(udf.root, names, (folder, wanted) => udfEntries(folder, udf, wanted)));
  return other && isWhole(other) ? other : null;
}
