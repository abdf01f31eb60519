import type { Answer } from "@/contract";
import { knownFailure } from "@/server/health";

/** A request that cannot be answered, with the reason in words. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** JSON for an answer of a use case: 200 or, for a refusal, 422 with the problems in words. */
export const respond = <T>(answer: Answer<T>): Response =>
  Response.json(answer, { status: answer.ok ? 200 : 422 });

const refuse = (message: string, status: number): Response =>
  Response.json({ ok: false, problems: [{ message }] }, { status });

/** A failure that nobody foresaw: its words for the person, and all of it in the log of the server. */
export function unknownFailure(error: unknown): string {
  console.error(error);
  return "Derrick failed with an unexpected error. It is unknown whether your change was saved: load the page again and check before you repeat it. The server log has the cause.";
}

/**
 * The one shape of route handlers: what is refused on the way is answered in words, and a database that cannot answer now
 * is a 503 with its reason, which whoever asked may try again.
 */
export const route =
  <Rest extends unknown[]>(handler: (request: Request, ...rest: Rest) => Response | Promise<Response>) =>
  async (request: Request, ...rest: Rest): Promise<Response> => {
    try {
      return await handler(request, ...rest);
    } catch (error) {
      if (error instanceof Refusal) return refuse(error.message, error.status);
      const known = knownFailure(error);
      if (known) return refuse(known.words, known.passes ? 503 : 422);
      return refuse(unknownFailure(error), 500);
    }
  };
