import { receiveBundle } from "@/server/collector";
import { bodyText } from "../../answer";

/** Where the collector posts its bundle, once. It answers in plain words, since a person reads it on a console. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ code: string }> },
): Promise<Response> {
  const text = await bodyText(request);
  if (text instanceof Response)
    return new Response("refused: larger than a bundle can be\n", { status: 413 });
  const answer = await receiveBundle((await params).code, text);
  if (!answer.ok) return new Response(`refused: ${answer.problems[0]?.message}\n`, { status: 422 });
  return new Response("received: look at it on the machine's sheet before it is taken over\n");
}
