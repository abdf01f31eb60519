import { profileView } from "@/server/profiles";
import { route } from "../../../../answer";
import { desk } from "../../../../../desk";

/** One edition of a profile (the newest when none is named) as the YAML that people write. */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ key: string; version: string }> }) => {
    const { key, version } = await params;
    const edition = Number(new URL(request.url).searchParams.get("edition"));
    const view = await profileView(await desk(), key, version, edition > 0 ? edition : null);
    if (!view) return new Response("OS profile not found.\n", { status: 404 });
    const name = `${view.key}-${view.version}.yaml`.replace(/[^\w.-]/g, "_");
    return new Response(view.yaml, {
      headers: {
        "Content-Type": "application/yaml; charset=utf-8",
        "Content-Disposition": `attachment; filename="${name}"`,
      },
    });
  },
);
