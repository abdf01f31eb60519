import Link from "next/link";
import { formatBinaryBytes, formatBytes, formatDate } from "@/core/units";
import { SelectField } from "../fields/fields";
import type { ZoneProps } from "./zone-props";

export function MachineZone({ view, sheet, edit, marks, machines }: ZoneProps) {
  const { machine, profile, site } = view.context;
  const facts = machine?.document.facts;
  const asked = profile?.requirements;
  const memory = facts?.memory?.installedBytes || facts?.memory?.recognisedBytes || null;
  const target = facts?.drives.find((d) => d.id === sheet.storage.target);
  // The page that arms it, one click away, asks for it as it stands on the machine.
  const isAsked = sheet.image.way === "network" && site?.networkBoot === "on";
  const source = (path: string): string => {
    const s = machine?.document.sources[path];
    return s ? `${s.tool}, ${formatDate(s.at, site?.timeZone ?? "UTC")}` : "";
  };
  return (
    <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
      <div className="space-y-3">
        <SelectField
          path="machine.id"
          label="Machine"
          marks={marks("machine.id")}
          value={sheet.machine.id ?? ""}
          empty="choose…"
          options={machines.map((m) => ({ value: m.id, text: `${m.name} – ${m.site}` }))}
          onChange={(id) => edit({ "machine.id": id || null })}
          hint={
            sheet.machine.id ? (
              <Link className="link" href={`/machines/${sheet.machine.id}`}>
                Machine page: hardware data, import, collector
              </Link>
            ) : (
              <Link className="link" href="/machines/new">
                Add a machine
              </Link>
            )
          }
        />
        {facts?.chassis?.serial && (
          <p>
            <span className="label">Serial </span>
            {isAsked ? (
              <span>collected, and asked for when the machine is armed</span>
            ) : (
              <span className="value">{facts.chassis.serial}</span>
            )}{" "}
            <span className="quiet text-[0.86rem]">{source("chassis.serial")}</span>
          </p>
        )}
      </div>
      {asked && facts && (
        <div className="space-y-2" aria-label="Hardware compared with the requirements of the profile">
          <Gauge
            label="Memory"
            has={memory}
            {...asked.memoryBytes}
            format={formatBinaryBytes}
            source={source("memory.installedBytes") || source("memory.recognisedBytes")}
          />
          <Gauge
            label="Cores"
            has={facts.processors?.cores ?? null}
            {...asked.cores}
            format={(n) => `${n}`}
            source={source("processors.cores")}
          />
          <Gauge
            label="Target drive"
            has={target?.sizeBytes ?? null}
            {...asked.diskBytes}
            format={formatBytes}
            source={target ? source(`drives.${target.id}.sizeBytes`) : ""}
          />
        </div>
      )}
    </div>
  );
}

/** A scale with two ticks, least and recommended, and the machine's own mark; logarithmic, since ranges are wide. */
function Gauge({
  label,
  has,
  least,
  recommended,
  format,
  source,
}: {
  label: string;
  has: number | null;
  least: number;
  recommended: number;
  format: (n: number) => string;
  source: string;
}) {
  const low = Math.min(least, has ?? least) / 2;
  const high = Math.max(recommended, has ?? recommended) * 1.4;
  const at = (n: number): number =>
    (100 * Math.log(Math.max(n, 1) / Math.max(low, 0.5))) / Math.log(high / Math.max(low, 0.5));
  const short = has !== null && has < least;
  return (
    <div>
      <div className="flex justify-between gap-2">
        <span className="label">{label}</span>
        <span className="value text-[0.86rem]" title={source}>
          {has === null ? "unknown" : format(has)}
        </span>
      </div>
      <svg
        viewBox="0 0 100 13"
        preserveAspectRatio="none"
        className="h-3.5 w-full"
        role="img"
        aria-label={`${label}: ${has === null ? "unknown" : format(has)}, minimum ${format(least)}, recommended ${format(recommended)}`}
      >
        <path
          d="M0 9 H100"
          stroke="currentColor"
          strokeWidth="1"
          vectorEffect="non-scaling-stroke"
          opacity="0.45"
        />
        {has !== null && (
          <path
            d={`M0 9 H${at(has)}`}
            stroke={short ? "var(--color-error)" : "currentColor"}
            strokeWidth="4"
            vectorEffect="non-scaling-stroke"
          />
        )}
        <path
          d={`M${at(least)} 2 V13`}
          stroke="currentColor"
          strokeWidth="1.6"
          vectorEffect="non-scaling-stroke"
        />
        <path
          d={`M${at(recommended)} 5 V13`}
          stroke="currentColor"
          strokeWidth="1"
          strokeDasharray="2 2"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <div className="quiet text-[0.79rem]">
        minimum {format(least)}, recommended {format(recommended)}
      </div>
    </div>
  );
}
