import type { Account } from "../accounts";
import type { PasswordRules } from "./rules";

/** What is known of a password that somebody has sealed or marked; never the password, nor its hash. */
export interface KnownSecret {
  opens: string;
  /** Its hash is sealed, so that an answer file can have it. */
  isSealed: boolean;
  /** It is sealed, and this server has not the key that it was sealed with. */
  isLost: boolean;
  at: string;
  by: string;
  destroyedAt: string | null;
  /** What else the same password opens. */
  same: string[];
}

/** What a page may know of the passwords of a build. */
export interface SecretsView {
  /** What browsers hash with before they send what is marked. */
  salt: string;
  known: KnownSecret[];
}

/** What the page of passwords begins with. */
export interface PasswordsView {
  id: string;
  number: string;
  subject: string;
  family: string | null;
  /** The family's rules; null while no image is chosen. */
  rules: PasswordRules | null;
  ruleWords: string;
  accounts: Pick<Account, "name" | "role" | "logIn">[];
  machine: string | null;
  /** Layouts by their names on the sheet: what the site's keyboards send, what the installer takes them for. */
  keyboards: { sends: string; installer: string };
  /** What is tried first: words of the site, the machine and the people. */
  words: string[];
  /** Secret parameters that the commands of the sheet name. */
  parameters: string[];
  defaultLogins: { name: string; opens: string }[];
  secrets: SecretsView;
}
