import { z } from "zod";
import { DAMAGED_KINDS, damagedText } from "@/server/damaged";
import { Refusal, route } from "../../../../answer";
import { desk } from "../../../../../desk";

export const dynamic = "force-dynamic";

/** The text of one document as it stands in the database, whether it reads or not. */
export const GET = route(
  async (_: Request, { params }: { params: Promise<{ kind: string; id: string }> }) => {
    const { kind, id } = await params;
    const read = z.enum(DAMAGED_KINDS).safeParse(kind);
    const text = read.success ? await damagedText(await desk(), read.data, id) : null;
    if (text === null) throw new Refusal(404, "Document not found.");
    return new Response(`${text}\n`, {
      headers: {
        "Content-Type": "application/json; charset=utf-8",
        "Content-Disposition": `attachment; filename="${`${kind}-${id}`.replace(/[^\w.-]/g, "_")}.json"`,
      },
    });
  },
);
