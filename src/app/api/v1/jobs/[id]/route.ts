import { z } from "zod";
import { lookUp, stopJob } from "@/server/jobs";
import { Refusal, respond, route } from "../../../answer";
import { bodyJson } from "../../../body";
import { desk } from "../../../../desk";

export const dynamic = "force-dynamic";

type Given = { params: Promise<{ id: string }> };

async function there({ params }: Given) {
  const job = await lookUp((await params).id);
  if (!job) throw new Refusal(404, "Job not found. Old finished jobs are deleted.");
  return job;
}

/** Long work of the server, as it stands now. */
export const GET = route(async (_: Request, given: Given) =>
  respond({ ok: true, value: await there(given) }),
);

const schema = z.object({ stop: z.literal(true) });

/** Stops it; what is over stays as it ended. */
export const POST = route(async (request: Request, given: Given) => {
  await bodyJson(request, schema);
  const { id } = await there(given);
  await stopJob((await desk()).actor, id);
  return respond({ ok: true, value: await there(given) });
});
