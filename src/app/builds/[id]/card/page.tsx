import Link from "next/link";
import { notFound } from "next/navigation";
import { answerCard } from "@/core/answers";
import { formatDuration } from "@/core/units";
import { buildView } from "@/server/builds";
import { AnswerCard } from "@/ui/build/answer-card";
import { PrintButton } from "@/ui/build/settings-print";
import { Page } from "@/ui/frame/page";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("build", "Answer card");

export default async function CardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const view = await orDamaged(buildView(await desk(), id));
  if (!view) notFound();
  const { machine, image } = view.context;
  const { steps, stops, totals } = view.evaluation;
  const screens = answerCard(steps);
  return (
    <Page
      title={`Answer card: ${image?.name ?? "no image"} on ${machine?.name ?? "no machine"}`}
      lead={`${view.build.number}, ${view.build.revision ? `revision ${view.build.revision}` : "not issued"}; about ${formatDuration(totals.likelySeconds)} for the whole build`}
      aside={
        <div className="no-print flex gap-2">
          <PrintButton />
          <Link className="btn" href={`/builds/${id}`}>
            Back to the build sheet
          </Link>
        </div>
      }
    >
      {stops.length > 0 && (
        <p role="alert" className="mb-3 border-l-4 py-1 pl-3 font-semibold border-error">
          Do not use it yet: {stops.length} open {stops.length === 1 ? "blocker" : "blockers"} on the build
          sheet ({stops.map((s) => s.label).join(", ")}).
        </p>
      )}
      {screens.length > 0 ? (
        <AnswerCard screens={screens} />
      ) : (
        <p className="quiet">
          The answer card needs a machine and an image with an OS profile. One of them is missing: see zones A
          and B of the build sheet.
        </p>
      )}
    </Page>
  );
}
