import { fail, ok, type Result } from "../result";

/** A public key as one line of an authorized_keys file has it (sshd(8), RFC 4253 section 6.6). */
export interface PublicKey {
  type: string;
  /** Base64 of the whole key, which names its type once more. */
  blob: string;
  /** Whose it is, as its comment says. */
  whose: string;
  /** Bits of the number of an RSA key; null for keys of another kind, which have one size. */
  bits: number | null;
}

const TYPES = [
  "ssh-ed25519",
  "ssh-rsa",
  "ecdsa-sha2-nistp256",
  "ecdsa-sha2-nistp384",
  "ecdsa-sha2-nistp521",
  "sk-ssh-ed25519@openssh.com",
  "sk-ecdsa-sha2-nistp256@openssh.com",
];
const LEAST_RSA_BITS = 2048;
/** What may stand in a comment in every file that it is written to. */
const COMMENT = /^[A-Za-z0-9@._+:,() -]*$/;

/** The strings of a key: each four bytes of length and so many bytes (RFC 4251 section 5); null when they do not fit. */
function fieldsOf(blob: string): Uint8Array[] | null {
  let bytes: Uint8Array;
  try {
    bytes = Uint8Array.from(atob(blob), (c) => c.charCodeAt(0));
  } catch {
    return null;
  }
  const view = new DataView(bytes.buffer);
  const fields: Uint8Array[] = [];
  for (let at = 0; at < bytes.length;) {
    if (at + 4 > bytes.length) return null;
    const end = at + 4 + view.getUint32(at);
    if (end > bytes.length) return null;
    fields.push(bytes.subarray(at + 4, end));
    at = end;
  }
  return fields;
}

const bitsOf = (number: Uint8Array): number => {
  const first = number.findIndex((byte) => byte !== 0);
  return first < 0 ? 0 : (number.length - first) * 8 - Math.clz32(number[first]!) + 24;
};

/** Reads the one line of a public key; a problem says what it is instead. */
export function readPublicKey(line: string): Result<PublicKey> {
  const no = (message: string): Result<PublicKey> => fail({ message });
  const text = line.trim();
  if (/PRIVATE KEY/.test(text))
    return no("this is a private key, which must stay secret: paste the line of the .pub file next to it");
  if (/[\r\n]/.test(text)) return no("these are several lines: enter one key per line");
  const [type = "", blob = "", ...rest] = text.split(/[ \t]+/);
  if (type === "ssh-dss") return no("keys of type ssh-dss are too weak, and current servers reject them");
  if (!TYPES.includes(type)) return no(`a public key begins with its type, for example ${TYPES[0]}`);
  const fields = fieldsOf(blob);
  const inner = fields?.[0] && new TextDecoder().decode(fields[0]);
  if (!fields || fields.length < 2 || inner !== type)
    return no("the key is truncated or altered: its lengths do not match");
  if (type === "ssh-ed25519" && (fields.length !== 2 || fields[1]!.length !== 32))
    return no("the key is truncated or altered: a key of this type has 32 bytes");
  const bits = type === "ssh-rsa" && fields[2] ? bitsOf(fields[2]) : null;
  if (bits !== null && bits < LEAST_RSA_BITS)
    return no(`an RSA key of ${bits} bits is too short: at least ${LEAST_RSA_BITS}`);
  const whose = rest.join(" ");
  if (!COMMENT.test(whose))
    return no(
      "its comment has characters that some files do not accept: use letters, digits and @ . _ + : , ( ) -",
    );
  return ok({ type, blob, whose, bits });
}

/** The line of a key as it is written to files. */
export const publicKeyLine = ({ type, blob, whose }: PublicKey): string =>
  [type, blob, whose].filter(Boolean).join(" ");
