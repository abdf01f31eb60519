import type { Answer } from "@/server/answer";

const MAX_BYTES = 24_000_000;

/** JSON for an answer of a use case: 200 or, for a refusal, 422 with the problems in words. */
export const respond = <T>(answer: Answer<T>): Response =>
  Response.json(answer, { status: answer.ok ? 200 : 422 });

const refuse = (message: string, status: number): Response =>
  Response.json({ ok: false, problems: [{ message }] }, { status });

/** Reads a body as text up to a limit, counting what really arrives; more than that is refused and dropped. */
export async function bodyText(request: Request, limit = MAX_BYTES): Promise<string | Response> {
  const tooLarge = (): Response =>
    refuse(
      `This is larger than ${Math.round(limit / 1e6)} MB, so nothing of it was read or changed. A whole bundle is under 1 MB; is this the right file?`,
      413,
    );
  if (Number(request.headers.get("content-length") ?? 0) > limit) return tooLarge();
  const reader = request.body?.getReader();
  const chunks: Uint8Array[] = [];
  let size = 0;
  while (reader) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > limit) {
      await reader.cancel();
      return tooLarge();
    }
    chunks.push(value);
  }
  return Buffer.concat(chunks).toString("utf8");
}

/** Reads a body as JSON of a shape; what does not fit is refused with the field. */
export async function bodyJson<T>(
  request: Request,
  schema: {
    safeParse(
      value: unknown,
    ):
      | { success: true; data: T }
      | { success: false; error: { issues: { path: PropertyKey[]; message: string }[] } };
  },
): Promise<{ body: T } | { refused: Response }> {
  const text = await bodyText(request);
  if (text instanceof Response) return { refused: text };
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { refused: refuse("The request is not JSON.", 400) };
  }
  const read = schema.safeParse(value);
  return read.success
    ? { body: read.data }
    : { refused: refuse(`${read.error.issues[0]?.path.join(".")}: ${read.error.issues[0]?.message}`, 400) };
}
