/** The value of a word that comes from outside: none for "constructor" and whatever else every object answers to. */
export const own = <T>(record: Readonly<Record<string, T>>, key: string): T | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined;
