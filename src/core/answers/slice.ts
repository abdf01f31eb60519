import { z } from "zod";
import { accountSchema } from "../identity";

const word = z.string().max(400).default("");

/** What the installer asks: names, keyboard, language, time zone, accounts. */
export const answersSlice = z.object({
  hostName: word,
  domain: word,
  keyboard: word,
  locale: word,
  timeZone: word,
  accounts: z.array(accountSchema).default([]),
  /** Where the passwords are kept, in words; never a password. */
  secretsKept: word,
});
export type AnswersSlice = z.infer<typeof answersSlice>;
