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

export const dynamic = "force-dynamic";
export const metadata = { title: "Answer card" };

export default async function CardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const view = await orDamaged(buildView(await desk(), id));
  if (!view) notFound();
  const { machine, image } = view.context;
  const { steps, stops, totals } = view.evaluation;
  const screens = answerCard(steps);
  return (
    <Page
      title={`Answer card: ${image?.name ?? "no image yet"} on ${machine?.name ?? "no machine yet"}`}
      lead={`${view.build.number}, ${view.build.revision ? `revision ${view.build.revision}` : "not issued"}; ${formatDuration(totals.likelySeconds)} likely for the whole build`}
      aside={
        <div className="no-print flex gap-2">
          <PrintButton />
          <Link className="btn" href={`/builds/${id}`}>
            Back to the sheet
          </Link>
        </div>
      }
    >
      {stops.length > 0 && (
        <p role="alert" className="mb-3 border-l-4 py-1 pl-3 font-semibold border-error">
          Not to be used yet: {stops.length} {stops.length === 1 ? "stop stands" : "stops stand"} on the sheet
          ({stops.map((s) => s.label).join(", ")}).
        </p>
      )}
      {screens.length > 0 ? (
        <AnswerCard screens={screens} />
      ) : (
        <p className="quiet">
          The card is made from the machine and from the screens of the image&rsquo;s family. One of them is
          missing on the sheet: its zones A and B tell which.
        </p>
      )}
    </Page>
  );
}
