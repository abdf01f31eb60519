import { dayIn } from "@/core/units";
import { importAll, importArchive } from "@/server/exports";
import { writeArchive } from "@/server/archive/write";
import { withTemporaryFile } from "@/server/archive/temporary";
import { respond, route } from "../../answer";
import { bodyChunks, bodyText } from "../../body";
import { desk } from "../../../desk";

export const dynamic = "force-dynamic";

/** The older form is one JSON text, which is read as a whole. */
const TEXT = { bytes: 200_000_000, seconds: 600 };
/** An archive is as large as the pictures in it; it goes to the disk as it comes, and six hours are enough for a slow line. */
const ARCHIVE = { bytes: Number.MAX_SAFE_INTEGER, seconds: 6 * 3600 };

/** The whole installation as one archive, written while it is read. */
export const GET = route(async () => {
  const { exportedAt, stream } = await writeArchive(await desk());
  return new Response(stream, {
    headers: {
      "Content-Type": "application/gzip",
      "Content-Disposition": `attachment; filename="derrick-${dayIn(exportedAt, "UTC")}.tar.gz"`,
      "Cache-Control": "no-store",
    },
  });
});

/** Reads an archive into an empty installation. `?rebase=1` moves its times to now, as the demo does. */
export const POST = route(async (request: Request) => {
  const options = { rebase: new URL(request.url).searchParams.get("rebase") === "1" };
  if (request.headers.get("content-type")?.startsWith("application/json"))
    return respond(await importAll(await desk(), await bodyText(request, TEXT), options));
  return withTemporaryFile(await desk(), bodyChunks(request, ARCHIVE), async (path) =>
    respond(await importArchive(await desk(), path, options)),
  );
});
