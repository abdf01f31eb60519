type Leaf = string | number | boolean | null | undefined | readonly unknown[];

/** Dotted paths to the fields of a document; a list is one field. */
export type Path<T> = {
  [K in keyof T & string]: T[K] extends Leaf ? K : `${K}.${Path<T[K]>}`;
}[keyof T & string];

/** Dotted paths that also lead into lists, by the places of their rows ("segments.0.name"). */
export type DeepPath<T> = {
  [K in keyof T & string]: T[K] extends readonly (infer Row)[]
    ? K | (Row extends Leaf ? never : `${K}.${number}.${DeepPath<Row>}`)
    : T[K] extends Leaf
      ? K
      : null extends T[K]
        ? K
        : `${K}.${DeepPath<T[K]>}`;
}[keyof T & string];

/** What stands at a path. */
export type ValueAt<T, P extends string> = P extends `${infer K}.${infer Rest}`
  ? K extends keyof T
    ? ValueAt<T[K], Rest>
    : T extends readonly (infer Row)[]
      ? ValueAt<Row, Rest>
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
      (value, key) =>
        isBag(value) && Object.hasOwn(value, key)
          ? value[key]
          : Array.isArray(value)
            ? value[Number(key)]
            : undefined,
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

/**
 * A change at a path that may lead into lists, as one of a field: a list is one value of its document, so that its rows
 * can be added, moved and taken away.
 */
export function fieldChange(document: unknown, path: string, value: unknown): [path: string, value: unknown] {
  const keys = path.split(".");
  const list = keys.findIndex(
    (_, i) => i > 0 && Array.isArray(valueAt(document, keys.slice(0, i).join("."))),
  );
  if (list < 0) return [path, value];
  const field = keys.slice(0, list).join(".");
  const [at, inner] = [Number(keys[list]), keys.slice(list + 1).join(".")];
  const rows: unknown = valueAt(document, field);
  if (!Array.isArray(rows)) return [path, value];
  const rowWith = (row: unknown): unknown => {
    if (inner === "") return value;
    const [place, changed] = fieldChange(row, inner, value);
    return withValueAt(row, place, changed) ?? row;
  };
  return [field, rows.map((row, i) => (i === at ? rowWith(row) : row))];
}
