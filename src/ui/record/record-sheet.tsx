import type { ReactNode } from "react";
import type { BuildRecord } from "@/core/record";
import { formatDateTime, formatDuration } from "@/core/units";
import { Ruled } from "../frame/page";
import { AcceptanceTable } from "../run/acceptance-table";

/** The record as a page: what to know at three in the morning first, then what was built, then how it went. */
export function RecordSheet({ record }: { record: BuildRecord }) {
  const when = (iso: string | null): string => (iso ? formatDateTime(iso, record.timeZone) : "–");
  const { reach, times, acceptance } = record;
  return (
    <>
      <Ruled title="How to reach it">
        <Pairs
          rows={[
            ["Machine", `${record.machine.name} · ${record.machine.summary}`],
            ["Host name", reach.hostName],
            ["Address", reach.address],
            ["Management", reach.management],
            ["Accounts", reach.accounts.join("; ")],
            ["Passwords are kept", reach.secretsKept],
            ...(record.defects.length > 0
              ? [["Known defects", record.defects.join("; ")] as [string, string]]
              : []),
          ]}
        />
        {record.notes && <p className="mt-2 whitespace-pre-wrap">{record.notes}</p>}
      </Ruled>
      <Ruled title="What was installed">
        <Pairs
          rows={[
            ["Image", record.image.name],
            ["OS profile", record.image.profile],
            ["Checksum", record.image.checksum],
            [
              record.drives.layout === "single drive"
                ? "System drive"
                : `System drives, ${record.drives.layout}`,
              record.drives.target,
            ],
            ["Left alone", record.drives.leftAlone.join("; ")],
            ...(record.drives.free.length > 0
              ? [["Free", record.drives.free.join("; ")] as [string, string]]
              : []),
          ]}
        />
      </Ruled>
      <Items
        title="Saved before"
        items={record.saved.map((s) => (
          <>
            {s.what}: <span className="font-medium">{s.where}</span>{" "}
            <span className="quiet">
              – {s.by}, {when(s.at)}
            </span>
          </>
        ))}
      />
      <Ruled
        title="As planned, as found"
        note={acceptance ? `read ${when(acceptance.at)} from ${acceptance.from}` : undefined}
      >
        {acceptance ? (
          <AcceptanceTable lines={acceptance.lines} />
        ) : (
          <p className="quiet">Not read back yet.</p>
        )}
      </Ruled>
      <Items
        title="Deviations"
        items={record.deviations.map((d) => (
          <>
            {when(d.at)} – {d.step}: {d.seen} <span className="quiet">({d.decision})</span>
          </>
        ))}
      />
      <Items
        title="Waivers"
        items={record.waivers.map((w) => (
          <>
            <span className="value font-semibold">{w.label}</span> {w.finding} Reason: {w.reason}{" "}
            <span className="quiet">
              – {w.by}, {when(w.at)}
            </span>
          </>
        ))}
      />
      <Items
        title="Findings that stood open"
        items={record.openFindings.map((f) => (
          <>
            <span className="value font-semibold">{f.label}</span> {f.severity}: {f.finding}
          </>
        ))}
      />
      <Items
        title="Dates"
        items={record.dates.map((d) => (
          <>
            <span className="value">{d.date}</span> {d.what}
          </>
        ))}
      />
      <Ruled
        title="Times"
        note={`started ${when(times.startedAt)}, ended ${when(times.endedAt)}; taken ${times.takenSeconds === null ? "–" : formatDuration(times.takenSeconds)}, likely was ${formatDuration(times.likelySeconds)}`}
      >
        <table className="table">
          <thead>
            <tr>
              <th>Step</th>
              <th>State</th>
              <th className="text-right">Likely</th>
              <th className="text-right">Taken</th>
            </tr>
          </thead>
          <tbody>
            {times.steps.map((s, i) => (
              <tr key={i}>
                <td>{s.title}</td>
                <td className={s.state === "differs" || s.state === "skipped" ? "font-semibold" : "quiet"}>
                  {s.state}
                </td>
                <td className="value text-right">{formatDuration(s.likelySeconds)}</td>
                <td className="value text-right">
                  {s.takenSeconds === null ? "–" : formatDuration(s.takenSeconds)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Ruled>
      <Items
        title="Clock"
        items={record.clock.map((c) => (
          <>
            Before <span className="value">{when(c.at)}</span> the server&apos;s clock went back{" "}
            {formatDuration(c.seconds)}: times around it are not sure.
          </>
        ))}
      />
      <Items
        title="Log"
        items={record.log.map((l) => (
          <>
            <span className="value">{when(l.at)}</span> {l.text}{" "}
            <span className="quiet">
              – {l.by}
              {l.arrived ? ` · kept in the browser, arrived ${when(l.arrived)}` : ""}
            </span>
          </>
        ))}
      />
    </>
  );
}

function Pairs({ rows }: { rows: [string, string][] }) {
  return (
    <dl className="grid gap-x-6 gap-y-0.5 sm:grid-cols-[11rem_1fr]">
      {rows.map(([label, value]) => (
        <div key={label} className="contents">
          <dt className="label pt-1">{label}</dt>
          <dd className="value [overflow-wrap:anywhere]">{value || "–"}</dd>
        </div>
      ))}
    </dl>
  );
}

function Items({ title, items }: { title: string; items: ReactNode[] }) {
  if (items.length === 0) return null;
  return (
    <Ruled title={title}>
      <ul className="space-y-1">
        {items.map((item, i) => (
          <li key={i} className="[overflow-wrap:anywhere]">
            {item}
          </li>
        ))}
      </ul>
    </Ruled>
  );
}
