import Link from "next/link";
import { notFound } from "next/navigation";
import { labelsOf } from "@/core/machine";
import { machineView } from "@/server/machines";
import { PrintButton } from "@/ui/build/settings-print";
import { Page } from "@/ui/frame/page";
import { LabelSheet } from "@/ui/machine/label-sheet";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("machine", "Labels");

export default async function LabelsPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const view = await orDamaged(machineView(await desk(), id));
  if (!view) notFound();
  const { machine } = view;
  return (
    <Page
      title={`Labels of ${machine.name}`}
      lead="Three per row on A4 and Letter, 60 mm wide: cut along the lines. One for the machine, one for each drive and each wired port."
      aside={
        <div className="no-print flex gap-2">
          <PrintButton />
          <Link className="btn" href={`/machines/${id}`}>
            Back to the machine
          </Link>
        </div>
      }
    >
      <LabelSheet labels={labelsOf(machine.name, machine.document)} />
    </Page>
  );
}
