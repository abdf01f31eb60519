import { useId, useState } from "react";
import {
  answerFileBreakEven,
  atOnce,
  breakEven,
  elapsedSeconds,
  handsSeconds,
  sharedSeconds,
  type Way,
  type WayPlan,
  wayWords,
} from "@/core/media";
import { term } from "@/core/text";
import type { WaysView } from "@/core/sheet";
import { formatDuration } from "@/core/units";
import { Field, type FieldMark } from "../fields/fields";
import { FigureValue } from "../fields/figure-value";
import { Unfold } from "../fields/unfold";
import { RadioWord } from "../fields/radio-word";

const COLOUR: Record<WayPlan["verdict"], string> = {
  possible: "var(--color-success)",
  "not certain": "var(--color-warning)",
  "not possible": "var(--color-error)",
};

interface Props {
  ways: WaysView;
  chosen: Way;
  marks: FieldMark[];
  onChoose: (way: Way) => void;
}

/** The way to the machine in one line; what comes before it, what goes wrong, and the other ways, on demand. */
export function WayChoice({ ways, chosen, marks, onChoose }: Props) {
  const own = ways.plans.find((p) => p.way === chosen);
  return (
    <Field path="image.way" label="Boot source" marks={marks} span>
      {own && (
        <>
          <p>
            <b>{wayWords[own.way]}</b>{" "}
            <span className="font-semibold" style={{ color: COLOUR[own.verdict] }}>
              {term(own.verdict)}
            </span>
            , loads in{" "}
            <span className="value">
              {formatDuration(elapsedSeconds(own, 1))}–
              {formatDuration(own.once.lateSeconds + own.each.lateSeconds)}
            </span>
            , attended <span className="value">{formatDuration(handsSeconds(own, 1))}</span>
          </p>
          <p className="quiet text-[0.93rem]">{own.reasons[0]}</p>
          <Unfold title="preparation and known problems">
            <Particulars plan={own} />
          </Unfold>
        </>
      )}
      <Unfold title="Compare boot sources, and for several machines" open={own?.verdict === "not possible"}>
        <WaysTable {...{ ways, chosen, onChoose }} />
      </Unfold>
    </Field>
  );
}

