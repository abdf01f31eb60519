import { z } from "zod";
import { accountSchema } from "../identity";
import { parametersSchema } from "../parameter";

const word = z.string().max(400).default("");

/** What the installer asks: names, keyboard, language, time zone, accounts. */
export const answersSlice = z.object({
  hostName: word,
  domain: word,
  keyboard: word,
  locale: word,
  timeZone: word,
  /** Where packages come from, and by which proxy; "" for the medium itself, and for none. */
  source: word,
  proxy: word,
  /** Packages, and groups of them under an "@"; what the installer takes by itself where there are none. */
  components: z.array(z.string().max(120)).max(500).default([]),
  /** Services that start with the system. */
  services: z.array(z.string().max(120)).max(500).default([]),
  /** Which edition the installer is told to install, where it asks. */
  edition: word,
  /** Commands of a shell that the new system runs once, at the end of its installation. */
  finish: z.array(z.string().max(400)).max(100).default([]),
  /** The same of its first start, where the machine installs itself over the network: one after the other, each once. */
  firstStart: z.array(z.string().max(400)).max(100).default([]),
  /** Values that the commands and the words of a kernel may name, of this sheet alone. */
  parameters: parametersSchema.default([]),
  accounts: z.array(accountSchema).default([]),
  /** Where the passwords are kept, in words; never a password. */
  secretsKept: word,
});
export type AnswersSlice = z.infer<typeof answersSlice>;
