import { Bytes, type Span } from "../../binary";

/** A parser asks for a part of the file and is handed its bytes, fewer where the file ends. The driver owns the reading. */
export type Reading<T> = Generator<Span, T, Uint8Array>;

/** Nothing that is worth knowing of an image takes more than this; what asks for more is hostile or broken. */
export const READ_BUDGET = 4 * 2 ** 20;

/** One read of the file. */
export function* read(offset: number, length: number): Reading<Bytes> {
  if (offset < 0 || length <= 0 || !Number.isSafeInteger(offset)) return new Bytes(new Uint8Array(0));
  return new Bytes(yield { offset, length: Math.min(length, 2 ** 20) });
}

/** Drives a parser over bytes that are at hand; for small files, tests and the server, whose reads are synchronous. */
export function drive<T>(
  parser: Reading<T>,
  size: number,
  readAt: (span: Span) => Uint8Array,
): { value: T; bytesRead: number } {
  let bytesRead = 0;
  let step = parser.next();
  while (!step.done) {
    const span = clip(step.value, size, READ_BUDGET - bytesRead);
    const bytes = span.length > 0 ? readAt(span) : new Uint8Array(0);
    bytesRead += bytes.length;
    step = parser.next(bytes);
  }
  return { value: step.value, bytesRead };
}

/** The same where reading takes time, as in a browser. */
export function driveLater<T>(
  parser: Reading<T>,
  size: number,
  readAt: (span: Span) => Promise<Uint8Array>,
): Promise<{ value: T; bytesRead: number }> {
  let bytesRead = 0;
  const go = (step: IteratorResult<Span, T>): Promise<{ value: T; bytesRead: number }> => {
    if (step.done) return Promise.resolve({ value: step.value, bytesRead });
    const span = clip(step.value, size, READ_BUDGET - bytesRead);
    const bytes = span.length > 0 ? readAt(span) : Promise.resolve(new Uint8Array(0));
    return bytes.then((got) => {
      bytesRead += got.length;
      return go(parser.next(got));
    });
  };
  return go(parser.next());
}

const clip = ({ offset, length }: Span, size: number, budget: number): Span => ({
  offset,
  length: Math.max(0, Math.min(length, size - offset, budget)),
});
