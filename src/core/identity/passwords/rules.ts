import type { Account } from "../accounts";

/** What a family asks of a password; the shape is that of its profile. */
export interface PasswordRules {
  leastLength: number;
  /** How many of the four kinds of characters it must have. */
  classes: number;
  /** A capital that stands first and a digit that stands last count as no kind. */
  edgesCount: boolean;
  /** The account's name may stand in it. */
  mayHoldName: boolean;
}

const KINDS = [
  { name: "upper-case letters", is: /\p{Lu}/u },
  { name: "lower-case letters", is: /\p{Ll}/u },
  { name: "digits", is: /\p{Nd}/u },
  { name: "symbols", is: /[^\p{L}\p{Nd}]/u },
] as const;

/** The kinds of characters that count in a password. */
export function kindsOf(password: string, { edgesCount }: Pick<PasswordRules, "edgesCount">): string[] {
  const counted = edgesCount ? password : password.replace(/^\p{Lu}/u, "").replace(/\p{Nd}$/u, "");
  return KINDS.filter(({ is }) => is.test(counted)).map(({ name }) => name);
}

/** A rule of the family, and whether a password keeps it. */
export interface KeptRule {
  words: string;
  kept: boolean;
}

/** Each rule of the family with whether a password keeps it; lengths count characters as people do, not bytes. */
export function keptRules(password: string, rules: PasswordRules, account: string): KeptRule[] {
  const { leastLength, classes, edgesCount, mayHoldName } = rules;
  const length = [...password].length;
  const kinds = kindsOf(password, rules);
  const own = account.toLowerCase();
  return [
    { words: `at least ${leastLength} characters: it has ${length}`, kept: length >= leastLength },
    ...(classes > 1
      ? [
          {
            words: `${classes} character classes: it has ${kinds.length > 0 ? kinds.join(", ") : "none"}${edgesCount ? "" : "; a leading capital and a final digit do not count"}`,
            kept: kinds.length >= classes,
          },
        ]
      : []),
    ...(mayHoldName || own === ""
      ? []
      : [{ words: `without the account name ${account}`, kept: !password.toLowerCase().includes(own) }]),
  ];
}

/** For whom a password is: an account by its role, or a thing that is no account of the system. */
export type PasswordRole = Account["role"] | "controller" | "guest";

/**
 * Tries that a password must stand at least. What administers a machine is tried from a stolen hash, at some ten thousand
 * tries a second on one card: 10^12 tries are three years of that. A family's least length is no measure of it.
 */
export const LEAST_GUESSES: Readonly<Record<PasswordRole, number>> = {
  "super-user": 1e12,
  administrator: 1e12,
  controller: 1e12,
  ordinary: 1e10,
  service: 1e10,
  guest: 1e10,
};

/** How long tries at that rate take, in seconds. */
export const guessSeconds = (guesses: number): number => guesses / 1e4;
