import { z } from "zod";

/** A public key that opens an account: its one line as ssh-keygen writes it, and the day after which it is to go. */
export const accountKeySchema = z.object({
  line: z.string().max(8000),
  until: z.union([z.literal(""), z.iso.date()]).default(""),
});
export type AccountKey = z.infer<typeof accountKeySchema>;

/** An account by name: its secrets stay out of the plan, its public keys are none. */
export const accountSchema = z.object({
  name: z.string(),
  role: z.enum(["super-user", "administrator", "ordinary", "service"]),
  logIn: z.enum(["password", "key", "none"]),
  keys: z.array(accountKeySchema).default([]),
});
export type Account = z.infer<typeof accountSchema>;

/** The only form of a hash that is written to a file: SHA-512 of crypt(3). */
export const isHash = (text: string): boolean =>
  /^\$6\$(?:rounds=\d{4,9}\$)?[./0-9A-Za-z]{8,16}\$[./0-9A-Za-z]{86}$/.test(text);
