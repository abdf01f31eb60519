import { notFound } from "next/navigation";
import { fieldNames } from "@/core/sheet";
import { buildView, machineChoices } from "@/server/builds";
import { nothingWasBuilt } from "@/server/first-day";
import { BuildSheet } from "@/ui/build/build-sheet";
import { currentHand } from "../../hand";
import { keepDigest, keepFile } from "../../images/actions";
import { agree, issue, like, look, save, setAside, start, takeBack } from "../actions";
import { orDamaged } from "../../or-damaged";
import { desk } from "../../desk";
import { titled } from "../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("build", "Build sheet");

export default async function BuildPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [view, machines, isFirst] = await Promise.all([
    orDamaged(buildView(await desk(), id)),
    machineChoices(await desk()),
    nothingWasBuilt(await desk()),
  ]);
  if (!view) notFound();
  return (
    <BuildSheet
      key={`${view.build.id}-${view.build.revision}`}
      initial={view}
      machines={machines}
      names={fieldNames()}
      actions={{ look, save, like, waive: setAside, agree, undo: takeBack, issue, start }}
      images={{ keepFile, keepDigest }}
      isFirst={isFirst}
      hand={await currentHand()}
    />
  );
}
