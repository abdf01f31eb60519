import { fromBER, ObjectIdentifier, type BaseBlock } from "asn1js";
import type { Bytes, Span } from "../../binary";
import type { Reading } from "./reader";

/** Whether an EFI program carries a signature, and in whose name; the name is read, the signature itself is not verified. */
export interface Signature {
  signed: boolean;
  /** Common name of the certificate that signed; null where it cannot be read. */
  signer: string | null;
}

/** Index of the certificate table among the data directories of the optional header (PE/COFF, 3.4.3). */
const CERTIFICATE_TABLE = 4;
const DIRECTORIES: Record<number, number> = { 0x10b: 96, 0x20b: 112 };
/** A signature with its chain has some kilobytes; longer ones are hostile. */
const MOST_BYTES = 65_536;
const PKCS_SIGNED_DATA = 2;

/** Where the certificate table stands in the file; null for "not signed", undefined where the header makes no sense. */
export function certificateTable(head: Bytes): Span | null | undefined {
  const pe = head.u32(60);
  if (!head.starts(0, "MZ") || !head.starts(pe, "PE\0\0")) return undefined;
  const optional = pe + 24;
  const first = DIRECTORIES[head.u16(optional)];
  if (first === undefined) return undefined;
  const entry = optional + first + CERTIFICATE_TABLE * 8;
  if (!head.has(entry, 8)) return undefined;
  const count = head.u32(optional + first - 4);
  const [offset, length] = [head.u32(entry), head.u32(entry + 4)];
  return count <= CERTIFICATE_TABLE || length === 0 ? null : { offset, length };
}

/** Reads whether a program is signed: `head` are its first bytes, `part` reads any other part of it. */
export function* readSignature(head: Bytes, part: (span: Span) => Reading<Bytes>): Reading<Signature | null> {
  const table = certificateTable(head);
  if (table === undefined) return null;
  if (table === null) return { signed: false, signer: null };
  // WIN_CERTIFICATE: length, revision, type, then the signature itself.
  const bytes = yield* part({ offset: table.offset, length: Math.min(table.length, MOST_BYTES) });
  if (bytes.length < 8) return null;
  const isPkcs = bytes.u16(6) === PKCS_SIGNED_DATA;
  return { signed: true, signer: isPkcs ? signerOf(bytes.raw.subarray(8, bytes.u32(0))) : null };
}

/** What stands in a block, by the kind of block that it is. */
const inside = (block: BaseBlock | undefined, key: "value" | "valueHexView"): unknown =>
  block && Reflect.get(block.valueBlock, key);

const partsOf = (block: BaseBlock | undefined): BaseBlock[] => {
  const value = inside(block, "value");
  return Array.isArray(value) ? value : [];
};
const CONTEXT = 3;
const tagged = (parts: readonly BaseBlock[], tag: number): BaseBlock | undefined =>
  parts.find((p) => p.idBlock.tagClass === CONTEXT && p.idBlock.tagNumber === tag);
const hex = (block: BaseBlock | undefined): string => {
  const bytes = inside(block, "valueHexView");
  return bytes instanceof Uint8Array
    ? Array.from(bytes, (b) => b.toString(16).padStart(2, "0")).join("")
    : "";
};

const COMMON_NAME = "2.5.4.3";

/** The common name of whoever signed (CMS SignedData, RFC 5652, 5.1 and 5.3): the certificate whose number the signer names. */
function signerOf(der: Uint8Array): string | null {
  let root: BaseBlock;
  try {
    const read = fromBER(der.slice());
    if (read.offset === -1) return null;
    root = read.result;
  } catch {
    return null;
  }
  const signedData = partsOf(partsOf(tagged(partsOf(root), 0))[0]);
  const certificates = partsOf(tagged(signedData, 0));
  const signer = partsOf(partsOf(signedData.at(-1))[0]);
  const number = hex(partsOf(signer[1])[1]);
  const bodies = certificates.map((c) => {
    const body = partsOf(partsOf(c)[0]);
    // The version stands first, and only where it is not 1.
    return tagged(body, 0) ? body.slice(1) : body;
  });
  const own = bodies.find((body) => number !== "" && hex(body[0]) === number);
  return own ? commonName(own[4]) : null;
}

function commonName(name: BaseBlock | undefined): string | null {
  const pairs = partsOf(name).flatMap(partsOf).map(partsOf);
  const found = pairs.find(([oid]) => oid instanceof ObjectIdentifier && oid.getValue() === COMMON_NAME)?.[1];
  const text = inside(found, "value");
  return typeof text === "string" && text !== ""
    ? text.replace(/[\p{Cc}\p{Cf}\p{Cs}\p{Zl}\p{Zp}]/gu, "·").slice(0, 120)
    : null;
}
