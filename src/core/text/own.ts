/** The value of a word that comes from outside: none for "constructor" and whatever else every object answers to. */
export const own = <T>(record: Readonly<Record<string, T>>, key: string): T | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined;

/** The keys of an object that this code has written itself, as its type has them. */
export const keysOf = <T extends object>(record: T): (keyof T & string)[] =>
  Object.keys(record) as (keyof T & string)[];

/** Whether a word from outside is one of these. */
export const isOneOf = <T extends string>(words: readonly T[], word: string | undefined): word is T =>
  words.some((known) => known === word);
