import { textOf } from "@/core/answers";
import { answersView } from "@/server/scripts";
import { route } from "../../../../answer";
import { desk } from "../../../../../desk";

export const dynamic = "force-dynamic";

interface Params {
  params: Promise<{ id: string }>;
}

const refused = (words: string, status: number) => new Response(words, { status });

/**
 * A file that answers an installer: the first one of a sheet, or that of the name in `file`. With `of=image`, those that an
 * image of the system reads at its first start.
 */
export const GET = route(async (request: Request, { params }: Params) => {
  const { id } = await params;
  const asked = new URL(request.url).searchParams;
  const view = await answersView(await desk(), id);
  if (!view) return refused("Build sheet not found.\n", 404);
  const answer = asked.get("of") === "image" ? view.seed : view.answer;
  if (!answer) return refused("This OS family reads no file at first boot.\n", 409);
  if (answer.kind === "none") return refused(`${answer.why}\n`, 409);
  if (answer.kind === "open")
    return refused(answer.gaps.map((g) => `${g.path}: ${g.message}\n`).join(""), 409);
  const name = asked.get("file");
  const file = name === null ? answer.file : [answer.file, ...answer.also].find((f) => f.name === name);
  if (!file) return refused("The build sheet has no file with this name.\n", 404);
  return new Response(textOf(file), {
    headers: {
      "Content-Type": "text/plain; charset=utf-8",
      // It may hold hashes: no copy of it stays in a cache.
      "Cache-Control": "no-store",
      "Content-Disposition": `attachment; filename="${file.name}"`,
    },
  });
});
