import { find } from "@/server/find";

export const dynamic = "force-dynamic";

export async function GET(request: Request): Promise<Response> {
  const { searchParams } = new URL(request.url);
  return Response.json(
    await find((searchParams.get("q") ?? "").slice(0, 200), searchParams.get("build") || null),
  );
}
