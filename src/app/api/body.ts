import { NestingCount } from "@/core/text";
import { MOST_NESTING, TOO_NESTED } from "@/server/door/inside";
import { Refusal } from "./answer";

export interface Limit {
  bytes: number;
  /** The whole body must have come in after this time. */
  seconds: number;
}

const TEXT: Limit = { bytes: 24_000_000, seconds: 120 };
/** A body that stops coming for this long is given up. */
const IDLE_SECONDS = 20;
/**
 * The body in pieces, counted as they really arrive, whatever length was declared. More bytes than the limit, a body that
 * stops or takes too long, or one that ends early is refused in words, and nothing of it is used.
 */
export async function* bodyChunks(request: Request, limit: Limit): AsyncGenerator<Uint8Array> {
  const declared = request.headers.get("content-length");
  if (declared !== null && Number(declared) > limit.bytes) throw tooLarge(limit.bytes);
  const reader = request.body?.getReader();
  if (!reader) return;
  const until = Date.now() + limit.seconds * 1000;
  let size = 0;
  try {
    for (;;) {
      const { done, value } = await inTime(reader.read(), Math.min(IDLE_SECONDS * 1000, until - Date.now()));
      if (done) break;
      size += value.length;
      if (size > limit.bytes) throw tooLarge(limit.bytes);
      yield value;
    }
    if (declared !== null && size !== Number(declared))
      throw new Refusal(
        400,
        `Only ${size} of ${declared} bytes arrived, so nothing was saved. Send the file again.`,
      );
  } finally {
    void discard(reader);
  }
}

const DISCARD_SECONDS = 30;

/**
 * Lets the rest of a body go by, so that whoever sends it hears the answer: most read it only when they have sent all. A
 * sender that goes on for too long, or has stopped, is cut off.
 */
async function discard(reader: ReadableStreamDefaultReader<Uint8Array>): Promise<void> {
  const until = Date.now() + DISCARD_SECONDS * 1000;
  try {
    while (!(await inTime(reader.read(), until - Date.now())).done);
  } catch {
    void reader.cancel().catch(() => undefined);
  }
}

const tooLarge = (bytes: number): Refusal =>
  new Refusal(
    413,
    `The upload is larger than ${Math.round(bytes / 1e6)} MB. Nothing was read or changed. A bundle is usually under 1 MB: check that this is the right file.`,
  );

async function inTime<T>(work: Promise<T>, milliseconds: number): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(
      () => reject(new Refusal(408, "The upload was cut off, so nothing was saved. Send it again.")),
      Math.max(0, milliseconds),
    );
  });
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}

export async function bodyBytes(request: Request, limit: Limit): Promise<Buffer> {
  const chunks: Uint8Array[] = [];
  for await (const chunk of bodyChunks(request, limit)) chunks.push(chunk);
  return Buffer.concat(chunks);
}

export const bodyText = async (request: Request, limit: Limit = TEXT): Promise<string> =>
  (await bodyBytes(request, limit)).toString("utf8");

interface Schema<T> {
  safeParse(
    value: unknown,
  ):
    | { success: true; data: T }
    | { success: false; error: { issues: { path: PropertyKey[]; message: string }[] } };
}

/** Reads a body as JSON of a shape; what does not fit is refused with the field. */
export async function bodyJson<T>(request: Request, schema: Schema<T>): Promise<T> {
  const bytes = await bodyBytes(request, TEXT);
  if (new NestingCount(MOST_NESTING).add(bytes).exceeded) throw new Refusal(413, TOO_NESTED);
  let value: unknown;
  try {
    value = JSON.parse(bytes.toString("utf8"));
  } catch {
    throw new Refusal(400, "The request is not valid JSON.");
  }
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new Refusal(400, `${issue?.path.join(".")}: ${issue?.message}`);
}
