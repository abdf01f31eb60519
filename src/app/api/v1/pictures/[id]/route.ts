import { onePicture } from "@/server/machines";
import { route } from "../../../answer";
import { desk } from "../../../../desk";

export const dynamic = "force-dynamic";

export const GET = route(async (_: Request, { params }: { params: Promise<{ id: string }> }) => {
  const picture = await onePicture(await desk(), (await params).id);
  if (!picture) return new Response("This picture no longer exists.", { status: 404 });
  return new Response(new Uint8Array(picture.bytes), {
    headers: {
      "Content-Type": picture.type,
      "X-Content-Type-Options": "nosniff",
      "Content-Security-Policy": "default-src 'none'",
      "Cache-Control": "private, max-age=31536000, immutable",
    },
  });
});
