import { z } from "zod";
import { dropWaiting } from "@/server/collector";
import { takeOver } from "@/server/imports";
import { currentHand } from "../../../hand";
import { bodyJson, respond } from "../../answer";

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
export async function POST(request: Request): Promise<Response> {
  const read = await bodyJson(request, schema);
  if ("refused" in read) return read.refused;
  const { machineId, version, texts, waiting } = read.body;
  const answer = await takeOver(machineId, version, texts, await currentHand());
  if (answer.ok && waiting) await dropWaiting(waiting);
  return respond(answer);
}
