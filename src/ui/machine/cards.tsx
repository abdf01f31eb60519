"use client";

import Link from "next/link";
import { useState, type ReactNode } from "react";
import type { Drive, FactSource, MachineDocument, Port, RegisterEntry, Verdict } from "@/core/machine";
import type { PortOutlook } from "@/core/network";
import { bayWords, contentWords, sanWords, startWords, wearWords } from "@/core/machine";
import { formatBinaryBytes, formatDecimalBytes, formatExactBytes } from "@/core/units";
import { CopyValue } from "../frame/copy-value";
import { HealthMark } from "./health-mark";
import { speedWords } from "./machine-drawing";
import { Day, Size } from "../frame/person";

/** A drive as the register knows it, for its card. */
export interface DriveFile {
  key: string;
  entry: RegisterEntry;
  verdict: Verdict;
  reasons: string[];
  /** Spares on the shelf that could stand in for it. */
  spares: string[];
}

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
  return (
    <dl className="grid grid-cols-[6.2rem_minmax(0,1fr)] gap-x-2 gap-y-0.5">
      {rows
        .filter(([, value]) => value !== null && value !== "" && value !== undefined)
        .map(([what, value, source]) => (
          <div key={what} className="contents">
            <dt className="quiet" title={source ? `${source.tool}, ${source.at.slice(0, 10)}` : undefined}>
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
      kind={drive.bay ? bayWords(drive.bay) : "bay not known"}
      title={drive.model ?? `${drive.media} drive`}
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
          its page in the register
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
          "Class",
          [drive.media, drive.rotationRpm ? `${drive.rotationRpm} rpm` : ""].filter(Boolean).join(", "),
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
        ["Counters", drive.health ? wearWords(drive) : null, source("health")],
        [
          "Self-test",
          drive.health?.selfTest
            ? `${drive.health.selfTest.kind}: ${drive.health.selfTest.passed ? "passed" : "not passed"}`
            : null,
        ],
        ["Reached", sanWords(drive), source("san")],
        ["On it", contentWords(drive), source("contents")],
        ["Starts", startWords(drive), source(drive.efiVolumes ? "efiVolumes" : "firstSector")],
        ["Sets", sets.map((s) => `${s.id} (${s.state})`).join(", ")],
        ["Shown by", drive.presentedBy ? `the controller as the set ${drive.presentedBy}` : null],
        ["Was named", drive.seenAs === "?" ? null : `${drive.seenAs} at the last reading`, source("seenAs")],
      ]}
    />
  );
}

/** Where it was, what could stand in for it, and when it was erased. */
const DrivePast = ({ file }: { file: DriveFile }) => (
  <>
    {file.entry.stays.length > 1 && (
      <div className="mt-2">
        <p className="label">Sat before</p>
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
        <span className="quiet">Erased</span> {file.entry.wipes.at(-1)?.at.slice(0, 10)},{" "}
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
        <span className="label">{placed ? "Placed by hand; move to bay" : "Put it in bay"}</span>
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
        Put
      </button>
      {placed && (
        <button type="button" className="btn" onClick={() => onPlace(null)}>
          Take back
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
        <p className="quiet">Every drive of this machine has its bay.</p>
      ) : (
        <>
          <p className="quiet mb-1">A drive that sits here:</p>
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
          ["At most", port.maxMegabits ? speedWords(port.maxMegabits) : null, source("maxMegabits")],
          ["Also called", port.otherNames.join(", ")],
          ["Linux name", outlook?.calledBy],
          [
            "Gives itself",
            outlook?.ownAddress && (
              <>
                <CopyValue value={outlook.ownAddress} className="text-[0.93rem]" />
                <span className="quiet block text-[0.86rem]">
                  unasked, on its own cable only, unless the system hides its MAC
                </span>
              </>
            ),
          ],
          ["Device", device ? `${device.maker} ${device.device}` : null],
          [
            "Place",
            [device?.place, port.pci ? `PCI ${port.pci}` : ""].filter(Boolean).join(", "),
            source("pci"),
          ],
          ["Ids", device ? <CopyValue value={device.ids} /> : null],
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
    RAID: "declares itself a RAID controller: it may show sets as drives and hide their members",
    "host adapter": "a host adapter: each drive is seen as it is",
    "pass-through": "passes drives through",
    "boot module": "a module of its own for the boot device",
    plain: "a plain controller: each drive is seen as it is",
    unknown: "mode not told",
  };
  return (
    <Card kind="storage controller" title={controller.name}>
      <Lines
        rows={[
          ["Mode", modes[controller.mode], document.sources[`storageControllers.${id}`]],
          ["Firmware", controller.firmware],
          ["Health", controller.health],
          ["Driver", controller.driver],
          ["Place", [device?.place, /^[0-9a-f]{2}:/.test(id) ? `PCI ${id}` : id].filter(Boolean).join(", ")],
          ["Ids", device ? <CopyValue value={device.ids} /> : null],
          ["Drives", String(document.facts.drives.filter((d) => d.controller === id).length || "not told")],
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
          ["At most", supply.ratedWatts ? `${supply.ratedWatts} W` : null],
          ["Model", supply.model],
        ]}
      />
      <p className="quiet mt-2 text-[0.86rem]">
        Mains work follows local rules and belongs to licensed people.
      </p>
    </Card>
  );
}
