import { handsCalls } from "@/server/today";
import { route } from "../../answer";
import { desk } from "../../../desk";

export const dynamic = "force-dynamic";

/** When each running build needs hands next. */
export const GET = route(async () => {
  return Response.json(await handsCalls(await desk()));
});
