export { cryptOf, saltFrom } from "./crypt";
export { passphraseWords, strengthOf, type Strength } from "./strength";
export type { SecretsThread } from "./thread";
