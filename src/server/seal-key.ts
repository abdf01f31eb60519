import { createCipheriv, createDecipheriv, createHmac, randomBytes } from "node:crypto";
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { besideDatabase } from "./beside";
import { readEnvironment } from "./environment";

// The key lies beside the database and never in it: a copy of the one without the other opens nothing.

const BYTES = 32;
const NONCE = 12;
const TAG = 16;

const keyFile = (): string => readEnvironment().DERRICK_KEY_FILE ?? besideDatabase("derrick.key");

/** The key of this server; it is made when there is none, for its owner's eyes only. */
function sealKey(): Buffer {
  const file = keyFile();
  mkdirSync(dirname(file), { recursive: true });
  try {
    // Of two that make it at once, the second reads what the first has written.
    writeFileSync(file, `${randomBytes(BYTES).toString("hex")}\n`, { mode: 0o600, flag: "wx" });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
  }
  const key = Buffer.from(readFileSync(file, "utf8").trim(), "hex");
  if (key.length !== BYTES)
    throw new Error(
      `The key in ${file} does not have ${BYTES} bytes in hexadecimal, so nothing can be stored encrypted.`,
    );
  return key;
}

/** Seals a text for one place: taken to another place it does not open (AES-256-GCM). */
export function seal(text: string, place: string): string {
  const nonce = randomBytes(NONCE);
  const cipher = createCipheriv("aes-256-gcm", sealKey(), nonce);
  cipher.setAAD(Buffer.from(place));
  const sealed = Buffer.concat([cipher.update(text, "utf8"), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString("base64");
}

/** Opens what was sealed for a place; null where the key is another, or a byte of it. */
export function unseal(sealed: string, place: string): string | null {
  const bytes = Buffer.from(sealed, "base64");
  try {
    const cipher = createDecipheriv("aes-256-gcm", sealKey(), bytes.subarray(0, NONCE));
    cipher.setAAD(Buffer.from(place));
    cipher.setAuthTag(bytes.subarray(NONCE, NONCE + TAG));
    return Buffer.concat([cipher.update(bytes.subarray(NONCE + TAG)), cipher.final()]).toString("utf8");
  } catch {
    return null;
  }
}

/** The mark of a text: the same text has the same one, and without the key nothing can be tried against it. */
export const markOf = (text: string): string =>
  createHmac("sha256", sealKey()).update(`mark ${text}`).digest("hex");

/** The salt that browsers hash a password with before it is marked: one for this server, and no secret. */
export const markSalt = (): string =>
  createHmac("sha256", sealKey()).update("salt").digest("hex").slice(0, 16);
