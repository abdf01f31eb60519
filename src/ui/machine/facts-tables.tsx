import type { Facts, FactSource, MachineDocument } from "@/core/machine";
import { factName, factWords, isSoundMember, serialTail } from "@/core/machine";
import { setStanding } from "@/core/storage";
import { formatDuration, formatNumber } from "@/core/units";
import { Ruled } from "../frame/page";
import { Day, Size } from "../frame/person";

const GROUPS = [
  ["chassis", "Chassis"],
  ["firmware", "Firmware"],
  ["processors", "Processors"],
  ["memory", "Memory"],
  ["controller", "Management controller"],
  ["system", "Running system"],
] as const;

/** Facts by group, each with the tool and the day that it comes from. */
export function FactsTables({ document, timeZone }: { document: MachineDocument; timeZone: string }) {
  return (
    <div className="mb-6 gap-x-10 lg:columns-2">
      {GROUPS.map(([group, title]) => {
        const facts = Object.entries(document.facts[group] ?? {}).filter(
          ([, v]) => v !== null && !(Array.isArray(v) && v.length === 0),
        );
        if (facts.length === 0) return null;
        return (
          <div key={group} className="break-inside-avoid">
            <Ruled title={title}>
              <table className="table">
                <tbody>
                  {facts.map(([key, value]) => (
                    <tr key={key}>
                      <td className="quiet w-[30%]">{factName(key)}</td>
                      <td className="value [overflow-wrap:anywhere]">
                        {key === "entries" ? (
                          <Entries
                            entries={value as { id: string; label: string; active: boolean; kind: string }[]}
                          />
                        ) : (
                          factWords(`${group}.${key}`, value)
                        )}
                      </td>
                      <td className="text-right whitespace-nowrap">
                        <SourceMark source={document.sources[`${group}.${key}`]} timeZone={timeZone} />
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </Ruled>
          </div>
        );
      })}
      {document.facts.sensors.length > 0 && (
        <div className="break-inside-avoid">
          <Ruled title="Sensors">
            <table className="table" aria-label="Sensors">
              <tbody>
                {document.facts.sensors.map((s) => (
                  <tr key={s.id}>
                    <td className="quiet w-[45%] [overflow-wrap:anywhere]">{s.id}</td>
                    <td className="value whitespace-nowrap">{sensorWords(s)}</td>
                    <td className="quiet whitespace-nowrap">{s.max ? `limit ${s.max}` : ""}</td>
                    <td className="text-right whitespace-nowrap">
                      <SourceMark source={document.sources[`sensors.${s.id}`]} timeZone={timeZone} />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Ruled>
        </div>
      )}
    </div>
  );
}

const SENSOR_UNITS = { temperature: "°C", fan: "rpm", voltage: "V", power: "W", current: "A" } as const;
const sensorWords = ({ kind, value }: MachineDocument["facts"]["sensors"][number]): string =>
  `${formatNumber(value, kind === "voltage" || kind === "current" ? 2 : 1)} ${SENSOR_UNITS[kind]}`;

function Entries({ entries }: { entries: { id: string; label: string; active: boolean; kind: string }[] }) {
  return (
    <ol>
      {entries.map((e) => (
        <li key={e.id} className={e.active ? "" : "quiet"}>
          {e.id} {e.label}{" "}
          <span className="quiet font-sans">{e.active ? e.kind : `${e.kind}, not active`}</span>
        </li>
      ))}
    </ol>
  );
}

/** How many members may still fail, and that none may be pulled where that is none. */
function StillFail({ set }: { set: Facts["sets"][number] }) {
  const standing = setStanding(set);
  if (!standing) return <span className="quiet">not reported</span>;
  if (standing.left > 0)
    return (
      <span>
        any {standing.left} {standing.left === 1 ? "drive" : "drives"}
      </span>
    );
  return set.health === "good" ? <span>none</span> : <b className="text-error">none: do not pull a member</b>;
}

/** Arrays, pools and virtual drives with their state, what is under way, and their members by serial. */
export function SetsTable({ document }: { document: MachineDocument }) {
  const { sets, drives } = document.facts;
  const nameOf = (member: (typeof sets)[number]["members"][number]): string => {
    const drive = drives.find((d) => d.id === member.drive);
    return drive ? `${drive.bay ? `${drive.bay}: ` : ""}…${serialTail(drive) || drive.seenAs}` : member.name;
  };
  return (
    <table className="table" aria-label="Arrays and pools">
      <thead>
        <tr>
          <th>Array or pool</th>
          <th>Layout</th>
          <th>State</th>
          <th>Size</th>
          <th>Remaining fault tolerance</th>
          <th>Members</th>
        </tr>
      </thead>
      <tbody>
        {sets.map((s) => (
          <tr key={s.id}>
            <td className="font-medium whitespace-nowrap">{s.id}</td>
            <td>{s.level ?? "–"}</td>
            <td>
              <span
                className={s.health === "good" ? "" : "font-semibold"}
                style={{
                  color:
                    s.health === "failed"
                      ? "var(--color-error)"
                      : s.health === "degraded"
                        ? "var(--color-warning)"
                        : undefined,
                }}
              >
                {s.state}
              </span>
              {s.progress && (
                <span className="block">
                  {s.progress.what} {s.progress.percent} %
                  {s.progress.secondsLeft !== null ? `, ${formatDuration(s.progress.secondsLeft)} left` : ""}
                </span>
              )}
              {s.remark && <span className="quiet block text-[0.86rem]">{s.remark}</span>}
            </td>
            <td className="value whitespace-nowrap">{s.sizeBytes ? <Size bytes={s.sizeBytes} /> : "–"}</td>
            <td>
              <StillFail set={s} />
            </td>
            <td>
              {s.members.map((m) => (
                <span
                  key={m.name}
                  className="value mr-2 inline-block text-[0.86rem]"
                  title={m.state}
                  style={{
                    color: isSoundMember(m.state) ? undefined : "var(--color-error)",
                  }}
                >
                  {nameOf(m)}
                  {m.role === "member" ? "" : ` (${m.role})`}
                  {isSoundMember(m.state) ? "" : ` ${m.state}`}
                </span>
              ))}
              {s.members.length === 0 && <span className="quiet">not reported</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** PCI functions by place, with what drives them and which must be given away together. */
export function PciTable({ document }: { document: MachineDocument }) {
  return (
    <div className="overflow-x-auto">
      <table className="table" aria-label="PCI devices">
        <thead>
          <tr>
            <th>Location</th>
            <th>Device</th>
            <th>IDs</th>
            <th>Driver</th>
            <th>IOMMU group</th>
          </tr>
        </thead>
        <tbody>
          {document.facts.pci
            .filter((p) => !/^06|^08/.test(p.classId))
            .map((p) => (
              <tr key={p.slot}>
                <td className="value whitespace-nowrap">
                  {p.slot} <span className="quiet font-sans">{p.place}</span>
                </td>
                <td>
                  {p.maker} {p.device} <span className="quiet">{p.className}</span>
                </td>
                <td className="value">{p.ids}</td>
                <td className="value">{p.driver ?? "–"}</td>
                <td className="value">{p.iommuGroup ?? "–"}</td>
              </tr>
            ))}
        </tbody>
      </table>
    </div>
  );
}

export function SourceMark({ source, timeZone }: { source: FactSource | undefined; timeZone: string }) {
  if (!source) return null;
  return (
    <span className="quiet text-[0.79rem]" title={`${source.from}, ${source.at}`}>
      {source.tool} · <Day at={source.at} timeZone={timeZone} />
    </span>
  );
}
