import Link from "next/link";
import { notFound } from "next/navigation";
import { machineLine } from "@/core/machine";
import { benchView } from "@/server/readings";
import { BenchSheet } from "@/ui/bench/bench-sheet";
import { Page } from "@/ui/frame/page";
import { TitleBlock } from "@/ui/frame/title-block";
import { keepReading, keepReadingsOf } from "../../actions";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("machine", "Measurements");

const positive = (text: string | undefined): number | null =>
  text !== undefined && Number(text) > 0 ? Number(text) : null;

export default async function BenchPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<Record<string, string | undefined>>;
}) {
  const { id } = await params;
  const { share, other, watts, price, memory, pass } = await searchParams;
  const view = await orDamaged(
    benchView(await desk(), id, {
      loadedShare: Math.min(1, (positive(share) ?? 20) / 100),
      otherId: other && other !== "typed" ? other : null,
      otherWatts: other === "typed" ? positive(watts) : null,
      otherPrice: positive(price),
      passThrough: pass === "1",
      memoryWantedBytes: memory ? (positive(memory) ?? 0) * 2 ** 30 || null : null,
    }),
  );
  if (!view) notFound();
  const { machine, site, readings, lines, like, figures, verdict, circuit, others } = view;
  const { typed, facts } = machine.document;
  const asked = Object.fromEntries(
    Object.entries({ share, other, watts, price, memory, pass }).filter(
      (e): e is [string, string] => e[1] !== undefined,
    ),
  );
  return (
    <>
      <Page
        title={`Measurements of ${machine.name}`}
        lead={machineLine(facts)}
        aside={
          <Link className="btn" href={`/machines/${machine.id}`}>
            Back to the machine
          </Link>
        }
      >
        <BenchSheet
          readings={readings}
          lines={lines}
          like={like}
          figures={figures}
          verdict={verdict}
          circuit={circuit}
          defects={typed.defects.filter((d) => d.mendedOn === null).map((d) => `${d.what} (${d.affects})`)}
          others={others}
          asked={asked}
          hasTariff={Boolean(site?.site.tariff)}
          maxMegahertz={facts.processors?.maxMegahertz ?? null}
          timeZone={site?.site.timeZone ?? "UTC"}
          keep={keepReading.bind(null, machine.id)}
          take={keepReadingsOf.bind(null, machine.id)}
        />
      </Page>
      <TitleBlock
        cells={[
          { label: "Machine", value: machine.name },
          { label: "Measurements", value: String(readings.length) },
          { label: "Noise", value: typed.noise || "–", grow: true },
          { label: "Circuit", value: typed.circuit || "–" },
        ]}
      />
    </>
  );
}
