import { imageFolder } from "@/server/image-folder";
import { route } from "../../answer";
import { desk } from "../../../desk";

export const dynamic = "force-dynamic";

/** What lies in the server's image folder, and how far each computation is. */
export const GET = route(async () => {
  const folder = await imageFolder(await desk());
  return Response.json(folder ?? { ok: true, value: [] });
});
