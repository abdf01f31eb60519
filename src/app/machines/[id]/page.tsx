import Link from "next/link";
import { notFound } from "next/navigation";
import { standOf } from "@/core/sheet";
import { drawMachine, machineLine, registerKey } from "@/core/machine";
import { formatDateTime } from "@/core/units";
import { registerOf, sparesFor } from "@/server/drives";
import { machineView } from "@/server/machines";
import { NewBuild } from "@/ui/build/new-build";
import { Page, Ruled } from "@/ui/frame/page";
import { TitleBlock } from "@/ui/frame/title-block";
import { DeliveryForm } from "@/ui/machine/delivery-form";
import { FactsTables, PciTable, SetsTable } from "@/ui/machine/facts-tables";
import { ImportPanel } from "@/ui/machine/import-panel";
import { CollectorCard, ControllerForm, NotesForm } from "@/ui/machine/machine-forms";
import { MachineSheet } from "@/ui/machine/machine-sheet";
import { Pictures } from "@/ui/machine/pictures";
import { TwinSlip } from "@/ui/machine/twin-slip";
import { BaysForm } from "@/ui/machine/bays-form";
import { DatesForm } from "@/ui/machine/dates-form";
import { DefectsForm } from "@/ui/machine/defects-form";
import { FirmwareForm } from "@/ui/machine/firmware-form";
import { Fold } from "@/ui/machine/fold";
import { PlaceForm } from "@/ui/machine/place-form";
import { currentHand } from "../../hand";
import { dropPicture, keepController, keepNotes, keepTyped, makeCode, makeTwin, putInBay } from "../actions";
import { begin } from "../../builds/actions";
import { orDamaged } from "../../or-damaged";
import { dayAt } from "@/core/site";
import { desk } from "../../desk";

export const dynamic = "force-dynamic";

