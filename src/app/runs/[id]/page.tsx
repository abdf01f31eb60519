import { notFound } from "next/navigation";
import { runView } from "@/server/runs";
import { RunSheet } from "@/ui/run/run-sheet";
import { orDamaged } from "../../or-damaged";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Run" };

export default async function RunPage({ params }: { params: Promise<{ id: string }> }) {
  const view = await orDamaged(runView(await desk(), (await params).id));
  if (!view) notFound();
  return <RunSheet initial={view} />;
}
