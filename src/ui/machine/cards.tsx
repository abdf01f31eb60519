"use client";

import Link from "next/link";
import { useState, type ReactNode } from "react";
import type { DriveFile } from "@/contract";
import type { Drive, FactSource, MachineDocument, Port } from "@/core/machine";
import type { PortOutlook } from "@/core/network";
import { bayWords, contentWords, sanWords, startWords, wearWords, MEDIA_NAMES } from "@/core/machine";
import { formatBinaryBytes, formatDecimalBytes, formatExactBytes, formatDate } from "@/core/units";
import { CopyValue } from "../frame/copy-value";
import { HealthMark } from "./health-mark";
import { speedWords } from "./machine-drawing";
import { Day, Size, useHomeZone } from "../frame/person";

function Card({ title, kind, children }: { title: string; kind: string; children: ReactNode }) {
  return (
    <section aria-label={`${kind} ${title}`} className="border bg-base-100 p-3 border-base-content">
      <p className="label">{kind}</p>
      <h2 className="mb-2 text-[1.07rem] leading-tight font-semibold">{title}</h2>
      {children}
    </section>
  );
}

/** Facts of a card: words left, values right, the tool behind each as a hint. */
function Lines({ rows }: { rows: [what: string, value: ReactNode, source?: FactSource][] }) {
  const zone = useHomeZone();
  return (
    <dl className="grid grid-cols-[6.2rem_minmax(0,1fr)] gap-x-2 gap-y-0.5">
      {rows
        .filter(([, value]) => value !== null && value !== "" && value !== undefined)
        .map(([what, value, source]) => (
          <div key={what} className="contents">
            <dt
              className="quiet"
              title={source ? `${source.tool}, ${formatDate(source.at, zone)}` : undefined}
            >
              {what}
            </dt>
            <dd className="min-w-0 [overflow-wrap:anywhere]">{value}</dd>
          </div>
        ))}
    </dl>
  );
}

export function DriveCard({
  drive,
  file,
  document,
  freeBays,
  onPlace,
}: {
  drive: Drive;
  file: DriveFile | null;
  document: MachineDocument;
  freeBays: string[];
  onPlace: (bay: string | null) => void;
}) {
  const placed = document.typed.placed[drive.id] !== undefined;
  return (
    <Card
      kind={drive.bay ? bayWords(drive.bay) : "bay unknown"}
      title={drive.model ?? MEDIA_NAMES[drive.media]}
    >
      {file && (
        <p className="mb-2">
          <HealthMark verdict={file.verdict} />
          <span className="block text-[0.93rem]">{file.reasons.join("; ")}</span>
        </p>
      )}
      <DriveFacts drive={drive} document={document} />
      {file && <DrivePast file={file} />}
      <PlaceForm key={drive.id} placed={placed} freeBays={freeBays} onPlace={onPlace} />
      {file && (
        <Link className="link mt-2 inline-block" href={`/machines/drives/${encodeURIComponent(file.key)}`}>
          Open in the drive inventory
        </Link>
      )}
    </Card>
  );
}

