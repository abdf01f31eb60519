"use client";

import type { Answer, Done } from "@/contract";
import { formatFixed, formatMoney, formatNumber } from "@/core/units";
import { Moment } from "../frame/person";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { CircuitState } from "@/core/machine";
import type { Figure } from "@/core/estimate";
import type { Verdict } from "@/core/energy";
import {
  percentOfRated,
  READING_KINDS,
  readingWords,
  type BaselineLine,
  type Reading,
  type ReadingKind,
} from "@/core/readings";
import type { Problem } from "@/core/result";
import { useKept } from "../draft/use-kept";
import { ParsedField, SelectField, TextField } from "../fields/fields";
import { FigureValue } from "../fields/figure-value";
import { Ruled } from "../frame/page";
import { Problems } from "../frame/problems";
import { Table, type Column } from "../frame/table";
import { ImportWell, type DroppedText } from "../machine/import-well";

// The chart library is only fetched by people who look at a bench.
const ReadingChart = dynamic(() => import("./reading-chart").then((m) => m.ReadingChart), {
  ssr: false,
  loading: () => <div className="quiet h-60">drawing…</div>,
});

type Typed = Pick<Reading, "kind" | "what" | "state" | "value" | "limit" | "how">;
const KINDS = Object.keys(READING_KINDS) as ReadingKind[];
const STATES = [
  { value: "idle", text: "idle" },
  { value: "loaded", text: "loaded" },
  { value: "not told", text: "not told" },
] as const;
const USUAL: Record<ReadingKind, string> = {
  power: "at the wall",
  temperature: "processor",
  clock: "processor",
  fan: "fan 1",
  disk: "system drive, reading",
  network: "port 1, receiving",
};

export interface BenchProps {
  readings: Reading[];
  lines: BaselineLine[];
  like: string[];
  figures: Figure[];
  verdict: Verdict;
  circuit: CircuitState | null;
  defects: string[];
  others: { id: string; name: string }[];
  asked: Record<string, string>;
  hasTariff: boolean;
  timeZone: string;
  /** What the processor could clock at most, to set clock readings against. */
  maxMegahertz: number | null;
  keep: (values: Typed) => Promise<Answer<Reading>>;
  take: (texts: DroppedText[], state: Reading["state"]) => Promise<Answer<number>>;
}

/** What stands beside a value: its limit, or the share of what the link or processor is rated at. */
function besideWords(r: Reading, maxMegahertz: number | null): string {
  const rated =
    r.kind === "clock" ? maxMegahertz : r.kind === "network" || r.kind === "disk" ? r.limit : null;
  if (rated) return `${formatFixed(percentOfRated(r, rated), 0)} % of the rated ${rated}`;
  return r.limit === null ? "" : `limit ${r.limit}`;
}

/** The bench of a machine: the verdict first, then what it stands on. */
export function BenchSheet(props: BenchProps) {
  const { readings, figures, circuit, defects, timeZone } = props;
  // One point makes no curve: it is said in words.
  const of = (k: ReadingKind) => readings.filter((r) => r.kind === k);
  const kinds = KINDS.filter((k) => of(k).length > 1);
  return (
    <>
      <VerdictBlock {...props} />
      {defects.length > 0 && (
        <p role="note" className="mb-4 border-l-4 bg-base-200 px-3 py-1.5 border-warning">
          <span className="font-semibold">Take into account:</span> {defects.join("; ")}
        </p>
      )}
      {figures.length > 0 && <RunningCosts {...props} />}
      {circuit && (
        <Ruled
          title={`Circuit ${circuit.name}`}
          note="limit as entered for the site; what a circuit may carry is a matter of local codes and a licensed electrician"
        >
          <CircuitBar circuit={circuit} />
        </Ruled>
      )}
      {kinds.map((kind) => (
        <Ruled
          key={kind}
          title={READING_KINDS[kind].words[0]?.toUpperCase() + READING_KINDS[kind].words.slice(1)}
        >
          <ReadingChart kind={kind} readings={of(kind)} timeZone={timeZone} />
        </Ruled>
      ))}
      <ReadOnce {...props} />
      <BesideOthers {...props} />
      <ReadingForms {...props} />
      <AllReadings {...props} />
    </>
  );
}

const RunningCosts = ({ figures, hasTariff }: BenchProps) => (
  <Ruled title="Running cost">
    <ul className="flex flex-wrap gap-x-10 gap-y-2 text-lg">
      {figures.map((f) => (
        <li key={f.unit}>
          <FigureValue
            text={`${f.currency ? formatMoney(f.value, f.currency) : formatFixed(f.value, f.value >= 100 ? 0 : 1)} ${f.unit}`}
            figure={f}
          />
        </li>
      ))}
    </ul>
    {!hasTariff && <p className="quiet mt-1">The site has no electricity tariff, so no cost is computed.</p>}
  </Ruled>
);

