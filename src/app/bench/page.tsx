import { StorageBench } from "@/ui/storage-bench/storage-bench";

export const dynamic = "force-dynamic";
export const metadata = { title: "Storage planner" };

export default async function BenchPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const given = Object.entries(await searchParams).flatMap(([key, value]) =>
    typeof value === "string" ? [[key, value]] : [],
  );
  return <StorageBench query={new URLSearchParams(given).toString()} />;
}
