import { collectorScript } from "@/server/collector";

export const dynamic = "force-dynamic";

export function GET(request: Request): Response {
  return new Response(collectorScript(new URL(request.url).searchParams.get("code"), "linux"), {
    headers: {
      "Content-Type": "text/x-shellscript; charset=utf-8",
      "Content-Disposition": 'attachment; filename="collect.sh"',
    },
  });
}
