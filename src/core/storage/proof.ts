import { serialTail, type Drive } from "../machine";
import { madeName } from "./sets/made-id";

/**
 * What names a drive beyond doubt, as a person reads it from a console: the end of its serial, its size in bytes, or of one
 * that a controller makes first the name that it was given there.
 */
export interface Proof {
  kind: "serial" | "size" | "name";
  text: string;
}

/** Tails shorter than this are read by chance. */
const LEAST_TAIL = 6;

/** Blanks, dots and commas differ from console to console, and so does the case of letters. */
const plain = (text: string): string => text.replace(/[\s.,\u202f]/g, "").toUpperCase();
const identity = (drive: Pick<Drive, "serial" | "wwn">): string => plain(drive.serial ?? drive.wwn ?? "");

/**
 * The shortest tail, of six characters or more, that ends the serial of this drive and of no other one in the machine;
 * of a drive that reports neither serial nor WWN its size in bytes; of a virtual drive that is to be made its name.
 */
export function proofOf(drive: Drive, machine: readonly Drive[]): Proof {
  const own = identity(drive);
  const name = madeName(drive);
  if (name !== null) return { kind: "name", text: name };
  if (serialTail(drive) === "") return { kind: "size", text: String(drive.sizeBytes) };
  const others = machine.filter((d) => d.id !== drive.id).map(identity);
  let length = LEAST_TAIL;
  while (length < own.length && others.some((o) => o.endsWith(own.slice(-length)))) length += 1;
  return { kind: "serial", text: own.slice(-length) };
}

/** Whether what was typed names the drive: it ends in the proof, so a whole serial that was read aloud is right too. */
export const proves = (typed: string, proof: Pick<Proof, "text">): boolean =>
  proof.text !== "" && plain(typed).endsWith(plain(proof.text));

/** What is asked of the person, without a character of the answer. */
export const proofWords = ({ kind, text }: Proof, reader: string): string =>
  kind === "name"
    ? `the name of the virtual drive, ${reader}`
    : kind === "serial"
      ? `the last ${text.length} characters of the serial number, ${reader}`
      : `the size in bytes, ${reader} (the drive reports no serial number)`;
