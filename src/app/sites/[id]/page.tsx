import Link from "next/link";
import { notFound } from "next/navigation";
import { prefixWords, type SegmentStretch } from "@/core/network";
import { siteView } from "@/server/sites";
import { SITE, writtenView } from "@/server/written";
import { SegmentStrip } from "@/ui/build/network-zone";
import { Ruled } from "@/ui/frame/page";
import { SiteSheet } from "@/ui/site/site-sheet";
import { keepSite, takeSiteBack } from "../actions";
import { orDamaged } from "../../or-damaged";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";

export default async function SitePage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const at = await desk();
  const view = await orDamaged(siteView(at, id));
  const given = view && (await writtenView(at, SITE, id));
  if (!view || !given) notFound();
  const { site, machines, plans } = view;
  return (
    <SiteSheet
      {...{ id, given }}
      actions={{ save: keepSite.bind(null, id), takeBack: takeSiteBack.bind(null, id) }}
      cells={[
        { label: "Site", value: site.name },
        { label: "Machines", value: <Machines machines={machines} />, grow: true },
      ]}
    >
      {plans.map(({ segment, stretches }) => {
        const s = site.segments.find((x) => x.id === segment);
        return (
          s && (
            <Ruled
              key={segment}
              title={s.name}
              note={`${s.prefix}${s.vlan ? `, VLAN ${s.vlan}` : ""}, ${s.purpose}`}
            >
              <p className="quiet mb-2">
                {prefixWords(s.prefix)}
                {stretches.length > 0 ? `, ${freeIn(stretches)} free` : ": too many to be drawn one by one"}
              </p>
              {stretches.length > 0 && <SegmentStrip stretches={stretches} mark={null} />}
            </Ruled>
          )
        );
      })}
    </SiteSheet>
  );
}

const freeIn = (stretches: readonly SegmentStretch[]): number =>
  stretches.filter((s) => s.use === "free").reduce((sum, s) => sum + s.count, 0);

const Machines = ({ machines }: { machines: { id: string; name: string }[] }) =>
  machines.length === 0
    ? "none"
    : machines.map((m, i) => (
        <span key={m.id}>
          {i > 0 && ", "}
          <Link className="link" href={`/machines/${m.id}`}>
            {m.name}
          </Link>
        </span>
      ));