/** The ways side by side: possible or not and why, how long, and what a number of machines would cost. */
function WaysTable({ ways, chosen, onChoose }: Omit<Props, "marks">) {
  const name = useId();
  const [machines, setMachines] = useState(1);
  const { plans } = ways;
  const longest = Math.max(1, ...plans.map((p) => p.once.lateSeconds + p.each.lateSeconds));
  return (
    <>
      <div className="overflow-x-auto">
        <table className="table min-w-[38rem]" aria-label="Compare boot sources">
          <thead>
            <tr>
              <th className="w-28"></th>
              <th>Available</th>
              <th className="w-56">Load time</th>
              <th className="w-28 text-right">Attended time</th>
            </tr>
          </thead>
          <tbody>
            {plans.map((p) => (
              <tr key={p.way}>
                <th scope="row">
                  <RadioWord
                    name={name}
                    text={wayWords[p.way]}
                    checked={chosen === p.way}
                    onChoose={() => onChoose(p.way)}
                  />
                </th>
                <td className="align-top">
                  <span className="font-semibold" style={{ color: COLOUR[p.verdict] }}>
                    {term(p.verdict)}
                  </span>{" "}
                  <span className="quiet text-[0.86rem]">{p.reasons[0]}</span>
                </td>
                <td className="align-top">
                  <FigureValue
                    figure={p.figure}
                    text={`${formatDuration(elapsedSeconds(p, machines))}${machines === 1 ? ` … ${formatDuration(p.once.lateSeconds + p.each.lateSeconds)}` : ""}`}
                  />
                  <Bar plan={p} longest={longest} />
                </td>
                <td className="value text-right whitespace-nowrap">
                  {formatDuration(handsSeconds(p, machines))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="mt-1 flex flex-wrap items-baseline gap-x-4 gap-y-1 text-[0.93rem]">
        <label className="flex items-baseline gap-2">
          <span className="quiet">for</span>
          <input
            className="input value w-14 text-right"
            type="number"
            min={1}
            max={500}
            value={machines}
            aria-label="Number of machines"
            onChange={(e) => setMachines(Math.min(500, Math.max(1, Math.round(Number(e.target.value)) || 1)))}
          />
          <span className="quiet">{machines === 1 ? "machine" : "machines"}</span>
        </label>
        <Pays plans={plans} chosen={chosen} />
        {ways.attendedSeconds !== null && <AnswerFile attendedSeconds={ways.attendedSeconds} />}
        {machines > 1 && <SharedLink ways={ways} machines={machines} />}
      </div>
    </>
  );
}

function Particulars({ plan }: { plan: WayPlan }) {
  return (
    <div className="text-[0.93rem]">
      {plan.reasons.slice(1).map((r) => (
        <p key={r} className="quiet">
          {r}
        </p>
      ))}
      <p>Preparation: {plan.preparation.join(" ")}</p>
      <p>Known problems: {plan.risks.join(" ")}</p>
    </div>
  );
}

/** Once hatched, each solid, late as a thin line; all bars to one scale. */
function Bar({ plan, longest }: { plan: WayPlan; longest: number }) {
  const share = (seconds: number): string => `${(100 * seconds) / longest}%`;
  return (
    <div className="relative mt-1 h-2 w-full" aria-hidden="true">
      <div className="absolute inset-y-0 left-0 flex" style={{ width: "100%" }}>
        <div className="hatched h-full" style={{ width: share(plan.once.likelySeconds) }} />
        <div
          className="h-full"
          style={{ width: share(plan.each.likelySeconds), background: "var(--color-primary)" }}
        />
      </div>
      <div
        className="absolute top-1/2 left-0 h-px"
        style={{ width: share(plan.once.lateSeconds + plan.each.lateSeconds), background: "currentColor" }}
      />
    </div>
  );
}

/** From how many machines another way costs fewer hands than the chosen one. */
function Pays({ plans, chosen }: { plans: readonly WayPlan[]; chosen: Way }) {
  const own = plans.find((p) => p.way === chosen);
  if (!own) return null;
  const better = plans
    .filter((p) => p.way !== chosen && p.verdict !== "not possible")
    .map((p) => ({ way: p.way, from: breakEven(own, p) }))
    .filter((b): b is { way: Way; from: number } => b.from !== null)
    .sort((a, b) => a.from - b.from);
  if (better.length === 0)
    return (
      <span className="quiet">No other boot source needs less attended time for any number of machines.</span>
    );
  return (
    <span>
      Less attended time:{" "}
      {better
        .map((b) => (b.from === 1 ? wayWords[b.way] : `${wayWords[b.way]} for ${b.from} machines or more`))
        .join("; ")}
    </span>
  );
}

/** When an answer file pays follows from what a person says that preparing it takes; without that nothing is computed. */
function AnswerFile({ attendedSeconds }: { attendedSeconds: number }) {
  const [minutes, setMinutes] = useState("");
  const pays = answerFileBreakEven(attendedSeconds, Number(minutes) * 60);
  return (
    <span className="flex flex-wrap items-baseline gap-x-2">
      <label className="flex items-baseline gap-2">
        <span className="quiet">Writing and testing an answer file takes</span>
        <input
          className="input value w-16 text-right"
          inputMode="numeric"
          value={minutes}
          placeholder="?"
          aria-label="Minutes to prepare an answer file"
          onChange={(e) => setMinutes(e.target.value.replace(/[^0-9]/g, "").slice(0, 5))}
        />
        <span className="quiet">min</span>
      </label>
      {pays ? (
        <span>
          and pays off from{" "}
          <FigureValue
            words
            figure={pays.figure}
            text={`${pays.machines} ${pays.machines === 1 ? "machine" : "machines"}`}
          />
        </span>
      ) : (
        <span className="quiet">
          {Number(minutes) > 0
            ? "and never pays off: no step here needs more attended time"
            : "(enter the time to see when it pays off)"}
        </span>
      )}
    </span>
  );
}

const LINKS = [1, 2.5, 10, 25] as const;

/** How many machines one boot server feeds before its link, not their own port, decides. */
function SharedLink({ ways, machines }: { ways: WaysView; machines: number }) {
  const [gigabits, setGigabits] = useState<number>(1);
  const server = (gigabits * 1e9) / 8;
  const seconds = sharedSeconds(machines, ways.bytes, server, ways.portBytesPerSecond);
  return (
    <span className="flex flex-wrap items-baseline gap-x-2">
      <span className="quiet">from one boot server with</span>
      <select
        className="select w-24"
        aria-label="Link of the boot server"
        value={gigabits}
        onChange={(e) => setGigabits(Number(e.target.value))}
      >
        {LINKS.map((g) => (
          <option key={g} value={g}>
            {g} Gbit/s
          </option>
        ))}
      </select>
      <span>
        {atOnce(server, ways.portBytesPerSecond)} at full speed; all {machines} in parallel take{" "}
        <span className="value">{formatDuration(seconds)}</span> each
      </span>
    </span>
  );
}
