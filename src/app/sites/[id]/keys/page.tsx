import { notFound } from "next/navigation";
import { keysView } from "@/server/keys";
import { SiteKeys } from "@/ui/site/site-keys";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("site", "Keys");

export default async function SiteKeysPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const view = await orDamaged(keysView(await desk(), id));
  if (!view) notFound();
  return <SiteKeys id={id} {...view} />;
}
