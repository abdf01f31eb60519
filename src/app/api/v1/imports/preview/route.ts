import { z } from "zod";
import { previewImport } from "@/server/imports";
import { bodyJson, respond } from "../../../answer";

const schema = z.object({
  machineId: z.string().nullable(),
  texts: z
    .array(z.object({ name: z.string().max(300), text: z.string() }))
    .min(1)
    .max(60),
});

/** What dropped texts would change; nothing is changed. */
export async function POST(request: Request): Promise<Response> {
  const read = await bodyJson(request, schema);
  return "refused" in read
    ? read.refused
    : respond(await previewImport(read.body.machineId, read.body.texts));
}
