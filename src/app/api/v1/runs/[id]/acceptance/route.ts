import { z } from "zod";
import { accept, previewAcceptance } from "@/server/runs";
import { respond, route } from "../../../../answer";
import { bodyJson } from "../../../../body";
import { desk } from "../../../../../desk";

const schema = z.object({
  texts: z
    .array(z.object({ name: z.string().max(300), text: z.string() }))
    .min(1)
    .max(60),
  accept: z.boolean().default(false),
  key: z.string().min(8).max(80).optional(),
});

/** Compares texts from the installed system with the plan; with `accept` the comparison is put on the log. */
export const POST = route(async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
  const body = await bodyJson(request, schema);
  const { id } = await params;
  const { texts, key } = body;
  if (!body.accept) return respond(await previewAcceptance(await desk(), id, texts));
  return respond(await accept(await desk(), id, key ?? crypto.randomUUID(), texts));
});
