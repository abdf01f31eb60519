import { exportAll, importAll } from "@/server/exports";
import { respond, route } from "../../answer";
import { bodyText } from "../../body";

export const dynamic = "force-dynamic";

const LIMIT = { bytes: 200_000_000, seconds: 600 };

/** The whole installation as one open file. */
export const GET = route(async () => {
  const file = await exportAll();
  return new Response(JSON.stringify(file, null, 1), {
    headers: {
      "Content-Type": "application/json",
      "Content-Disposition": `attachment; filename="derrick-${file.exportedAt.slice(0, 10)}.json"`,
    },
  });
});

/** Reads an export into an empty installation. `?rebase=1` moves its times to now, as the demo does. */
export const POST = route(async (request: Request) => {
  const text = await bodyText(request, LIMIT);
  return respond(await importAll(text, { rebase: new URL(request.url).searchParams.get("rebase") === "1" }));
});
