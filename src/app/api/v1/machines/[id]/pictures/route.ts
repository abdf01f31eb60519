import { no } from "@/server/answer";
import { addPicture } from "@/server/machines";
import { currentHand } from "../../../../../hand";
import { respond } from "../../../../answer";

const MOST = 8_000_000;

/** Takes one picture of a machine: the bytes as the body, its type in the header, its caption in the query. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  if (Number(request.headers.get("content-length") ?? 0) > MOST)
    return respond(no("A picture has at most 6 MB. Make it smaller first."));
  const bytes = Buffer.from(await request.arrayBuffer());
  const caption = new URL(request.url).searchParams.get("caption") ?? "";
  const type = request.headers.get("content-type") ?? "";
  return respond(await addPicture((await params).id, { type, caption, bytes }, await currentHand()));
}
