import { notFound } from "next/navigation";
import { siteFiles } from "@/server/site-files";
import { wiringView } from "@/server/sites";
import { SiteFilesSheet } from "@/ui/site/site-files";
import { previewFile, takeFile } from "../../actions";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("site", "Files");

export default async function SiteFilesPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const at = await desk();
  const [view, wiring] = await Promise.all([orDamaged(siteFiles(at, id)), orDamaged(wiringView(at, id))]);
  if (!view || !wiring) notFound();
  return (
    <SiteFilesSheet
      {...{ id }}
      name={view.site.name}
      room={view.site.room}
      files={view.files}
      machines={wiring.machines.map((m) => m.name)}
      preview={previewFile.bind(null, id)}
      take={takeFile.bind(null, id)}
    />
  );
}
