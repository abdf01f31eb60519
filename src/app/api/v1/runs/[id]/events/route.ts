import { z } from "zod";
import type { Answer, RunView } from "@/contract";
import { no, yes } from "@/server/answer";
import { command, runView } from "@/server/runs";
import { respond, route } from "../../../../answer";
import { bodyJson } from "../../../../body";
import { desk } from "../../../../../desk";

export const dynamic = "force-dynamic";

const schema = z.object({
  key: z.string().min(8).max(80),
  command: z.unknown(),
  /** How long the browser kept it before it could be sent, in seconds. */
  ageSeconds: z.number().min(0).max(3_000_000).optional(),
});
type Params = { params: Promise<{ id: string }> };

/** The plan never changes and is large; it travels with the page only. */
const lean = (answer: Answer<RunView>): Answer<Omit<RunView, "plan">> => {
  if (!answer.ok) return answer;
  const { plan: _, ...rest } = answer.value;
  return yes(rest);
};

/** The log and what follows from it. */
export const GET = route(async (_: Request, { params }: Params) => {
  const view = await runView(await desk(), (await params).id);
  return respond(lean(view ? yes(view) : no("This run no longer exists.")));
});

/** One command under a key of its own; sending it again with the same key changes nothing. */
export const POST = route(async (request: Request, { params }: Params) => {
  const { key, command: asked, ageSeconds } = await bodyJson(request, schema);
  return respond(lean(await command(await desk(), (await params).id, key, asked, ageSeconds)));
});
