import { expose } from "comlink";
import { cryptOf, passphraseWords, saltFrom, strengthOf, type SecretsThread } from "@/core/secret";

const work: SecretsThread = {
  strength: strengthOf,
  words: passphraseWords,
  hash: (password, salt) => cryptOf(password, salt ?? saltFrom(crypto.getRandomValues(new Uint8Array(16)))),
};

expose(work);
