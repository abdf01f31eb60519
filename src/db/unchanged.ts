/**
 * Keeps a long list for as long as the stamp of its table (how many rows, how often they were saved, when last, sums)
 * stays the same: to stamp thousands of rows takes a hundredth of the time of reading them.
 */
export function whileUnchanged<D, T>(
  stampOf: (db: D) => Promise<string>,
  read: (db: D) => Promise<T>,
): (db: D) => Promise<T> {
  let kept: { stamp: string; value: T } | null = null;
  return async (db) => {
    const stamp = await stampOf(db);
    if (kept?.stamp !== stamp) kept = { stamp, value: await read(db) };
    return kept.value;
  };
}
