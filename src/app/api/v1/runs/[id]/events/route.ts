import { z } from "zod";
import { no, yes, type Answer } from "@/server/answer";
import { command, runView, type RunView } from "@/server/runs";
import { currentHand } from "../../../../../hand";
import { bodyJson, respond } from "../../../../answer";

export const dynamic = "force-dynamic";

const schema = z.object({ key: z.string().min(8).max(80), command: z.unknown() });
type Params = { params: Promise<{ id: string }> };

/** The plan never changes and is large; it travels with the page only. */
const lean = (answer: Answer<RunView>): Answer<Omit<RunView, "plan">> => {
  if (!answer.ok) return answer;
  const { plan: _, ...rest } = answer.value;
  return yes(rest);
};

/** The log and what follows from it. */
export async function GET(_: Request, { params }: Params): Promise<Response> {
  const view = await runView((await params).id);
  return respond(lean(view ? yes(view) : no("This run is no longer there.")));
}

/** One command under a key of its own; sending it again with the same key changes nothing. */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  const read = await bodyJson(request, schema);
  return "refused" in read
    ? read.refused
    : respond(lean(await command((await params).id, read.body.key, read.body.command, await currentHand())));
}