export default async function MachinePage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ drive?: string }>;
}) {
  const view = await orDamaged(machineView(await desk(), (await params).id));
  if (!view) notFound();
  const today = dayAt(view.site?.site ?? null, new Date().toISOString());
  const { machine, site, builds, imports, waiting, findings, pictures, delivery } = view;
  const { document } = machine;
  const { facts, typed } = document;
  const timeZone = site?.site.timeZone ?? "UTC";
  const keys = new Map(
    facts.drives.flatMap((d) => (registerKey(d) ? [[d.id, registerKey(d) ?? ""] as const] : [])),
  );
  const register = await registerOf(await desk(), [...keys.values()]);
  const spares = await sparesFor(await desk(), facts.drives);
  const spareOf = new Map(facts.drives.map((d, i) => [d.id, spares[i] ?? []]));
  const files = Object.fromEntries(
    [...keys].flatMap(([driveId, key]) => {
      const line = register.get(key);
      return line
        ? [
            [
              driveId,
              {
                key,
                entry: line.entry,
                verdict: line.verdict,
                reasons: line.reasons,
                spares: spareOf.get(driveId) ?? [],
              },
            ],
          ]
        : [];
    }),
  );
  const { drive } = await searchParams;
  const hand = await currentHand();
  const save = keepTyped.bind(null, machine.id, machine.version);
  const openDefects = typed.defects.filter((d) => d.mendedOn === null);
  const differs = delivery.filter((l) => l.verdict === "differs").length;
  const installed: Record<string, string> = {
    ...(facts.firmware?.version && { "system firmware": facts.firmware.version }),
    ...(facts.controller?.firmware && { "management controller": facts.controller.firmware }),
  };
  return (
    <>
      <Page
        title={machine.name}
        lead={machineLine(facts) || "Nothing has been read from it yet."}
        aside={
          <div className="flex flex-wrap gap-2">
            <Link className="btn" href={`/machines/${machine.id}/bench`}>
              Bench readings
            </Link>
            <TwinSlip make={makeTwin.bind(null, machine.id)} />
            <NewBuild begin={begin.bind(null, machine.id)} text="New build sheet for it" />
          </div>
        }
      >
        {openDefects.length > 0 && (
          <p role="note" className="mb-3 border-l-4 bg-base-200 px-3 py-1.5 border-warning">
            <span className="font-semibold">
              {openDefects.length === 1 ? "Known defect" : "Known defects"}:
            </span>{" "}
            {openDefects.map((d) => `${d.what} (${d.affects})`).join("; ")}. Results that it touches are read
            with this in mind.
          </p>
        )}
        <MachineSheet
          document={document}
          drawing={drawMachine(document)}
          files={files}
          findings={findings}
          initial={drive ? { kind: "drive", id: drive } : null}
          place={putInBay.bind(null, machine.id, machine.version)}
        >
          {facts.sets.length > 0 && (
            <Ruled title="Arrays, pools and virtual drives">
              <SetsTable document={document} />
            </Ruled>
          )}
          <FactsTables document={document} timeZone={timeZone} />
          <Ruled
            title="Import"
            note="what a tool printed, files of the management controller, or the collector's bundle"
          >
            <ImportPanel
              key={machine.version}
              machineId={machine.id}
              version={machine.version}
              waiting={waiting}
            />
            <CollectorCard issue={makeCode.bind(null, machine.id)} />
          </Ruled>
          <div>
            <Fold
              title="Place, role and keys"
              open={!typed.place && !typed.keys.bootMenu}
              note={[
                typed.role,
                typed.place,
                typed.keys.bootMenu && `boot menu ${typed.keys.bootMenu}`,
                typed.keys.setup && `set-up ${typed.keys.setup}`,
                typed.keys.seconds && `after ${typed.keys.seconds} s`,
              ]
                .filter(Boolean)
                .join(" · ")}
            >
              <PlaceForm
                isLaptop={/laptop|notebook|portable/i.test(facts.chassis?.form ?? "")}
                typed={typed}
                circuits={site?.site.circuits.map((c) => c.name) ?? []}
                save={save}
              />
            </Fold>
            <Fold
              title="Management controller"
              note={
                facts.controller?.present === false
                  ? "none"
                  : facts.controller?.present
                    ? `${facts.controller.address ?? "address not known"}, virtual media ${facts.controller.virtualMedia ?? "unknown"}`
                    : "not known"
              }
              open={facts.controller?.present === undefined}
            >
              <ControllerForm
                key={JSON.stringify(facts.controller)}
                controller={facts.controller}
                save={keepController.bind(null, machine.id, machine.version)}
              />
            </Fold>
            <Fold
              title="Delivery note"
              open={differs > 0}
              note={
                !typed.expected
                  ? "none typed"
                  : differs > 0
                    ? `${differs} ${differs === 1 ? "line differs" : "lines differ"}`
                    : "as the machine says"
              }
            >
              <DeliveryForm typed={typed} lines={delivery} save={save} />
            </Fold>
            <Fold
              title="Defects"
              note={openDefects.length > 0 ? openDefects.map((d) => d.what).join("; ") : "none known"}
            >
              <DefectsForm typed={typed} today={today} by={hand} save={save} />
            </Fold>
            <Fold
              title="Dates"
              note={
                typed.dates
                  .filter((d) => !d.doneOn)
                  .map((d) => `${d.what} on ${d.due}`)
                  .join("; ") || "nothing is due"
              }
            >
              <DatesForm typed={typed} today={today} by={hand} save={save} />
            </Fold>
            <Fold
              title="Firmware decisions"
              note={
                typed.firmware.map((f) => `${f.part}: ${f.decision}`).join("; ") || "nothing was looked at"
              }
            >
              <FirmwareForm typed={typed} installed={installed} by={hand} save={save} />
            </Fold>
            <Fold
              title="Bays of the chassis"
              note={
                typed.bays.map((b) => `${b.title} ${b.columns} × ${b.rows}`).join(", ") ||
                "drawn from the bays that drives name"
              }
            >
              <BaysForm typed={typed} save={save} />
            </Fold>
            {facts.pci.length > 0 && (
              <Fold
                title="Devices"
                note={`${facts.pci.length} PCI functions${facts.usb.length > 0 ? `, ${facts.usb.length} on USB` : ""}`}
              >
                <PciTable document={document} />
              </Fold>
            )}
            <Fold
              title="Notes and pictures"
              open={document.notes !== "" || pictures.length > 0}
              note={
                pictures.length > 0
                  ? `${pictures.length} ${pictures.length === 1 ? "picture" : "pictures"}`
                  : undefined
              }
            >
              <NotesForm notes={document.notes} save={keepNotes.bind(null, machine.id, machine.version)} />
              <div className="mt-4">
                <Pictures machineId={machine.id} pictures={pictures} remove={dropPicture} />
              </div>
            </Fold>
            <Fold title="Builds" open note={builds.length === 0 ? "none yet" : undefined}>
              <ul>
                {builds.map((b) => (
                  <li key={b.id} className="flex gap-3 py-0.5">
                    <span className="value">{b.number}</span>
                    <Link className="link" href={`/builds/${b.id}`}>
                      {b.subject || "(no subject)"}
                    </Link>
                    <span className="quiet">{standOf(b, b.run)}</span>
                  </li>
                ))}
              </ul>
            </Fold>
            {imports.length > 0 && (
              <Fold title="Imports" note={`${imports.length}, the last on ${imports[0]?.at.slice(0, 10)}`}>
                <ul>
                  {imports.map((i) => (
                    <li key={i.id}>
                      <span className="value">{formatDateTime(i.at, timeZone)}</span> {i.names.join(", ")}:{" "}
                      {i.changes.length} {i.changes.length === 1 ? "change" : "changes"}{" "}
                      <span className="quiet">– {i.by}</span>
                    </li>
                  ))}
                </ul>
              </Fold>
            )}
          </div>
        </MachineSheet>
      </Page>
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
          { label: "Place", value: typed.place || "–" },
          {
            label: "Maker and model",
            value: [facts.chassis?.maker, facts.chassis?.model].filter(Boolean).join(" ") || "–",
            grow: true,
          },
          { label: "Serial", value: facts.chassis?.serial ?? "–", mono: true },
        ]}
      />
    </>
  );
}
