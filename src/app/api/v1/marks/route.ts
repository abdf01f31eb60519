import { sheetMarks } from "@/server/today";
import { route } from "../../answer";
import { desk } from "../../../desk";

export const dynamic = "force-dynamic";

/** What stands in the way of some sheets, by their ids (`?ids=a,b`): stops, the first of them in words, where each hangs. */
export const GET = route(async (request: Request) => {
  const ids = new URL(request.url).searchParams.get("ids") ?? "";
  return Response.json(await sheetMarks(await desk(), ids.slice(0, 8000).split(",").filter(Boolean)));
});
