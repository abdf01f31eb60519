"use client";

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
import { ParsedField, SelectField, TextField } from "../fields/fields";
import { FigureValue } from "../fields/figure-value";
import { Ruled } from "../frame/page";
import { Problems } from "../frame/problems";
import { ImportWell, type DroppedText } from "../machine/import-well";

// The chart library is only fetched by people who look at a bench.
const ReadingChart = dynamic(() => import("./reading-chart").then((m) => m.ReadingChart), {
  ssr: false,
  loading: () => <div className="quiet h-60">drawing …</div>,
});

type Answer<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };
type Typed = Pick<Reading, "kind" | "what" | "state" | "value" | "limit" | "how">;
const KINDS = Object.keys(READING_KINDS) as ReadingKind[];
const STATES = [
  { value: "idle", text: "idle" },
  { value: "loaded", text: "loaded" },
  { value: "not told", text: "not told" },
];
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
  if (rated) return `${percentOfRated(r, rated).toFixed(0)} % of the rated ${rated}`;
  return r.limit === null ? "" : `limit ${r.limit}`;
}

/** The bench of a machine: the verdict first, then what it stands on. */
export function BenchSheet(props: BenchProps) {
  const { readings, lines, like, figures, circuit, defects, timeZone, maxMegahertz } = props;
  const of = (k: ReadingKind) => readings.filter((r) => r.kind === k);
  // One point makes no curve: it is said in words.
  const kinds = KINDS.filter((k) => of(k).length > 1);
  const single = KINDS.filter((k) => of(k).length === 1).flatMap(of);
  return (
    <>
      <VerdictBlock {...props} />
      {defects.length > 0 && (
        <p role="note" className="mb-4 border-l-4 bg-base-200 px-3 py-1.5 border-warning">
          <span className="font-semibold">Read with this in mind:</span> {defects.join("; ")}
        </p>
      )}
      {figures.length > 0 && (
        <Ruled title="What it takes to run">
          <ul className="flex flex-wrap gap-x-10 gap-y-2 text-lg">
            {figures.map((f) => (
              <li key={f.unit}>
                <FigureValue
                  text={`${f.value >= 100 ? Math.round(f.value) : f.value.toFixed(1)} ${f.unit}`}
                  figure={f}
                />
              </li>
            ))}
          </ul>
          {!props.hasTariff && <p className="quiet mt-1">The site states no tariff, so there is no cost.</p>}
        </Ruled>
      )}
      {circuit && (
        <Ruled
          title={`Circuit ${circuit.name}`}
          note="limit as the site states it; what a circuit may carry is a matter of local codes and a licensed electrician"
        >
          <CircuitBar circuit={circuit} />
        </Ruled>
      )}
      {kinds.map((kind) => (
        <Ruled
          key={kind}
          title={READING_KINDS[kind].words[0]?.toUpperCase() + READING_KINDS[kind].words.slice(1)}
        >
          <ReadingChart kind={kind} readings={readings.filter((r) => r.kind === kind)} timeZone={timeZone} />
        </Ruled>
      ))}
      {single.length > 0 && (
        <Ruled title="Read once">
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
      )}
      {lines.length > 0 && (
        <Ruled title="Beside like machines" note={like.join(", ")}>
          <table className="table" aria-label="Beside like machines">
            <thead>
              <tr>
                <th>What</th>
                <th>State</th>
                <th>Here</th>
                <th>Median of the others</th>
                <th>Deviation</th>
              </tr>
            </thead>
            <tbody>
              {lines.map((l) => (
                <tr key={`${l.reading.kind}${l.reading.what}${l.reading.state}`}>
                  <td>
                    {READING_KINDS[l.reading.kind].words}, {l.reading.what}
                  </td>
                  <td>{l.reading.state}</td>
                  <td className="value">{readingWords(l.reading)}</td>
                  <td>
                    <span className="value">{readingWords({ kind: l.reading.kind, value: l.median })}</span>{" "}
                    <span className="quiet">
                      of {l.count}, same {l.likeness}
                    </span>
                  </td>
                  <td className={`value ${Math.abs(l.deviationPercent) >= 20 ? "font-semibold" : ""}`}>
                    {l.deviationPercent >= 0 ? "+" : "−"}
                    {Math.abs(l.deviationPercent).toFixed(0)} %
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Ruled>
      )}
      <ReadingForms {...props} />
      {readings.length > 0 && (
        <Ruled title="Readings">
          <div className="max-h-80 overflow-auto" tabIndex={0} role="region" aria-label="All readings">
            <table className="table">
              <tbody>
                {readings.toReversed().map((r, i) => (
                  <tr key={i}>
                    <td className="value quiet whitespace-nowrap">{r.at.slice(0, 16).replace("T", " ")}</td>
                    <td>
                      {READING_KINDS[r.kind].words}, {r.what}
                    </td>
                    <td>{r.state}</td>
                    <td className="value">{readingWords(r)}</td>
                    <td className="quiet">{besideWords(r, maxMegahertz)}</td>
                    <td className="quiet">
                      {r.how ? `${r.how}; ` : ""}
                      {r.source}, {r.by}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </Ruled>
      )}
    </>
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
      <div className="mt-3 grid items-end gap-x-6 gap-y-2 sm:grid-cols-3 lg:grid-cols-5">
        <ParsedField
          path="share"
          label="Share of the time loaded, %"
          value={asked.share ?? ""}
          format={(v) => v || "20"}
          parse={number}
          onChange={(share) => ask({ share })}
        />
        <SelectField
          path="other"
          label="Instead of it"
          value={asked.other ?? ""}
          empty="nothing to compare with"
          options={[
            ...others.map((o) => ({ value: o.id, text: o.name })),
            { value: "typed", text: "a machine by its watts" },
          ]}
          onChange={(other) => ask({ other })}
        />
        {asked.other === "typed" && (
          <ParsedField
            path="watts"
            label="Its watts"
            value={asked.watts ?? ""}
            format={(v) => v}
            parse={number}
            onChange={(watts) => ask({ watts })}
          />
        )}
        {asked.other && (
          <ParsedField
            path="price"
            label={hasTariff ? "Its price" : "Its price (needs a tariff)"}
            value={asked.price ?? ""}
            format={(v) => v}
            parse={number}
            onChange={(price) => ask({ price })}
          />
        )}
        <ParsedField
          path="memory"
          label="Memory wanted, GiB"
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
          devices are to be passed through
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
        className="relative h-5 border"
        role="img"
        aria-label={`${Math.round(circuit.watts)} of ${circuit.limitWatts} W`}
        style={{ borderColor: "currentColor", width: `${over ? 10_000 / share : 100}%` }}
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
        <span className="value">{Math.round(circuit.watts)} W</span> of{" "}
        <span className="value">{circuit.limitWatts} W</span> under load, {circuit.machines}{" "}
        {circuit.machines === 1 ? "machine" : "machines"}
        {circuit.unread > 0 && (
          <span className="font-semibold">, {circuit.unread} of them never measured</span>
        )}
        {over && <span className="font-semibold text-error"> – over the stated limit</span>}
      </p>
    </div>
  );
}

function ReadingForms({ keep, take }: BenchProps) {
  const router = useRouter();
  const [values, setValues] = useState<Omit<Typed, "value" | "limit">>({
    kind: "power",
    what: USUAL.power,
    state: "idle",
    how: "",
  });
  const [value, setValue] = useState("");
  const [limit, setLimit] = useState("");
  const [state, setState] = useState<Reading["state"]>("idle");
  const [problems, setProblems] = useState<Problem[]>([]);
  const [said, setSaid] = useState("");
  const after = (answer: Answer<unknown>, words: string) => {
    setProblems(answer.ok ? [] : answer.problems);
    setSaid(answer.ok ? words : "");
    if (answer.ok) router.refresh();
    return answer.ok;
  };
  return (
    <Ruled title="A new reading">
      <form
        className="grid items-end gap-4 sm:grid-cols-3 lg:grid-cols-[8rem_1fr_6.5rem_6rem_7rem_9rem_auto]"
        onSubmit={async (e) => {
          e.preventDefault();
          const number = Number(value.replace(",", "."));
          const answer = await keep({
            ...values,
            value: value.trim() === "" ? NaN : number,
            limit: limit.trim() === "" ? null : Number(limit.replace(",", ".")),
          });
          if (after(answer, "kept")) setValue("");
        }}
      >
        <SelectField
          path="kind"
          label="Kind"
          value={values.kind}
          options={KINDS.map((k) => ({ value: k, text: READING_KINDS[k].words }))}
          onChange={(k) => setValues({ ...values, kind: k as ReadingKind, what: USUAL[k as ReadingKind] })}
        />
        <TextField
          path="what"
          label="What was measured"
          value={values.what}
          onChange={(what) => setValues({ ...values, what })}
        />
        <SelectField
          path="state"
          label="State"
          value={values.state}
          options={STATES}
          onChange={(s) => setValues({ ...values, state: s as Reading["state"] })}
        />
        <TextField
          path="value"
          label={`Value, ${READING_KINDS[values.kind].unit}`}
          value={value}
          onChange={setValue}
        />
        <TextField
          path="limit"
          label={values.kind === "network" || values.kind === "disk" ? "Rated, if known" : "Limit, if any"}
          value={limit}
          onChange={setLimit}
        />
        <TextField
          path="how"
          label="Load and minutes"
          value={values.how}
          placeholder="compile, 20 min"
          onChange={(how) => setValues({ ...values, how })}
        />
        <button type="submit" className="btn" disabled={value.trim() === ""}>
          Keep
        </button>
      </form>
      <div className="mt-4">
        <SelectField
          path="drop.state"
          label="State of what is dropped below"
          value={state}
          options={STATES}
          onChange={(s) => setState(s as Reading["state"])}
        />
        <ImportWell
          label="Drop what sensors -j or smartctl -j -a printed"
          onTexts={async (texts) => after(await take(texts, state), "taken")}
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