function DriveFacts({ drive, document }: { drive: Drive; document: MachineDocument }) {
  const source = (key: string): FactSource | undefined => document.sources[`drives.${drive.id}.${key}`];
  const sets = document.facts.sets.filter((s) => s.members.some((m) => m.drive === drive.id));
  return (
    <Lines
      rows={[
        ["Serial", drive.serial ? <CopyValue value={drive.serial} /> : "none reported", source("serial")],
        ["WWN", drive.wwn ? <CopyValue value={drive.wwn} className="text-[0.86rem]" /> : null, source("wwn")],
        [
          "Size",
          `${formatDecimalBytes(drive.sizeBytes)} · ${formatBinaryBytes(drive.sizeBytes)}`,
          source("sizeBytes"),
        ],
        [
          "",
          <span key="b" className="value quiet text-[0.86rem]">
            {formatExactBytes(drive.sizeBytes)}
          </span>,
        ],
        [
          "Type",
          [MEDIA_NAMES[drive.media], drive.rotationRpm ? `${drive.rotationRpm} rpm` : ""]
            .filter(Boolean)
            .join(", "),
          source("media"),
        ],
        [
          "Sectors",
          drive.logicalSectorBytes
            ? `${drive.logicalSectorBytes} / ${drive.physicalSectorBytes ?? "?"} bytes`
            : null,
        ],
        ["Firmware", drive.firmware, source("firmware")],
        ["Driver", drive.driver, source("driver")],
        ["Usage", drive.health ? wearWords(drive) : null, source("health")],
        [
          "Self-test",
          drive.health?.selfTest
            ? `${drive.health.selfTest.kind}: ${drive.health.selfTest.passed ? "passed" : "failed"}`
            : null,
        ],
        ["Link", sanWords(drive), source("san")],
        ["Contents", contentWords(drive), source("contents")],
        ["Boots", startWords(drive), source(drive.efiVolumes ? "efiVolumes" : "firstSector")],
        ["Arrays and pools", sets.map((s) => `${s.id} (${s.state})`).join(", ")],
        ["Presented by", drive.presentedBy ? `the controller as array ${drive.presentedBy}` : null],
        [
          "Last device name",
          drive.seenAs === "?" ? null : `${drive.seenAs} at the last inventory`,
          source("seenAs"),
        ],
      ]}
    />
  );
}

/** Where it was, what could stand in for it, and when it was erased. */
const DrivePast = ({ file }: { file: DriveFile }) => (
  <>
    {file.entry.stays.length > 1 && (
      <div className="mt-2">
        <p className="label">Before in</p>
        <ul>
          {file.entry.stays
            .slice(0, -1)
            .toReversed()
            .map((s) => (
              <li key={s.from}>
                {s.machine}
                {s.bay ? `, ${bayWords(s.bay)}` : ""}{" "}
                <span className="quiet">until {s.until && <Day at={s.until} />}</span>
              </li>
            ))}
        </ul>
      </div>
    )}
    {file.spares.length > 0 && (
      <p className="mt-2">
        <span className="quiet">Spare:</span> {file.spares.slice(0, 3).join("; ")}
      </p>
    )}
    {file.entry.wipes.length > 0 && (
      <p className="mt-2">
        <span className="quiet">Erased</span> <Day at={file.entry.wipes.at(-1)!.at} />,{" "}
        {file.entry.wipes.at(-1)?.method}, by {file.entry.wipes.at(-1)?.by}
      </p>
    )}
  </>
);

/** Puts a drive where it really sits; any name of a bay will do, the free ones are offered. */
function PlaceForm({
  placed,
  freeBays,
  onPlace,
}: {
  placed: boolean;
  freeBays: string[];
  onPlace: (bay: string | null) => void;
}) {
  const [bay, setBay] = useState("");
  return (
    <form
      className="mt-3 flex items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (bay.trim()) onPlace(bay.trim());
      }}
    >
      <label className="flex-1">
        <span className="label">{placed ? "Placed manually; move to bay" : "Assign to bay"}</span>
        <input
          className="input"
          list="free-bays"
          value={bay}
          maxLength={40}
          onChange={(e) => setBay(e.target.value)}
        />
        <datalist id="free-bays">
          {freeBays.map((b) => (
            <option key={b} value={b} />
          ))}
        </datalist>
      </label>
      <button type="submit" className="btn" disabled={bay.trim() === ""}>
        Assign
      </button>
      {placed && (
        <button type="button" className="btn" onClick={() => onPlace(null)}>
          Undo
        </button>
      )}
    </form>
  );
}

