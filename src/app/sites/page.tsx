import Link from "next/link";
import { takesArchive } from "@/server/exports";
import { listSites } from "@/server/sites";
import { Page, Ruled } from "@/ui/frame/page";
import { ArchiveWell } from "@/ui/site/archive-well";
import { NameForm } from "@/ui/site/name-form";
import { addSite } from "./actions";
import { desk } from "../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Sites" };

export default async function Sites() {
  const sites = await listSites(await desk());
  return (
    <Page
      title="Sites"
      lead="A location with machines: its networks, default values, and the link that consoles use."
    >
      <table className="table mb-6">
        <thead>
          <tr>
            <th>Site</th>
            <th>Room</th>
            <th>Domain</th>
            <th>Networks</th>
            <th>Machines</th>
          </tr>
        </thead>
        <tbody>
          {sites.map(({ id, site, machines }) => (
            <tr key={id}>
              <td className="font-medium">
                <Link className="link" href={`/sites/${id}`}>
                  {site.name}
                </Link>
              </td>
              <td>{site.room}</td>
              <td className="value">{site.domain}</td>
              <td className="value">{site.segments.map((s) => s.prefix).join(", ")}</td>
              <td>{machines}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {sites.length === 0 && (
        <p className="quiet mb-4">No site yet. For a single small server, a name is enough.</p>
      )}
      <NameForm label="New site" action="Add this site" target="/sites/" create={addSite} />
      <div className="mt-10">
        <Ruled title="Whole installation">
          <ArchiveWell empty={await takesArchive(await desk())} />
        </Ruled>
      </div>
    </Page>
  );
}
