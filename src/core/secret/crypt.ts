import { sha512 } from "sha512-crypt-ts";

/** What a salt of crypt(3) is made of. */
const SALT = "./0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz";
const SALT_LENGTH = 16;

/** A salt of 16 characters from as many random bytes; 64 characters divide 256 evenly, so each is as likely. */
export const saltFrom = (bytes: Uint8Array): string =>
  [...bytes.subarray(0, SALT_LENGTH)].map((byte) => SALT[byte % SALT.length]).join("");

/** The hash of a password by SHA-512 of crypt(3), of its UTF-8 bytes, with 5,000 rounds. */
export function cryptOf(password: string, salt: string): string {
  // The package takes a text as bytes, one for each character.
  const bytes = Array.from(new TextEncoder().encode(password), (b) => String.fromCharCode(b)).join("");
  return sha512.crypt(bytes, salt);
}
