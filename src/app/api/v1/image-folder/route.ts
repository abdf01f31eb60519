import { imageFolder } from "@/server/image-folder";

export const dynamic = "force-dynamic";

/** What lies in the server's image folder, and how far each computation is. */
export async function GET(): Promise<Response> {
  const folder = await imageFolder();
  return Response.json(folder ?? { ok: true, value: [] });
}
