import { notFound } from "next/navigation";
import { siteView } from "@/server/sites";
import { SITE, writtenView } from "@/server/written";
import { MachineLinks } from "@/ui/site/machine-links";
import { SiteSheet } from "@/ui/site/site-sheet";
import { keepSite, takeSiteBack } from "../actions";
import { orDamaged } from "../../or-damaged";
import { desk } from "../../desk";
import { titled } from "../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("site", "Site");

export default async function SitePage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const at = await desk();
  const view = await orDamaged(siteView(at, id));
  const given = view && (await writtenView(at, SITE, id));
  if (!view || !given) notFound();
  const { site, machines, takers, findings, doors } = view;
  return (
    <SiteSheet
      {...{ id, given, takers, findings, doors }}
      actions={{ save: keepSite.bind(null, id), takeBack: takeSiteBack.bind(null, id) }}
      cells={[
        { label: "Site", value: site.name },
        { label: "Machines", value: <MachineLinks machines={machines} />, grow: true },
      ]}
    />
  );
}
