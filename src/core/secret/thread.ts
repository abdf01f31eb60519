import type { Strength } from "./strength";

/** What the worker of passwords does for a page. */
export interface SecretsThread {
  strength(password: string, words: readonly string[]): Strength;
  words(): string[];
  /** With a salt of its own, or with the one that is given. */
  hash(password: string, salt: string | null): string;
}