function ReadOnce({ readings, maxMegahertz }: BenchProps) {
  const single = readings.filter((r) => readings.filter((o) => o.kind === r.kind).length === 1);
  if (single.length === 0) return null;
  return (
    <Ruled title="Single measurements">
      <ul>
        {single.map((r) => (
          <li key={r.kind}>
            {READING_KINDS[r.kind].words}, {r.what}: <span className="value">{readingWords(r)}</span>{" "}
            <span className="quiet">
              {r.state}
              {besideWords(r, maxMegahertz) && `, ${besideWords(r, maxMegahertz)}`}
            </span>
          </li>
        ))}
      </ul>
    </Ruled>
  );
}

const BASELINE: Column<BaselineLine>[] = [
  { title: "Measured", cell: ({ reading }) => `${READING_KINDS[reading.kind].words}, ${reading.what}` },
  { title: "State", cell: ({ reading }) => reading.state },
  { title: "This machine", className: "value", cell: ({ reading }) => readingWords(reading) },
  {
    title: "Median of the others",
    cell: (l) => (
      <>
        <span className="value">{readingWords({ kind: l.reading.kind, value: l.median })}</span>{" "}
        <span className="quiet">
          of {l.count}, same {l.likeness}
        </span>
      </>
    ),
  },
  {
    title: "Deviation",
    className: "value",
    cell: ({ deviationPercent: percent }) => (
      <span className={Math.abs(percent) >= 20 ? "font-semibold" : ""}>
        {percent >= 0 ? "+" : "−"}
        {formatFixed(Math.abs(percent), 0)} %
      </span>
    ),
  },
];

const BesideOthers = ({ lines, like }: BenchProps) =>
  lines.length > 0 && (
    <Ruled title="Comparison with similar machines" note={like.join(", ")}>
      <Table label="Comparison with similar machines" columns={BASELINE} rows={lines} keyOf={(_, i) => i} />
    </Ruled>
  );

function AllReadings({ readings, maxMegahertz, timeZone }: BenchProps) {
  if (readings.length === 0) return null;
  const columns: Column<Reading>[] = [
    {
      title: "",
      className: "value quiet whitespace-nowrap",
      cell: (r) => <Moment at={r.at} timeZone={timeZone} />,
    },
    { title: "", cell: (r) => `${READING_KINDS[r.kind].words}, ${r.what}` },
    { title: "", cell: (r) => r.state },
    { title: "", className: "value", cell: readingWords },
    { title: "", className: "quiet", cell: (r) => besideWords(r, maxMegahertz) },
    { title: "", className: "quiet", cell: (r) => `${r.how ? `${r.how}; ` : ""}${r.source}, ${r.by}` },
  ];
  return (
    <Ruled title="Measurements">
      <div className="max-h-80 overflow-auto" tabIndex={0} role="region" aria-label="All measurements">
        <Table columns={columns} rows={readings.toReversed()} keyOf={(_, i) => i} />
      </div>
    </Ruled>
  );
}

function VerdictBlock({ verdict, others, asked, hasTariff }: BenchProps) {
  const router = useRouter();
  const ask = (part: Record<string, string>) => {
    const next = new URLSearchParams(Object.entries({ ...asked, ...part }).filter(([, v]) => v !== ""));
    router.replace(`?${next.toString()}`, { scroll: false });
  };
  const number = (text: string): { value: string } | { problem: string } =>
    text.trim() === "" || Number(text) > 0 ? { value: text.trim() } : { problem: "a number above 0" };
  return (
    <section aria-label="Verdict" className="mb-5">
      <p className="max-w-[70ch] text-xl leading-snug font-semibold">{verdict.sentence}</p>
      <ul className="mt-2 max-w-[80ch]">
        {verdict.points.map((p) => (
          <li key={p.words} className="grid grid-cols-[5.5rem_1fr] py-0.5">
            <span
              className={p.weighs === "against" ? "font-semibold" : "quiet"}
              style={p.weighs === "against" ? { color: "var(--color-error)" } : undefined}
            >
              {p.weighs === "for" ? "+ for" : p.weighs === "against" ? "− against" : "? open"}
            </span>
            <span>{p.figure ? <FigureValue words text={p.words} figure={p.figure} /> : p.words}</span>
          </li>
        ))}
      </ul>
      <div className="mt-3 grid items-end gap-x-6 gap-y-2 sm:grid-cols-2 md:grid-cols-3 lg:grid-cols-5">
        <ParsedField
          path="share"
          label="Time under load, %"
          value={asked.share ?? ""}
          format={(v) => v || "20"}
          parse={number}
          onChange={(share) => ask({ share })}
        />
        <SelectField
          path="other"
          label="Compare with"
          value={asked.other ?? ""}
          empty="no comparison"
          options={[
            ...others.map((o) => ({ value: o.id, text: o.name })),
            { value: "typed", text: "a machine with a known power draw" },
          ]}
          onChange={(other) => ask({ other })}
        />
        {asked.other === "typed" && (
          <ParsedField
            path="watts"
            label="Power draw, W"
            value={asked.watts ?? ""}
            format={(v) => v}
            parse={number}
            onChange={(watts) => ask({ watts })}
          />
        )}
        {asked.other && (
          <ParsedField
            path="price"
            label={hasTariff ? "Price" : "Price (needs a tariff)"}
            value={asked.price ?? ""}
            format={(v) => v}
            parse={number}
            onChange={(price) => ask({ price })}
          />
        )}
        <ParsedField
          path="memory"
          label="Required memory, GiB"
          value={asked.memory ?? ""}
          format={(v) => v}
          parse={number}
          onChange={(memory) => ask({ memory })}
        />
        <label className="flex items-center gap-2 pb-1">
          <input
            type="checkbox"
            className="checkbox checkbox-xs checkbox checkbox-sm"
            checked={asked.pass === "1"}
            onChange={(e) => ask({ pass: e.target.checked ? "1" : "" })}
          />
          PCI pass-through is planned
        </label>
      </div>
    </section>
  );
}

