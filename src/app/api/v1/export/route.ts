import { exportAll, importAll } from "@/server/exports";
import { bodyText, respond } from "../../answer";

export const dynamic = "force-dynamic";

const LIMIT = 200_000_000;

/** The whole installation as one open file. */
export async function GET(): Promise<Response> {
  const file = await exportAll();
  return new Response(JSON.stringify(file, null, 1), {
    headers: {
      "Content-Type": "application/json",
      "Content-Disposition": `attachment; filename="derrick-${file.exportedAt.slice(0, 10)}.json"`,
    },
  });
}

/** Reads an export into an empty installation. `?rebase=1` moves its times to now, as the demo does. */
export async function POST(request: Request): Promise<Response> {
  const text = await bodyText(request, LIMIT);
  if (text instanceof Response) return text;
  return respond(await importAll(text, { rebase: new URL(request.url).searchParams.get("rebase") === "1" }));
}
