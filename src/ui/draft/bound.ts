import { valueAt, type DeepPath, type ValueAt } from "@/core/document";

/** A document and the door by which values are typed into it, at paths that may lead into lists. */
export interface Typing<T> {
  document: T;
  type(changes: Readonly<Record<string, unknown>>): void;
}

/**
 * What a field of a document is given: its path, its label, its value, and what happens when it is changed. A path that the
 * document does not have, or a value of another kind, does not compile.
 */
export const bound =
  <T>({ document, type }: Typing<T>) =>
  <P extends DeepPath<T>>(path: P, label: string) => ({
    ...{ path, label, value: valueAt(document, path) as ValueAt<T, P> },
    onChange: (value: ValueAt<T, P>) => type({ [path]: value }),
  });
