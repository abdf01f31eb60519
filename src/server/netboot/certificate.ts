import { createHash, X509Certificate } from "node:crypto";
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { isIP } from "node:net";
import { dirname } from "node:path";
import { generate } from "selfsigned";
import { besideDatabase } from "../beside";
import { readEnvironment } from "../environment";

// Nobody vouches for the boot service: loaders and programs believe this one certificate, or its public key, and no other.

const YEARS = 20;
const YEAR_MS = 365.25 * 86_400_000;

/** The certificate of the boot service and its private key, as PEM. */
interface Pair {
  certificate: string;
  key: string;
}

/** What a loader or a program has to know to believe the boot service. */
export interface BootTrust {
  url: string;
  certificate: string;
  /** SHA-256 of the certificate, as it is compared. */
  fingerprint: string;
  /** SHA-256 of its public key, in base64. */
  pin: string;
}

const file = (): string => besideDatabase("boot-service.pem");

function kept(): Pair | null {
  let text: string;
  try {
    text = readFileSync(file(), "utf8");
  } catch {
    return null;
  }
  const [key, certificate] = ["PRIVATE KEY", "CERTIFICATE"].map(
    (kind) =>
      new RegExp(`-----BEGIN [A-Z ]*${kind}-----[^-]+-----END [A-Z ]*${kind}-----\\n?`).exec(text)?.[0],
  );
  if (!key || !certificate)
    throw new Error(
      `${file()} has no certificate with its private key. Move it away, and a new one is created; every boot loader must then trust the new one.`,
    );
  return { key, certificate };
}

/** RSA and SHA-256, which the oldest loaders can check. */
async function made(host: string): Promise<Pair> {
  const { private: key, cert: certificate } = await generate([{ name: "commonName", value: host }], {
    ...{ keySize: 2048, algorithm: "sha256" },
    notAfterDate: new Date(Date.now() + YEARS * YEAR_MS),
    extensions: [
      { name: "basicConstraints", cA: true },
      { name: "keyUsage", keyCertSign: true, digitalSignature: true, keyEncipherment: true },
      { name: "extKeyUsage", serverAuth: true },
      { name: "subjectAltName", altNames: [isIP(host) ? { type: 7, ip: host } : { type: 2, value: host }] },
    ],
  });
  return { key, certificate };
}

/**
 * The certificate for DERRICK_BOOT_TLS_URL; made once, for its owner's eyes only. One for another address, or whose time is over,
 * is an error in words: a new one would be believed by nobody.
 */
export async function bootPair(url: string): Promise<Pair> {
  const host = new URL(url).hostname.replace(/^\[|\]$/g, "");
  const before = kept();
  const pair = before ?? (await made(host));
  const read = new X509Certificate(pair.certificate);
  const isFor = isIP(host) ? read.checkIP(host) : read.checkHost(host);
  if (!isFor || new Date(read.validTo) < new Date())
    throw new Error(
      `The certificate in ${file()} is ${isFor ? "no longer valid" : `not for ${host}`} (DERRICK_BOOT_TLS_URL). Move it away, and a new one is created; every boot loader must then trust the new one.`,
    );
  if (!before) {
    mkdirSync(dirname(file()), { recursive: true });
    writeFileSync(file(), pair.key + pair.certificate, { mode: 0o600, flag: "wx" });
  }
  return pair;
}

/** What is told to those who are to believe the boot service over HTTPS; null where it has none, or none was made yet. */
export function bootTrust(): BootTrust | null {
  const { DERRICK_BOOT_TLS_URL: url } = readEnvironment();
  const pair = url ? kept() : null;
  if (!url || !pair) return null;
  const read = new X509Certificate(pair.certificate);
  const key = read.publicKey.export({ type: "spki", format: "der" });
  return {
    ...{ url, certificate: pair.certificate, fingerprint: read.fingerprint256 },
    pin: createHash("sha256").update(key).digest("base64"),
  };
}
