/**
 * Keeps a long list for as long as the stamp of its table (how many rows, how often they were saved, when last, sums)
 * stays the same: to stamp thousands of rows takes a hundredth of the time of reading them. Each database has its own.
 */
export function whileUnchanged<D extends object, T>(
  stampOf: (db: D) => Promise<string>,
  read: (db: D) => Promise<T>,
): (db: D) => Promise<T> {
  const kept = new WeakMap<D, { stamp: string; value: T }>();
  return async (db) => {
    const stamp = await stampOf(db);
    const before = kept.get(db);
    if (before?.stamp === stamp) return before.value;
    const value = await read(db);
    kept.set(db, { stamp, value });
    return value;
  };
}
