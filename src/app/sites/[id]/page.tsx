import Link from "next/link";
import { notFound } from "next/navigation";
import { siteView } from "@/server/sites";
import { SegmentStrip } from "@/ui/build/network-zone";
import { Page, Ruled } from "@/ui/frame/page";
import { TitleBlock } from "@/ui/frame/title-block";
import { SiteForm } from "@/ui/site/site-form";
import { keepSite } from "../actions";
import { orDamaged } from "../../or-damaged";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";

export default async function SitePage({ params }: { params: Promise<{ id: string }> }) {
  const view = await orDamaged(siteView(await desk(), (await params).id));
  if (!view) notFound();
  const { id, site, version, machines, plans } = view;
  return (
    <>
      <Page title={site.name} lead={site.room}>
        {plans.map(({ segment, stretches }) => {
          const s = site.segments.find((x) => x.id === segment);
          return (
            stretches.length > 0 && (
              <Ruled
                key={segment}
                title={s?.name ?? ""}
                note={`${s?.prefix}${s?.vlan ? `, VLAN ${s.vlan}` : ""}, ${s?.purpose}`}
              >
                <SegmentStrip stretches={stretches} mark={null} />
              </Ruled>
            )
          );
        })}
        <SiteForm initial={site} version={version} save={keepSite.bind(null, id)} />
      </Page>
      <TitleBlock
        cells={[
          { label: "Site", value: site.name },
          {
            label: "Machines",
            value:
              machines.length === 0
                ? "none"
                : machines.map((m, i) => (
                    <span key={m.id}>
                      {i > 0 && ", "}
                      <Link className="link" href={`/machines/${m.id}`}>
                        {m.name}
                      </Link>
                    </span>
                  )),
            grow: true,
          },
          { label: "Time zone", value: site.timeZone },
        ]}
      />
    </>
  );
}
