import { textOf } from "@/core/answers";
import { answersView } from "@/server/scripts";
import { route } from "../../../../answer";
import { desk } from "../../../../../desk";

export const dynamic = "force-dynamic";

interface Params {
  params: Promise<{ id: string }>;
}

/** The answer file of a sheet. */
export const GET = route(async (_request: Request, { params }: Params) => {
  const { id } = await params;
  const answer = (await answersView(await desk(), id))?.answer;
  if (!answer) return new Response("There is no such sheet.\n", { status: 404 });
  if (answer.kind === "none") return new Response(`${answer.why}\n`, { status: 409 });
  if (answer.kind === "open")
    return new Response(answer.gaps.map((g) => `${g.path}: ${g.message}\n`).join(""), { status: 409 });
  return new Response(textOf(answer.file), {
    headers: {
      "Content-Type": "text/plain; charset=utf-8",
      // It may hold hashes: no copy of it stays in a cache.
      "Cache-Control": "no-store",
      "Content-Disposition": `attachment; filename="${answer.file.name}"`,
    },
  });
});
