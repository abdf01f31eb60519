import Link from "next/link";
import { standOf } from "@/core/sheet";
import { listBuilds } from "@/server/builds";
import { NewBuild } from "@/ui/build/new-build";
import { Page } from "@/ui/frame/page";
import { begin } from "./actions";
import { desk } from "../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Builds" };

export default async function Builds() {
  const builds = await listBuilds(await desk());
  return (
    <Page
      title="Build sheets"
      lead={builds.length === 0 ? "No sheet yet. A sheet plans one image on one machine." : undefined}
      aside={<NewBuild begin={begin.bind(null, null)} />}
    >
      {builds.length > 0 && (
        <table className="table">
          <thead>
            <tr>
              <th>Sheet</th>
              <th>Subject</th>
              <th>Machine</th>
              <th>Address</th>
              <th>Revision</th>
              <th>State</th>
            </tr>
          </thead>
          <tbody>
            {builds.map((b) => (
              <tr key={b.id}>
                <td className="value">{b.number}</td>
                <td className="font-medium">
                  <Link className="link" href={`/builds/${b.id}`}>
                    {b.subject || "(no subject)"}
                  </Link>
                </td>
                <td>{b.machine ?? "–"}</td>
                <td className="value">{b.address || "–"}</td>
                <td>{b.revision ?? "–"}</td>
                <td>
                  {b.run ? (
                    <Link
                      className="link"
                      href={b.run.endedAt ? `/runs/${b.run.id}/record` : `/runs/${b.run.id}`}
                    >
                      {standOf(b, b.run)}
                    </Link>
                  ) : (
                    standOf(b, null)
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Page>
  );
}
