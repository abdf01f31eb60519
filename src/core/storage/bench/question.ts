import { keysOf } from "../../text";
import { z } from "zod";
import { fail, ok, type Result } from "../../result";
import { SCHOOLS } from "./layout";
import { CLASS_NAMES, CLASSES } from "./classes";

export const PURPOSES = ["guests", "bulk files", "database", "backup", "boot"] as const;
export const COERCIONS = ["none", "128 MiB", "1 GiB"] as const;

/** What is asked of the bench: drives in groups of one size, and what is wished of them. It stands in the address. */
export const questionSchema = z.object({
  /** "6x12T" and the like, several parted by blanks or commas. */
  drives: z.string().max(400).default("6x12T"),
  media: z.enum(CLASS_NAMES).default("spinning"),
  sector: z.union([z.literal(512), z.literal(4096)]).default(512),
  use: z.enum(PURPOSES).default("bulk files"),
  /** Drives that may fail whichever they are. */
  survive: z.number().int().min(0).max(6).default(2),
  /** Least usable bytes; null for whatever comes out. */
  least: z.number().positive().max(1e18).nullable().default(null),
  spares: z.number().int().min(0).max(8).default(0),
  /** Bays, or drives, to leave free. */
  free: z.number().int().min(0).max(60).default(0),
  /** How full it will be, in percent; a resilver reads only that. */
  full: z.number().min(1).max(100).default(80),
  /** Hours until a failed drive is replaced where no spare stands by. */
  replace: z.number().min(0).max(8760).default(24),
  afr: z.number().gt(0).lt(1).nullable().default(null),
  /** Who is to keep the copies and the parity, where that is settled. */
  school: z.enum(["any", ...SCHOOLS]).default("any"),
  coercion: z.enum(COERCIONS).default("none"),
});
export type Question = z.infer<typeof questionSchema>;

const UNITS: Readonly<Record<string, number>> = { "": 1, K: 1e3, M: 1e6, G: 1e9, T: 1e12, P: 1e15 };
const BINARY: Readonly<Record<string, number>> = { KI: 2 ** 10, MI: 2 ** 20, GI: 2 ** 30, TI: 2 ** 40 };
const GROUP = /^(?:(\d+)x)?(\d+(?:[.]\d+)?)\s*(K|M|G|T|P|KI|MI|GI|TI)?B?$/i;

/** More drives than this are no machine. */
export const MOST_DRIVES = 1000;
const LEAST_BYTES = 1e9;
const MOST_BYTES = 1e15;

/**
 * Bytes of a drive by what makers print on it: up to 8 TB 97,696,368 sectors and 1,953,504 more for each GB above 50
 * (IDEMA LBA1-03); above that the sectors are rounded up to whole 2^21 (SFF-8447). "12T" is 12,000,138,625,024 bytes.
 */
function exactBytes(bytes: number): number {
  const gigabytes = Math.round(bytes / 1e9);
  if (gigabytes < 80 || gigabytes * 1e9 !== bytes) return bytes;
  return gigabytes <= 8000
    ? (97_696_368 + 1_953_504 * (gigabytes - 50)) * 512
    : Math.ceil(bytes / 512 / 2 ** 21) * 2 ** 21 * 512;
}

/** Reads "6x12T 2x480G": so many drives of a size; sizes in powers of ten as on the label, or of two with an i. */
export function parseDrives(text: string): Result<number[]> {
  const parts = text
    .replace(/\s*[x×*]\s*/gi, "x")
    .split(/[\s,;+]+/)
    .filter(Boolean);
  if (parts.length === 0) return fail({ message: "Enter drives as number x size, for example 6x12T." });
  const sizes: number[] = [];
  for (const part of parts) {
    const [, count = "1", amount = "", unit = ""] = GROUP.exec(part) ?? [];
    if (amount === "")
      return fail({ message: `"${part.slice(0, 40)}" is not a group of drives; enter 6x12T, or 960G.` });
    const key = unit.toUpperCase();
    const bytes =
      key in BINARY ? Number(amount) * BINARY[key]! : exactBytes(Number(amount) * (UNITS[key] ?? 1));
    if (bytes < LEAST_BYTES || bytes > MOST_BYTES)
      return fail({ message: `"${part.slice(0, 40)}": a drive size is 1 GB to 1 PB.` });
    if (Number(count) < 1 || sizes.length + Number(count) > MOST_DRIVES)
      return fail({ message: `"${part.slice(0, 40)}": the limit is ${MOST_DRIVES} drives in total.` });
    sizes.push(...Array<number>(Number(count)).fill(Math.floor(bytes)));
  }
  return ok(sizes);
}

/** The class figures of a question, with what was typed in their place. */
export const classOf = ({ media, afr }: Question) => ({ ...CLASSES[media], ...(afr !== null && { afr }) });

const DEFAULTS = questionSchema.parse({});

/** The question as the query of an address; what is usual is left away. */
export function toQuery(question: Question): string {
  const query = new URLSearchParams();
  for (const key of keysOf(question))
    if (question[key] !== DEFAULTS[key] && question[key] !== null) query.set(key, String(question[key]));
  return query.toString();
}

/** Reads such a query; what is not understood is left at its usual value. */
export function fromQuery(query: URLSearchParams): Question {
  const numeric = new Set(["sector", "survive", "least", "spares", "free", "full", "replace", "afr"]);
  let read: Record<string, unknown> = {};
  for (const [key, text] of query) {
    if (!(key in DEFAULTS)) continue;
    const next = { ...read, [key]: numeric.has(key) ? Number(text) : text };
    if (questionSchema.safeParse(next).success) read = next;
  }
  return questionSchema.parse(read);
}
