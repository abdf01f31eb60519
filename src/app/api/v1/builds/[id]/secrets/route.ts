import { z } from "zod";
import { forgetSecret, sealSecret, secretsView } from "@/server/seals";
import { Refusal, respond, route } from "../../../../answer";
import { bodyJson } from "../../../../body";
import { desk } from "../../../../../desk";

export const dynamic = "force-dynamic";

interface Params {
  params: Promise<{ id: string }>;
}

/** What is known of the passwords of a build, and the salt to hash them with. */
export const GET = route(async (_request: Request, { params }: Params) => {
  const view = await secretsView(await desk(), (await params).id);
  if (!view) throw new Refusal(404, "Build sheet not found.");
  return respond({ ok: true, value: view });
});

const opens = z.string().trim().min(1).max(80);
const schema = z.union([
  z.object({ opens, hash: z.string().max(200).nullable(), toMark: z.string().max(200) }).strict(),
  z.object({ forget: opens }).strict(),
]);

/** Seals what the browser has hashed, or forgets it. A body with anything else, such as the password itself, is refused. */
export const POST = route(async (request: Request, { params }: Params) => {
  const { id } = await params;
  const asked = await bodyJson(request, schema);
  const here = await desk();
  return respond(
    "forget" in asked ? await forgetSecret(here, id, asked.forget) : await sealSecret(here, id, asked),
  );
});
