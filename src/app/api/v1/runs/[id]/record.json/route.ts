import { recordOf } from "@/server/runs";
import { route } from "../../../../answer";
import { desk } from "../../../../../desk";

export const dynamic = "force-dynamic";

export const GET = route(async (_: Request, { params }: { params: Promise<{ id: string }> }) => {
  const record = await recordOf(await desk(), (await params).id);
  if (!record) return new Response("Run not found.\n", { status: 404 });
  return new Response(`${JSON.stringify(record, null, 2)}\n`, {
    headers: {
      "Content-Type": "application/json",
      "Content-Disposition": `attachment; filename="${record.sheet}-rev-${record.revision}.json"`,
    },
  });
});
