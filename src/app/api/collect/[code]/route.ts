import { receiveBundle } from "@/server/collector";
import { knownFailure } from "@/server/health";
import { Refusal, unknownFailure } from "../../answer";
import { bodyText } from "../../body";
import { deskOf } from "@/server/desk";

/** Where the collector posts its bundle, once. It answers in plain words, since a person reads it on a console. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ code: string }> },
): Promise<Response> {
  const refused = (why: string, status: number): Response =>
    new Response(`refused: ${why}\n`, { status, headers: { "Content-Type": "text/plain; charset=utf-8" } });
  try {
    const answer = await receiveBundle(
      await deskOf("collector"),
      (await params).code,
      await bodyText(request),
    );
    if (!answer.ok) return refused(answer.problems[0]?.message ?? "unknown format", 422);
    return new Response("received: check it on the machine's page before you apply it\n");
  } catch (error) {
    if (error instanceof Refusal) return refused(error.message, error.status);
    const known = knownFailure(error);
    if (known) return refused(known.words, known.passes ? 503 : 422);
    return refused(unknownFailure(error), 500);
  }
}
