import { formatNumber } from "./numbers";
import { fail, ok, type Result } from "../result";

const DECIMAL = ["B", "kB", "MB", "GB", "TB", "PB", "EB"] as const;
const BINARY = ["B", "KiB", "MiB", "GiB", "TiB", "PiB", "EiB"] as const;

export type ByteStyle = "decimal" | "binary";

function scaled(bytes: number, base: number, names: readonly string[]): string {
  let value = bytes;
  let unit = 0;
  // 999.95 would print as "1000.0": go up a unit before that.
  while (value >= base * 0.99995 && unit < names.length - 1) {
    value /= base;
    unit += 1;
  }
  const digits = unit === 0 ? 0 : value < 10 ? 2 : value < 100 ? 1 : 0;
  return `${value.toFixed(digits)} ${names[unit]}`;
}

/** Powers of 1000, as makers sell: "480 GB". */
export const formatDecimalBytes = (bytes: number): string => scaled(bytes, 1000, DECIMAL);

/** Powers of 1024, as systems show: "447 GiB". */
export const formatBinaryBytes = (bytes: number): string => scaled(bytes, 1024, BINARY);

/** Both, because makers sell one and installers show the other: "480 GB (447 GiB)". */
export const formatBytes = (bytes: number): string =>
  bytes < 1000 ? `${bytes} B` : `${formatDecimalBytes(bytes)} (${formatBinaryBytes(bytes)})`;

/** Every byte, for comparing: "480,103,981,056 B". */
export const formatExactBytes = (bytes: number): string => `${formatNumber(bytes)} B`;

const SIZE = /^([0-9]+(?:[.,][0-9]+)?)\s*([a-z]*)$/i;

/**
 * Bytes from what a person types: "731906048", "731,906,048", "8 GB", "1.5GiB". A number without a unit is bytes;
 * a bare "G" is refused, since nobody can say which of the two it means.
 */
export function parseByteSize(text: string): Result<number> {
  const grouped = /^\d{1,3}(,\d{3})+(?!\d)/.exec(text.trim())?.[0] ?? "";
  const compact = (grouped.replaceAll(",", "") + text.trim().slice(grouped.length)).replace(
    /(?<=\d)[\s_\u202f](?=\d)/g,
    "",
  );
  const match = SIZE.exec(compact);
  if (!match)
    return fail({ message: `"${text}" is not a size; enter bytes (731906048) or a unit (8 GB, 7.45 GiB)` });
  const number = Number((match[1] ?? "").replace(",", "."));
  const unit = (match[2] ?? "").toLowerCase().replace(/^bytes?$/, "b");
  const decimal = DECIMAL.findIndex((u) => u.toLowerCase() === unit);
  const binary = BINARY.findIndex((u) => u.toLowerCase() === unit);
  const factor = unit === "" ? 1 : decimal >= 0 ? 1000 ** decimal : binary >= 0 ? 1024 ** binary : undefined;
  if (factor === undefined)
    return fail({ message: `the unit "${match[2]}" is ambiguous; use GB for 1000³ bytes or GiB for 1024³` });
  const bytes = Math.round(number * factor);
  return bytes > Number.MAX_SAFE_INTEGER
    ? fail({ message: `"${text}" is too large; the limit is 9 PB` })
    : ok(bytes);
}
