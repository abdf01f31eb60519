import { listSites } from "@/server/sites";

export const dynamic = "force-dynamic";

/** Answers once the database does. */
export async function GET(): Promise<Response> {
  await listSites();
  return Response.json({ ok: true });
}
