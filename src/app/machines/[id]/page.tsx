import Link from "next/link";
import { notFound } from "next/navigation";
import { siteSettingsOf } from "@/core/boot";
import { drawMachine, machineLine, type Typed } from "@/core/machine";
import { portOutlooks } from "@/core/network";
import { benchQuery } from "@/core/storage";
import { dayAt } from "@/core/site";
import { driveFiles } from "@/server/drives";
import { machineView, type MachineView } from "@/server/machines";
import { MACHINE, writtenView } from "@/server/written";
import { NewBuild } from "@/ui/build/new-build";
import { Page, Ruled } from "@/ui/frame/page";
import { TitleBlock } from "@/ui/frame/title-block";
import { SiteSettings } from "@/ui/machine/site-settings";
import { FactsTables, SetsTable } from "@/ui/machine/facts-tables";
import { WhatIf } from "@/ui/machine/what-if";
import { ImportPanel } from "@/ui/machine/import-panel";
import { MachineDraft, MachineFoot } from "@/ui/machine/machine-draft";
import { CollectorCard } from "@/ui/machine/machine-forms";
import { MachineSheet } from "@/ui/machine/machine-sheet";
import { TwinSlip } from "@/ui/machine/twin-slip";
import { begin } from "../../builds/actions";
import { desk } from "../../desk";
import { currentHand } from "../../hand";
import { orDamaged } from "../../or-damaged";
import { keepWritten, makeCode, makeTwin, putInBay, takeWrittenBack } from "../actions";
import {
  ChassisFolds,
  ControllerFold,
  DefectAndDateFolds,
  DeliveryFold,
  HistoryFolds,
  PlaceFold,
} from "./folds";
import { titled } from "../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("machine", "Machine");

export default async function MachinePage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ drive?: string }>;
}) {
  const { id } = await params;
  const at = await desk();
  const view = await orDamaged(machineView(at, id));
  const given = view && (await writtenView(at, MACHINE, id));
  if (!view || !given) notFound();
  const { machine, site, findings } = view;
  const { document } = machine;
  const files = await driveFiles(at, document.facts.drives);
  const { drive } = await searchParams;
  const timeZone = site?.site.timeZone ?? "UTC";
  return (
    <MachineDraft
      {...{ id, given }}
      actions={{ save: keepWritten.bind(null, id), takeBack: takeWrittenBack.bind(null, id) }}
    >
      <Page
        title={machine.name}
        lead={machineLine(document.facts) || "No hardware data collected yet."}
        aside={<Ways id={id} drives={benchQuery(document.facts.drives)} />}
      >
        <KnownDefects defects={document.typed.defects} />
        <MachineSheet
          {...{ document, files, findings, drawing: drawMachine(document) }}
          outlooks={portOutlooks(document.facts)}
          initial={drive ? { kind: "drive", id: drive } : null}
          place={putInBay.bind(null, id, machine.version)}
        >
          {document.facts.sets.length > 0 && (
            <Ruled title="Arrays, pools and virtual drives">
              <SetsTable document={document} />
              <WhatIf facts={document.facts} />
            </Ruled>
          )}
          <FactsTables document={document} timeZone={timeZone} />
          <SiteSettings lines={siteSettingsOf({ machine }, site?.site ?? null)} />
          <Ruled
            title="Import"
            note="output of tools, files of the management controller, or the bundle of the collector"
          >
            <ImportPanel machineId={id} version={machine.version} waiting={view.waiting} />
            <CollectorCard issue={makeCode.bind(null, id)} />
          </Ruled>
          <div>
            <PlaceFold view={view} />
            <ControllerFold view={view} />
            <DeliveryFold view={view} />
            <DefectAndDateFolds
              view={view}
              today={dayAt(site?.site ?? null, at.now())}
              hand={await currentHand()}
            />
            <ChassisFolds view={view} />
            <HistoryFolds view={view} timeZone={timeZone} />
          </div>
        </MachineSheet>
      </Page>
      <Foot view={view} timeZone={timeZone} />
    </MachineDraft>
  );
}

const Ways = ({ id, drives }: { id: string; drives: string | null }) => (
  <div className="flex flex-wrap gap-2">
    <Link className="btn" href={`/machines/${id}/bench`}>
      Measurements
    </Link>
    {drives && (
      <Link className="btn" href={`/bench?${drives}`}>
        Plan storage
      </Link>
    )}
    <Link className="btn" href={`/machines/${id}/labels`}>
      Labels
    </Link>
    <TwinSlip make={makeTwin.bind(null, id)} />
    <NewBuild begin={begin.bind(null, id)} text="Create build sheet" />
  </div>
);

function KnownDefects({ defects }: Pick<Typed, "defects">) {
  const open = defects.filter((d) => d.mendedOn === null);
  if (open.length === 0) return null;
  return (
    <p role="note" className="mb-3 border-l-4 bg-base-200 px-3 py-1.5 border-warning">
      <span className="font-semibold">{open.length === 1 ? "Known defect" : "Known defects"}:</span>{" "}
      {open.map((d) => `${d.what} (${d.affects})`).join("; ")}. Take them into account when you read
      measurements and findings.
    </p>
  );
}

function Foot({ view: { machine, site }, timeZone }: { view: MachineView; timeZone: string }) {
  const { chassis } = machine.document.facts;
  return (
    <TitleBlock
      cells={[
        { label: "Machine", value: machine.name },
        {
          label: "Site",
          value: site ? (
            <Link className="link" href={`/sites/${site.id}`}>
              {site.site.name}
            </Link>
          ) : (
            "–"
          ),
        },
        { label: "Location", value: machine.document.typed.place || "–" },
        {
          label: "Vendor and model",
          value: [chassis?.maker, chassis?.model].filter(Boolean).join(" ") || "–",
          grow: true,
        },
        { label: "Serial", value: chassis?.serial ?? "–", mono: true },
      ]}
    >
      <MachineFoot timeZone={timeZone} />
    </TitleBlock>
  );
}
