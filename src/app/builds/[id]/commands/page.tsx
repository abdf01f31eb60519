import Link from "next/link";
import { notFound } from "next/navigation";
import { scriptsView } from "@/server/scripts";
import { SetScripts } from "@/ui/build/set-scripts";
import { Page } from "@/ui/frame/page";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("build", "Commands");

export default async function CommandsPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const view = await orDamaged(scriptsView(await desk(), id));
  if (!view) notFound();
  return (
    <Page
      title="Commands that create the pools and arrays"
      lead={`${view.number}${view.subject ? `, ${view.subject}` : ""}. Each script first compares serial number and size of every drive with the plan, and stops before it writes if one does not match.`}
      aside={
        <Link className="btn" href={`/builds/${id}`}>
          Back to the build sheet
        </Link>
      }
    >
      {view.isDraft && (
        <p role="note" className="mb-4 border-l-4 pl-3 border-warning">
          The current state of the build sheet is not issued and can still change. Issue it before you run a
          script.
        </p>
      )}
      <SetScripts build={id} scripts={view.scripts} />
    </Page>
  );
}
