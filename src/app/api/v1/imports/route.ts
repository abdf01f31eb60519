import { z } from "zod";
import { dropWaiting } from "@/server/collector";
import { takeOver } from "@/server/imports";
import { respond, route } from "../../answer";
import { bodyJson } from "../../body";
import { desk } from "../../../desk";

const schema = z.object({
  machineId: z.string(),
  version: z.number().int(),
  texts: z
    .array(z.object({ name: z.string().max(300), text: z.string() }))
    .min(1)
    .max(60),
  waiting: z.string().nullable().default(null),
});

/** Takes an import over into a machine's facts. */
export const POST = route(async (request: Request) => {
  const body = await bodyJson(request, schema);
  const { machineId, version, texts, waiting } = body;
  const answer = await takeOver(await desk(), machineId, version, texts);
  if (answer.ok && waiting) await dropWaiting(await desk(), waiting);
  return respond(answer);
});
