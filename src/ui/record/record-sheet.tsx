import { term } from "@/core/text";
import type { ReactNode } from "react";
import type { RunRecord } from "@/core/record";
import { formatDateTime, formatDuration } from "@/core/units";
import { Ruled } from "../frame/page";
import { Table, type Column } from "../frame/table";
import { AcceptanceTable } from "../run/acceptance-table";

/** Writes down a moment in the record's own time zone. */
type When = (iso: string | null) => string;

/** The record as a page: what to know at three in the morning first, then what was built, then how it went. */
export function RecordSheet({ record }: { record: RunRecord }) {
  const when: When = (iso) => (iso ? formatDateTime(iso, record.timeZone) : "–");
  return (
    <>
      <Reach record={record} />
      <Installed record={record} when={when} />
      <Judged record={record} when={when} />
      <Times times={record.times} when={when} />
      <Told record={record} when={when} />
    </>
  );
}

/** A row where there is something to say in it. */
const some = (label: string, words: string[]): [string, string][] =>
  words.length > 0 ? [[label, words.join("; ")]] : [];

const reachRows = (reach: NonNullable<RunRecord["reach"]>): [string, string][] => [
  ["Host name", reach.hostName],
  ["Address", reach.address],
  ["Management", reach.management],
  ["Accounts", reach.accounts.join("; ")],
  ["Credential location", reach.secretsKept],
];

function Reach({ record: { machine, reach, defects, notes } }: { record: RunRecord }) {
  return (
    <Ruled title="Access">
      <Pairs
        rows={[
          ["Machine", `${machine.name} · ${machine.summary}`],
          ...(reach ? reachRows(reach) : []),
          ...some("Known defects", defects),
        ]}
      />
      {notes && <p className="mt-2 whitespace-pre-wrap">{notes}</p>}
    </Ruled>
  );
}

function Installed({ record, when }: { record: RunRecord; when: When }) {
  const { image, drives, acceptance } = record;
  return (
    <>
      {image && drives && <Installation image={image} drives={drives} />}
      <Items
        title={record.kind ? "Written down" : "Saved before the installation"}
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
        title="Planned and found"
        note={acceptance ? `imported ${when(acceptance.at)} from ${acceptance.from}` : undefined}
      >
        {acceptance ? (
          <AcceptanceTable lines={acceptance.lines} />
        ) : (
          <p className="quiet">Not verified yet.</p>
        )}
      </Ruled>
    </>
  );
}

const Installation = ({ image, drives }: Required<Pick<RunRecord, "image" | "drives">>) => (
  <Ruled title="Installation">
    <Pairs
      rows={[
        ["Image", image.name],
        ["OS profile", image.profile],
        ["Checksum", image.checksum],
        [
          drives.layout === "single drive" ? "System drive" : `System drives, ${drives.layout}`,
          drives.target,
        ],
        ["Protected", drives.leftAlone.join("; ")],
        ...some("Free", drives.free),
      ]}
    />
  </Ruled>
);

/** What differed, what was set aside, what stood open, and what is due. */
function Judged({ record, when }: { record: RunRecord; when: When }) {
  return (
    <>
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
        title="Open findings"
        items={record.openFindings.map((f) => (
          <>
            <span className="value font-semibold">{f.label}</span> {term(f.severity)}: {f.finding}
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
    </>
  );
}

type StepTaken = RunRecord["times"]["steps"][number];
const taken = (seconds: number | null): string => (seconds === null ? "–" : formatDuration(seconds));
const STEP_COLUMNS: Column<StepTaken>[] = [
  { title: "Step", cell: (s) => s.title },
  {
    title: "State",
    cell: (s) => (
      <span className={s.state === "differs" || s.state === "skipped" ? "font-semibold" : "quiet"}>
        {term(s.state)}
      </span>
    ),
  },
  { title: "Expected", right: true, className: "value", cell: (s) => formatDuration(s.likelySeconds) },
  { title: "Actual", right: true, className: "value", cell: (s) => taken(s.takenSeconds) },
];

const Times = ({ times, when }: { times: RunRecord["times"]; when: When }) => (
  <Ruled
    title="Times"
    note={`started ${when(times.startedAt)}, ended ${when(times.endedAt)}; duration ${taken(times.takenSeconds)}, expected ${formatDuration(times.likelySeconds)}`}
  >
    <Table columns={STEP_COLUMNS} rows={times.steps} keyOf={(_, i) => i} />
  </Ruled>
);

const Told = ({ record, when }: { record: RunRecord; when: When }) => (
  <>
    <Items
      title="Clock"
      items={record.clock.map((c) => (
        <>
          Before <span className="value">{when(c.at)}</span> the server&apos;s clock was set back{" "}
          {formatDuration(c.seconds)}: times around it are uncertain.
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
            {l.arrived ? ` · kept in the browser, received ${when(l.arrived)}` : ""}
          </span>
        </>
      ))}
    />
  </>
);

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
