/** A part of a file, in bytes. */
export interface Span {
  offset: number;
  length: number;
}

/** Bytes with an origin: offsets are inside these bytes. Reading outside gives zero, never an exception. */
export class Bytes {
  private readonly view: DataView;
  constructor(readonly raw: Uint8Array) {
    this.view = new DataView(raw.buffer, raw.byteOffset, raw.byteLength);
  }
  get length(): number {
    return this.raw.length;
  }
  has(offset: number, length: number): boolean {
    return offset >= 0 && length >= 0 && offset + length <= this.raw.length;
  }
  u8(offset: number): number {
    return this.has(offset, 1) ? this.view.getUint8(offset) : 0;
  }
  u16(offset: number): number {
    return this.has(offset, 2) ? this.view.getUint16(offset, true) : 0;
  }
  u32(offset: number): number {
    return this.has(offset, 4) ? this.view.getUint32(offset, true) : 0;
  }
  /** A little-endian 64-bit number; null when it is larger than can be counted exactly. */
  u64(offset: number): number | null {
    if (!this.has(offset, 8)) return null;
    const value = this.view.getBigUint64(offset, true);
    return value <= BigInt(Number.MAX_SAFE_INTEGER) ? Number(value) : null;
  }
  /** Characters of one byte each, up to the first zero, blanks at the end removed, control characters as a dot. */
  text(offset: number, length: number): string {
    const part = this.raw.subarray(Math.max(0, offset), Math.max(0, offset + length));
    const end = part.indexOf(0);
    return clean(String.fromCharCode(...(end < 0 ? part : part.subarray(0, end))));
  }
  /** UTF-16 in big-endian order, as Joliet names are. */
  utf16be(offset: number, length: number): string {
    const units = Array.from(
      { length: Math.floor(length / 2) },
      (_, i) => (this.u8(offset + 2 * i) << 8) | this.u8(offset + 2 * i + 1),
    );
    const end = units.indexOf(0);
    return clean(String.fromCharCode(...(end < 0 ? units : units.slice(0, end))));
  }
  starts(offset: number, text: string): boolean {
    return (
      this.has(offset, text.length) && [...text].every((c, i) => this.u8(offset + i) === c.charCodeAt(0))
    );
  }
  sub(offset: number, length: number): Bytes {
    return new Bytes(this.raw.subarray(Math.max(0, offset), Math.max(0, offset + length)));
  }
}

const clean = (text: string): string =>
  text.replace(/[\p{Cc}\p{Cf}\p{Cs}\p{Zl}\p{Zp}]/gu, "·").replace(/\s+$/u, "");
