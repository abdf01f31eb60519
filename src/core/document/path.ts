type Leaf = string | number | boolean | null | undefined | readonly unknown[];

/** Dotted paths to the fields of a document; a list is one field. */
export type Path<T> = {
  [K in keyof T & string]: T[K] extends Leaf ? K : `${K}.${Path<T[K]>}`;
}[keyof T & string];

/** What stands at a path. */
export type ValueAt<T, P extends string> = P extends `${infer K}.${infer Rest}`
  ? K extends keyof T
    ? ValueAt<T[K], Rest>
    : never
  : P extends keyof T
    ? T[P]
    : never;

type Bag = Readonly<Record<string, unknown>>;

/** An object with fields, and no list. */
export const isBag = (value: unknown): value is Bag =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** The value at a dotted path; undefined when there is none. What every object inherits is no field of a document. */
export const valueAt = (document: unknown, path: string): unknown =>
  path
    .split(".")
    .reduce<unknown>(
      (value, key) => (isBag(value) && Object.hasOwn(value, key) ? value[key] : undefined),
      document,
    );

/** A copy with one value replaced; only the objects on the way are copied. Null when there is no such field. */
export function withValueAt(document: unknown, path: string, value: unknown): Bag | null {
  const [key = "", ...rest] = path.split(".");
  if (!isBag(document) || !Object.hasOwn(document, key)) return null;
  if (rest.length === 0) return { ...document, [key]: value };
  const inner = withValueAt(document[key], rest.join("."), value);
  return inner && { ...document, [key]: inner };
}
