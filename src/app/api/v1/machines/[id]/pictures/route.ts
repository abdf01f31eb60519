import { addPicture } from "@/server/machines";
import { respond, route } from "../../../../answer";
import { bodyBytes } from "../../../../body";
import { desk } from "../../../../../desk";

/** The browser makes a picture smaller than this before it sends it. */
const LIMIT = { bytes: 6_000_000, seconds: 120 };

/** Takes one picture of a machine: the bytes as the body, its type in the header, its caption in the query. */
export const POST = route(async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
  const bytes = await bodyBytes(request, LIMIT);
  const caption = new URL(request.url).searchParams.get("caption") ?? "";
  const type = request.headers.get("content-type") ?? "";
  return respond(await addPicture(await desk(), (await params).id, { type, caption, bytes }));
});
