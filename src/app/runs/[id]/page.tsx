import { notFound } from "next/navigation";
import { answerCard } from "@/core/answers";
import { runView } from "@/server/runs";
import { RunSheet } from "@/ui/run/run-sheet";
import { orDamaged } from "../../or-damaged";
import { desk } from "../../desk";
import { titled } from "../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("run", "Run");

export default async function RunPage({ params }: { params: Promise<{ id: string }> }) {
  const view = await orDamaged(runView(await desk(), (await params).id));
  if (!view) notFound();
  // What is compared before a key is asked for by the run; the card beside it may not tell it.
  const card = answerCard(view.plan.steps).map((screen) => ({ ...screen, compare: [] }));
  return <RunSheet initial={view} card={card} />;
}
