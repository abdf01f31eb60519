import { handsCalls } from "@/server/today";

export const dynamic = "force-dynamic";

/** When each running build needs hands next. */
export async function GET(): Promise<Response> {
  return Response.json(await handsCalls());
}
