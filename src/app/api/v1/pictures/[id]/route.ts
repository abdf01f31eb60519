import { onePicture } from "@/server/machines";

export const dynamic = "force-dynamic";

export async function GET(
  _request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const picture = await onePicture((await params).id);
  if (!picture) return new Response("This picture is no longer there.", { status: 404 });
  return new Response(new Uint8Array(picture.bytes), {
    headers: {
      "Content-Type": picture.type,
      "X-Content-Type-Options": "nosniff",
      "Content-Security-Policy": "default-src 'none'",
      "Cache-Control": "private, max-age=31536000, immutable",
    },
  });
}
