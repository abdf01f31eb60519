import { health } from "@/server/health";

export const dynamic = "force-dynamic";

/** 200 while the database can be read; otherwise 503 with the reason in words, which the pages show. */
export async function GET(): Promise<Response> {
  const answer = await health();
  return Response.json(answer, { status: answer.ok ? 200 : 503 });
}
