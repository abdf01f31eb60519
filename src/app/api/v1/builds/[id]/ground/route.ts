import { groundOf } from "@/server/builds";
import { route } from "../../../../answer";
import { desk } from "../../../../../desk";

export const dynamic = "force-dynamic";

/** What a sheet is judged by, for the page that shows it. */
export const GET = route(async (_request: Request, { params }: { params: Promise<{ id: string }> }) => {
  const ground = await groundOf(await desk(), (await params).id);
  return ground ? Response.json(ground) : new Response("Build sheet not found.", { status: 404 });
});
