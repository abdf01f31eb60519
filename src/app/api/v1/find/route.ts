import { find } from "@/server/find";
import { route } from "../../answer";
import { desk } from "../../../desk";

export const dynamic = "force-dynamic";

export const GET = route(async (request: Request) => {
  const { searchParams } = new URL(request.url);
  return Response.json(
    await find(await desk(), (searchParams.get("q") ?? "").slice(0, 200), searchParams.get("build") || null),
  );
});
