import { formatDate } from "@/core/units";
import Link from "next/link";
import type { Facts } from "@/core/machine";
import { standOf } from "@/core/sheet";
import type { MachineView } from "@/server/machines";
import { BaysForm } from "@/ui/machine/bays-form";
import { DatesForm } from "@/ui/machine/dates-form";
import { DefectsForm } from "@/ui/machine/defects-form";
import { DeliveryForm } from "@/ui/machine/delivery-form";
import { PciTable } from "@/ui/machine/facts-tables";
import { FirmwareForm } from "@/ui/machine/firmware-form";
import { Fold } from "@/ui/machine/fold";
import { ControllerForm, NotesForm } from "@/ui/machine/machine-forms";
import { Pictures } from "@/ui/machine/pictures";
import { PlaceForm } from "@/ui/machine/place-form";
import { dropPicture } from "../actions";
import { Moment } from "@/ui/frame/person";

interface Given {
  view: MachineView;
}

/** A number of things: "1 picture", "3 pictures". */
const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

export function PlaceFold({ view: { machine, site } }: Given) {
  const { facts, typed } = machine.document;
  const { bootMenu, setup, seconds } = typed.keys;
  const said = [
    typed.role,
    typed.place,
    bootMenu && `boot menu key ${bootMenu}`,
    setup && `setup key ${setup}`,
    seconds && `after ${seconds} s`,
  ];
  return (
    <Fold
      title="Location, role and keys"
      open={!typed.place && !bootMenu}
      note={said.filter(Boolean).join(" · ")}
    >
      <PlaceForm
        isLaptop={/laptop|notebook|portable/i.test(facts.chassis?.form ?? "")}
        circuits={site?.site.circuits.map((c) => c.name) ?? []}
      />
    </Fold>
  );
}

const controllerWords = (controller: Facts["controller"]): string => {
  if (controller?.present === undefined) return "unknown";
  if (!controller.present) return "none";
  const { address, virtualMedia } = controller;
  return `${address ?? "address unknown"}, virtual media: ${virtualMedia ?? "unknown"}`;
};

export function ControllerFold({ view: { machine } }: Given) {
  const { controller } = machine.document.facts;
  return (
    <Fold
      title="Management controller"
      note={controllerWords(controller)}
      open={controller?.present === undefined}
    >
      <ControllerForm />
    </Fold>
  );
}

export function DeliveryFold({ view: { machine, delivery } }: Given) {
  const differs = delivery.filter((l) => l.verdict === "differs").length;
  const said =
    differs > 0 ? counted(differs, "line does not match", "lines do not match") : "matches the machine";
  return (
    <Fold
      title="Delivery note"
      open={differs > 0}
      note={machine.document.typed.expected ? said : "not entered"}
    >
      <DeliveryForm lines={delivery} />
    </Fold>
  );
}

/** Known defects, and what is due on a day. */
export function DefectAndDateFolds({
  view: { machine },
  today,
  hand,
}: Given & { today: string; hand: string }) {
  const { defects, dates } = machine.document.typed;
  const open = defects.filter((d) => d.mendedOn === null).map((d) => d.what);
  const due = dates.filter((d) => !d.doneOn).map((d) => `${d.what} on ${d.due}`);
  return (
    <>
      <Fold title="Defects" note={open.join("; ") || "none recorded"}>
        <DefectsForm today={today} by={hand} />
      </Fold>
      <Fold title="Dates" note={due.join("; ") || "none due"}>
        <DatesForm today={today} by={hand} />
      </Fold>
    </>
  );
}

/** Firmware decisions, the bays, and the devices of the chassis. */
export function ChassisFolds({ view: { machine } }: Given) {
  const { document } = machine;
  const { facts, typed } = document;
  const installed: Record<string, string> = {
    ...(facts.firmware?.version && { "system firmware": facts.firmware.version }),
    ...(facts.controller?.firmware && { "management controller": facts.controller.firmware }),
  };
  const decided = typed.firmware.map((f) => `${f.part}: ${f.decision}`);
  const blocks = typed.bays.map((b) => `${b.title} ${b.columns} × ${b.rows}`);
  return (
    <>
      <Fold title="Accepted firmware settings" note={decided.join("; ") || "none"}>
        <FirmwareForm installed={installed} />
      </Fold>
      <Fold title="Drive bays" note={blocks.join(", ") || "derived from the bays that drives report"}>
        <BaysForm />
      </Fold>
      {facts.pci.length > 0 && (
        <Fold
          title="Devices"
          note={`${facts.pci.length} PCI functions${facts.usb.length > 0 ? `, ${facts.usb.length} on USB` : ""}`}
        >
          <PciTable document={document} />
        </Fold>
      )}
    </>
  );
}

/** What people wrote and photographed, the builds, and where the facts came from. */
export function HistoryFolds({
  view: { machine, pictures, builds, imports },
  timeZone,
}: Given & { timeZone: string }) {
  return (
    <>
      <Fold
        title="Notes and pictures"
        open={machine.document.notes !== "" || pictures.length > 0}
        note={pictures.length > 0 ? counted(pictures.length, "picture") : undefined}
      >
        <NotesForm />
        <div className="mt-4">
          <Pictures machineId={machine.id} pictures={pictures} remove={dropPicture} />
        </div>
      </Fold>
      <Fold title="Builds" open note={builds.length === 0 ? "none" : undefined}>
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
        <Fold title="Imports" note={`${imports.length}, last on ${formatDate(imports[0]!.at, timeZone)}`}>
          <ul>
            {imports.map((i) => (
              <li key={i.id}>
                <span className="value">
                  <Moment at={i.at} timeZone={timeZone} />
                </span>{" "}
                {i.names.join(", ")}: {counted(i.changes.length, "change")}{" "}
                <span className="quiet">– {i.by}</span>
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </>
  );
}