/** Load of a circuit against the limit that the site states. */
function CircuitBar({ circuit }: { circuit: CircuitState }) {
  const share = (100 * circuit.watts) / circuit.limitWatts;
  const over = share > 100;
  return (
    <div>
      <div
        className="relative h-5 border border-current"
        role="img"
        aria-label={`Circuit ${circuit.name}: ${Math.round(circuit.watts)} of ${circuit.limitWatts} W`}
        style={{ width: `${over ? 10_000 / share : 100}%` }}
      >
        <div
          className="hatched absolute inset-y-0 left-0"
          style={{
            width: `${share}%`,
            color: over ? "var(--color-error)" : undefined,
            outline: over ? "1px solid var(--color-error)" : undefined,
          }}
        />
      </div>
      <p className="mt-1">
        <span className="value">{formatNumber(circuit.watts)} W</span> of{" "}
        <span className="value">{formatNumber(circuit.limitWatts)} W</span> under load, {circuit.machines}{" "}
        {circuit.machines === 1 ? "machine" : "machines"}
        {circuit.unread > 0 && <span className="font-semibold">, {circuit.unread} not measured</span>}
        {over && <span className="font-semibold text-error"> – over the limit</span>}
      </p>
    </div>
  );
}

const NEW_READING: Omit<Typed, "value" | "limit"> = {
  kind: "power",
  what: USUAL.power,
  state: "idle",
  how: "",
};

const RATED: ReadonlySet<Reading["kind"]> = new Set(["network", "disk"]);

function ReadingForms({ keep, take }: BenchProps) {
  const router = useRouter();
  const [values, setValues] = useKept("reading", NEW_READING);
  const [value, setValue] = useKept("reading value", "");
  const [limit, setLimit] = useKept("reading limit", "");
  const [state, setState] = useState<Reading["state"]>("idle");
  const [problems, setProblems] = useState<Problem[]>([]);
  const [said, setSaid] = useState("");
  const after = (answer: Done, words: string) => {
    setProblems(answer.ok ? [] : answer.problems);
    setSaid(answer.ok ? words : "");
    if (answer.ok) router.refresh();
    return answer.ok;
  };
  return (
    <Ruled title="New measurement">
      <form
        className="grid items-end gap-4 sm:grid-cols-2 md:grid-cols-3 lg:grid-cols-[8rem_1fr_6.5rem_6rem_7rem_9rem_auto]"
        onSubmit={async (e) => {
          e.preventDefault();
          const number = Number(value.replace(",", "."));
          const answer = await keep({
            ...values,
            value: value.trim() === "" ? NaN : number,
            limit: limit.trim() === "" ? null : Number(limit.replace(",", ".")),
          });
          if (!after(answer, "saved")) return;
          setValue("");
          setLimit("");
          setValues({ ...values, how: "" });
        }}
      >
        <SelectField
          path="kind"
          label="Kind"
          value={values.kind}
          options={KINDS.map((k) => ({ value: k, text: READING_KINDS[k].words }))}
          onChange={(kind) => setValues({ ...values, kind, what: USUAL[kind] })}
        />
        <TextField
          path="what"
          label="Measured quantity"
          value={values.what}
          onChange={(what) => setValues({ ...values, what })}
        />
        <SelectField
          path="state"
          label="State"
          value={values.state}
          options={STATES}
          onChange={(next) => setValues({ ...values, state: next })}
        />
        <TextField
          path="value"
          label={`Value, ${READING_KINDS[values.kind].unit}`}
          value={value}
          onChange={setValue}
        />
        <TextField
          path="limit"
          label={RATED.has(values.kind) ? "Rated value (optional)" : "Limit (optional)"}
          value={limit}
          onChange={setLimit}
        />
        <TextField
          path="how"
          label="Load and duration"
          value={values.how}
          placeholder="compile, 20 min"
          onChange={(how) => setValues({ ...values, how })}
        />
        <button type="submit" className="btn" disabled={value.trim() === ""}>
          Save
        </button>
      </form>
      <div className="mt-4">
        <SelectField
          path="drop.state"
          label="State during the imported measurement"
          value={state}
          options={STATES}
          onChange={setState}
        />
        <ImportWell
          label="Drop the output of sensors -j or smartctl -j -a"
          onTexts={async (texts) => after(await take(texts, state), "imported")}
        />
      </div>
      <Problems problems={problems} />
      {said && (
        <span role="status" className="quiet">
          {said}
        </span>
      )}
    </Ruled>
  );
}
