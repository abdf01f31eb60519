export { passphrase, type Passphrase, type PassphraseGround } from "./passphrase";
export type { KnownSecret, PasswordsView, SecretsView } from "./view";
export {
  guessSeconds,
  keptRules,
  kindsOf,
  LEAST_GUESSES,
  type KeptRule,
  type PasswordRole,
  type PasswordRules,
} from "./rules";
