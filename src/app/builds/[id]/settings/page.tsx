import Link from "next/link";
import { notFound } from "next/navigation";
import { buildView } from "@/server/builds";
import { PrintButton, SettingsPrint } from "@/ui/build/settings-print";
import { Page } from "@/ui/frame/page";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("build", "Firmware settings");

export default async function SettingsPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const view = await orDamaged(buildView(await desk(), id));
  if (!view) notFound();
  const { machine } = view.context;
  const keys = machine?.document.typed.keys;
  return (
    <Page
      title={`Firmware settings of ${machine?.name ?? "a machine (none chosen)"}`}
      lead={`${view.build.number}${view.build.sheet.subject ? `, ${view.build.sheet.subject}` : ""}${keys?.setup ? `; firmware setup key: ${keys.setup}` : ""}`}
      aside={
        <div className="no-print flex gap-2">
          <PrintButton />
          <Link className="btn" href={`/builds/${id}`}>
            Back to the build sheet
          </Link>
        </div>
      }
    >
      {view.boot ? (
        <SettingsPrint lines={view.boot.settings} />
      ) : (
        <p className="quiet">The build sheet has no machine yet, so no firmware settings are known.</p>
      )}
    </Page>
  );
}