export function EmptyBayCard({
  bay,
  loose,
  onPut,
}: {
  bay: string;
  loose: Drive[];
  onPut: (driveId: string) => void;
}) {
  return (
    <Card kind="bay" title={`${bayWords(bay)} is empty`}>
      {loose.length === 0 ? (
        <p className="quiet">Every drive of this machine has a bay.</p>
      ) : (
        <>
          <p className="quiet mb-1">Drive in this bay:</p>
          <ul className="space-y-1">
            {loose.map((d) => (
              <li key={d.id}>
                <button type="button" className="link value text-left" onClick={() => onPut(d.id)}>
                  {d.serial ?? d.id}
                </button>{" "}
                <span className="quiet">
                  <Size bytes={d.sizeBytes} />
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </Card>
  );
}

export function PortCard({
  port,
  document,
  outlook,
}: {
  port: Port;
  document: MachineDocument;
  outlook: PortOutlook | undefined;
}) {
  const source = (key: string): FactSource | undefined => document.sources[`ports.${port.mac}.${key}`];
  const device = document.facts.pci.find((p) => p.slot === port.pci);
  return (
    <Card kind={port.kind === "wireless" ? "wireless port: not for servers" : "port"} title={port.seenAs}>
      <Lines
        rows={[
          ["MAC", <CopyValue key="m" value={port.mac} />, source("mac")],
          [
            "Link",
            `${port.link}${port.speedMegabits ? `, ${speedWords(port.speedMegabits)}` : ""}`,
            source("link"),
          ],
          ["Maximum speed", port.maxMegabits ? speedWords(port.maxMegabits) : null, source("maxMegabits")],
          ["Other names", port.otherNames.join(", ")],
          ["Linux name", outlook?.calledBy],
          [
            "IPv6 link-local address",
            outlook?.ownAddress && (
              <>
                <CopyValue value={outlook.ownAddress} className="text-[0.93rem]" />
                <span className="quiet block text-[0.86rem]">
                  derived from the MAC (EUI-64) unless privacy addresses are used
                </span>
              </>
            ),
          ],
          ["Device", device ? `${device.maker} ${device.device}` : null],
          [
            "Location",
            [device?.place, port.pci ? `PCI ${port.pci}` : ""].filter(Boolean).join(", "),
            source("pci"),
          ],
          ["IDs", device ? <CopyValue value={device.ids} /> : null],
          ["Driver", port.driver ?? device?.driver ?? null, source("driver")],
          ["IOMMU group", device?.iommuGroup != null ? String(device.iommuGroup) : null],
          ["MTU", port.mtu ? String(port.mtu) : null],
          [
            "Addresses",
            port.addresses.length > 0
              ? port.addresses.map((a) => (
                  <CopyValue
                    key={a.address}
                    value={`${a.address}/${a.prefixLength}`}
                    className="block text-[0.93rem]"
                  />
                ))
              : null,
            source("addresses"),
          ],
        ]}
      />
    </Card>
  );
}

export function ControllerCard({ id, document }: { id: string; document: MachineDocument }) {
  const controller = document.facts.storageControllers.find((c) => c.id === id);
  const device = document.facts.pci.find((p) => p.slot === id);
  if (!controller) return null;
  const modes: Record<typeof controller.mode, string> = {
    RAID: "RAID controller: it may present arrays as drives and hide their members",
    "host adapter": "host bus adapter (HBA): each drive is visible",
    "pass-through": "pass-through (HBA) mode",
    "boot module": "boot module",
    plain: "plain controller: each drive is visible",
    unknown: "mode not reported",
  };
  return (
    <Card kind="storage controller" title={controller.name}>
      <Lines
        rows={[
          ["Mode", modes[controller.mode], document.sources[`storageControllers.${id}`]],
          ["Firmware", controller.firmware],
          ["Health", controller.health],
          ["Driver", controller.driver],
          [
            "Location",
            [device?.place, /^[0-9a-f]{2}:/.test(id) ? `PCI ${id}` : id].filter(Boolean).join(", "),
          ],
          ["IDs", device ? <CopyValue value={device.ids} /> : null],
          [
            "Drives",
            String(document.facts.drives.filter((d) => d.controller === id).length || "not reported"),
          ],
        ]}
      />
    </Card>
  );
}

export function SupplyCard({ id, document }: { id: string; document: MachineDocument }) {
  const supply = document.facts.powerSupplies.find((s) => s.id === id);
  if (!supply) return null;
  return (
    <Card kind="power supply" title={supply.id}>
      <Lines
        rows={[
          ["State", supply.state],
          ["Maximum output", supply.ratedWatts ? `${supply.ratedWatts} W` : null],
          ["Model", supply.model],
        ]}
      />
      <p className="quiet mt-2 text-[0.86rem]">
        Mains work follows local rules and is done by licensed electricians.
      </p>
    </Card>
  );
}
