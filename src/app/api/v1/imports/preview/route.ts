import { z } from "zod";
import { previewImport } from "@/server/imports";
import { respond, route } from "../../../answer";
import { bodyJson } from "../../../body";
import { desk } from "../../../../desk";

const schema = z.object({
  machineId: z.string().nullable(),
  texts: z
    .array(z.object({ name: z.string().max(300), text: z.string() }))
    .min(1)
    .max(60),
});

/** What dropped texts would change; nothing is changed. */
export const POST = route(async (request: Request) => {
  const body = await bodyJson(request, schema);
  return respond(await previewImport(await desk(), body.machineId, body.texts));
});
