import Link from "next/link";
import type { ReactNode } from "react";
import { notFound } from "next/navigation";
import type { RegisterLine } from "@/contract";
import { bayWords, MEDIA_NAMES } from "@/core/machine";
import { formatBytes, formatExactBytes } from "@/core/units";
import { registerLine } from "@/server/drives";
import { listImages } from "@/server/images";
import { DriveActions } from "@/ui/drives/drive-page";
import { CopyValue } from "@/ui/frame/copy-value";
import { Page, Ruled } from "@/ui/frame/page";
import { MACHINE_SHEETS, SubSheets } from "@/ui/frame/sub-sheets";
import { TitleBlock } from "@/ui/frame/title-block";
import { HealthMark } from "@/ui/machine/health-mark";
import { keepDrive, putOnShelf, recordErasure, writeDownWriting } from "../../actions";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { Day, Moment } from "@/ui/frame/person";

export const dynamic = "force-dynamic";

export async function generateMetadata({ params }: { params: Promise<{ key: string }> }) {
  const key = decodeURIComponent((await params).key);
  const line = await registerLine(await desk(), key).catch(() => null);
  return { title: `${line?.entry.label || line?.entry.model || key} – Drive` };
}

export default async function DrivePage({ params }: { params: Promise<{ key: string }> }) {
  const [line, images] = await Promise.all([
    orDamaged(registerLine(await desk(), decodeURIComponent((await params).key))),
    listImages(await desk()),
  ]);
  if (!line) notFound();
  const { key, version, entry, where, machineId } = line;
  return (
    <>
      <Page
        title={entry.label || entry.model || key}
        lead={`${formatBytes(entry.sizeBytes)} · ${MEDIA_NAMES[entry.media]} · ${where}`}
      >
        <SubSheets sheets={MACHINE_SHEETS} open="" />
        <DriveHistory line={line} />
        <DriveActions
          key={version}
          entry={entry}
          tail={(entry.serial ?? entry.wwn ?? "").slice(-6)}
          keep={keepDrive.bind(null, key, version)}
          shelve={putOnShelf.bind(null, key, version)}
          wipe={recordErasure.bind(null, key, version)}
          write={writeDownWriting.bind(null, key, version)}
          images={images.map((i) => ({ id: i.id, name: i.image.name }))}
        />
      </Page>
      <TitleBlock
        cells={[
          { label: "Drive", value: entry.label || entry.model || key },
          { label: "Serial", value: entry.serial ?? "–", mono: true },
          {
            label: "Location",
            value: machineId ? (
              <Link className="link" href={pageOf(line)}>
                {where}
              </Link>
            ) : (
              where
            ),
            grow: true,
          },
          { label: "State", value: entry.state },
        ]}
      />
    </>
  );
}

const pageOf = ({ machineId, key, entry }: RegisterLine, machine = machineId): string =>
  `/machines/${machine}?drive=${encodeURIComponent(entry.serial ?? key)}`;

const DriveHistory = ({ line }: { line: RegisterLine }) => (
  <div className="grid gap-x-10 lg:grid-cols-2">
    <Ruled title="Type">
      <Facts line={line} />
    </Ruled>
    <Stays line={line} />
    <Ledger line={line} />
  </div>
);

function Facts({ line: { entry, verdict, reasons, wear } }: { line: RegisterLine }) {
  const rows: [string, ReactNode][] = [
    ["Serial", entry.serial ? <CopyValue value={entry.serial} /> : "none"],
    ["WWN", entry.wwn && <CopyValue value={entry.wwn} />],
    ["Vendor, model", modelWords(entry.maker, entry.model)],
    [
      "Size",
      <span className="value" key="size">
        {formatExactBytes(entry.sizeBytes)}
      </span>,
    ],
    [
      "Health",
      <span key="health">
        <HealthMark verdict={verdict} /> {reasons.join("; ")}
      </span>,
    ],
    ["Usage", wear],
    ["Contents", entry.holds || "unknown"],
    ["Written", entry.written && [entry.written, entry.scheme].filter(Boolean).join(", ")],
    ["Stick contents", entry.carries && <Carried carries={entry.carries} />],
  ];
  return (
    <dl className="grid grid-cols-[8rem_1fr] gap-y-1">
      {rows
        .filter(([, value]) => value)
        .map(([what, value]) => (
          <div key={what} className="contents">
            <dt className="quiet">{what}</dt>
            <dd>{value}</dd>
          </div>
        ))}
    </dl>
  );
}

const Carried = ({ carries }: { carries: NonNullable<RegisterLine["entry"]["carries"]> }) => (
  <>
    <Link className="link" href={`/images/${carries.imageId}`}>
      {carries.name}
    </Link>
    <span className="quiet">
      , <Day at={carries.at} />, {carries.compared ? "verified" : "not verified"}
    </span>
  </>
);

const Stays = ({ line }: { line: RegisterLine }) => (
  <Ruled title="Location history">
    {line.entry.stays.length === 0 && <p className="quiet">Not seen in any machine.</p>}
    <ol>
      {line.entry.stays.toReversed().map((s) => (
        <li key={s.from} className="flex flex-wrap gap-x-3 border-b py-1 border-base-300">
          <Link className="link font-medium" href={pageOf(line, s.machineId)}>
            {s.machine}
          </Link>
          <span>{s.bay ? bayWords(s.bay) : "bay unknown"}</span>
          <span className="quiet ml-auto">
            <Day at={s.from} /> to {s.until ? <Day at={s.until} /> : "now"}
          </span>
        </li>
      ))}
    </ol>
  </Ruled>
);

const Ledger = ({ line: { entry } }: { line: RegisterLine }) => (
  <>
    <Ruled title="Erasure records" note="what the drive held, and how it was erased">
      {entry.wipes.length === 0 && <p className="quiet">None recorded.</p>}
      <ul>
        {entry.wipes.toReversed().map((w) => (
          <li key={w.at} className="border-b py-1 border-base-300">
            <span className="value">
              <Moment at={w.at} />
            </span>{" "}
            {w.method}, {w.by}
            {w.remark && <span className="quiet"> – {w.remark}</span>}
            <div className="quiet">was: {w.was}</div>
          </li>
        ))}
      </ul>
    </Ruled>
    <Ruled title="Earlier contents">
      {entry.held.length === 0 && <p className="quiet">No earlier contents recorded.</p>}
      <ul>
        {entry.held.toReversed().map((h) => (
          <li key={h.at + h.what} className="flex gap-3 border-b py-1 border-base-300">
            <span className="value quiet whitespace-nowrap">
              <Day at={h.at} />
            </span>
            <span className="[overflow-wrap:anywhere]">
              {h.what} <span className="quiet">{h.machine && `in ${h.machine}`}</span>
            </span>
          </li>
        ))}
      </ul>
    </Ruled>
  </>
);

/** Maker and model; makers often stand in the model already. */
const modelWords = (maker: string | null, model: string | null): string =>
  (maker && !model?.toLowerCase().startsWith(maker.toLowerCase()) ? [maker, model] : [model])
    .filter(Boolean)
    .join(" ") || "–";
