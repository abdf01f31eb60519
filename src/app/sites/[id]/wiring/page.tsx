import { notFound } from "next/navigation";
import { wiringView } from "@/server/sites";
import { SITE, writtenView } from "@/server/written";
import { WiringSheet } from "@/ui/site/wiring-sheet";
import { keepSite, takeSiteBack } from "../../actions";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("site", "Switches and cables");

export default async function WiringPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const at = await desk();
  const view = await orDamaged(wiringView(at, id));
  const given = view && (await writtenView(at, SITE, id));
  if (!view || !given) notFound();
  const { site, machines, findings } = view;
  return (
    <WiringSheet
      {...{ id, given, machines, findings }}
      actions={{ save: keepSite.bind(null, id), takeBack: takeSiteBack.bind(null, id) }}
      cells={[
        { label: "Site", value: site.name },
        { label: "Room", value: site.room || "unspecified", grow: true },
      ]}
    />
  );
}
