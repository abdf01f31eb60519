import Link from "next/link";
import { standOf, wayTo } from "@/core/sheet";
import type { RunningRow } from "@/core/run";
import { formatDateTime } from "@/core/units";
import { listBuilds } from "@/server/builds";
import { running } from "@/server/today";
import { BuildList, type BuildLine } from "@/ui/build/build-list";
import { NewBuild } from "@/ui/build/new-build";
import { Page } from "@/ui/frame/page";
import { begin } from "./actions";
import { desk } from "../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Builds" };

const handsWords = (run: RunningRow | undefined): string =>
  !run
    ? ""
    : run.hands
      ? `${formatDateTime(run.hands.at, run.timeZone)}: ${run.hands.what}`
      : `${run.status}, ${run.step}`;

export default async function Builds() {
  const own = await desk();
  const [builds, runs] = await Promise.all([listBuilds(own), running(own)]);
  const open = new Map(runs.map((r) => [r.id, r]));
  const lines = builds.map(
    ({ id, number, subject, machine, address, revision, run, updatedAt }): BuildLine => ({
      ...{ id, number, subject, address, machine: machine ?? "", revision: revision ?? "" },
      stand: standOf({ revision }, run),
      href: run?.endedAt ? `/runs/${run.id}/record` : wayTo(id, run),
      hands: run ? handsWords(open.get(run.id)) : "",
      at: run?.endedAt ?? updatedAt,
    }),
  );
  return (
    <Page
      title="Build sheets"
      lead={
        lines.length === 0
          ? "No build sheet yet. A build sheet plans one installation: one image on one machine."
          : undefined
      }
      aside={
        <div className="flex gap-2">
          {lines.length > 0 && (
            <Link className="btn" href="/builds/intake">
              Missing answers
            </Link>
          )}
          {lines.length > 0 && (
            <Link className="btn" href="/builds/netboot">
              Network installations
            </Link>
          )}
          <NewBuild begin={begin.bind(null, null)} />
        </div>
      }
    >
      {lines.length > 0 && <BuildList builds={lines} />}
    </Page>
  );
}
