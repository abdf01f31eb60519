import { scriptsView } from "@/server/scripts";
import { route } from "../../../../../answer";
import { desk } from "../../../../../../desk";

export const dynamic = "force-dynamic";

interface Params {
  params: Promise<{ id: string; set: string }>;
}

/** The script that makes one planned set. */
export const GET = route(async (_request: Request, { params }: Params) => {
  const { id, set } = await params;
  const script = (await scriptsView(await desk(), id))?.scripts.find((s) => s.id === set);
  if (!script)
    return new Response("Build sheet not found, or it has no pool or array with this name.\n", {
      status: 404,
    });
  if (script.text === null) return new Response(`${script.why}\n`, { status: 409 });
  return new Response(script.text, {
    headers: {
      "Content-Type": "text/x-shellscript; charset=utf-8",
      "Content-Disposition": `attachment; filename="${script.file}"`,
    },
  });
});
