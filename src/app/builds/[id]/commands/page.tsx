import Link from "next/link";
import { notFound } from "next/navigation";
import { scriptsView } from "@/server/scripts";
import { SetScripts } from "@/ui/build/set-scripts";
import { Page } from "@/ui/frame/page";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Commands" };

export default async function CommandsPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const view = await orDamaged(scriptsView(await desk(), id));
  if (!view) notFound();
  return (
    <Page
      title="Commands that make the sets"
      lead={`${view.number}${view.subject ? `, ${view.subject}` : ""}. Each script reads serial and size of every drive first, and stops before it writes where one is not the planned one.`}
      aside={
        <Link className="btn" href={`/builds/${id}`}>
          Back to the sheet
        </Link>
      }
    >
      {view.isDraft && (
        <p role="note" className="mb-4 border-l-4 pl-3 border-warning">
          The sheet is not issued as it stands now. What it says may still change: issue it before anything is
          written.
        </p>
      )}
      <SetScripts build={id} scripts={view.scripts} />
    </Page>
  );
}
