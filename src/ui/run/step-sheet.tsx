"use client";

import type { Procedure } from "@/core/procedure";
import { TriangleAlert } from "lucide-react";
import Link from "next/link";
import { useState, type ReactNode } from "react";
import { isGuard, reportThatEnds, sightWords, type Operation, type OperationOf } from "@/core/work";
import type { RunState } from "@/core/run";
import { formatClock, formatDuration, secondsBetween } from "@/core/units";
import { useKept } from "../draft/use-kept";
import { CopyValue } from "../frame/copy-value";
import { FigureValue } from "../fields/figure-value";
import { ReadBackForm, type ReadFromConsole } from "./read-back-form";
import { TypedProof } from "../fields/typed-proof";

interface Props {
  step: Operation;
  buildId: string;
  plan: Procedure;
  state: RunState;
  now: string;
  busy: boolean;
  onAsExpected: (words?: string) => void;
  onDiffers: () => void;
  onGuard: (typed: string) => void;
  onReadBack: (read: ReadFromConsole) => void;
}

/** The current step, large: what must be seen, what may not be there, what to do and type, and the answer. */
export function StepSheet({
  step,
  buildId,
  plan,
  state,
  now,
  busy,
  onAsExpected,
  onDiffers,
  onGuard,
  onReadBack,
}: Props) {
  const leaveAlone = step.kind === "name drive" ? step.leaveAlone : [];
  const report = reportThatEnds(step);
  return (
    <section aria-label="Current step" aria-busy={busy && state.status !== "stopped"} className="mt-4">
      <p className="label">
        zone {step.zone} · {step.place}
        {isGuard(step) && " · guard"}
        {step.kind === "wait" && " · wait"}
      </p>
      <h2 className="text-[1.65rem] leading-tight font-semibold">{step.title}</h2>
      {step.hazards.map((h) => (
        <p key={h} className="mt-2 flex gap-2 font-medium text-warning">
          <TriangleAlert aria-label="Warning" size={17} className="mt-0.5 shrink-0" />
          {h}
        </p>
      ))}
      <div className="mt-3 space-y-3 text-[1.07rem]">
        <Part title="Actions" show={step.do.length > 0}>
          <ul className="space-y-0.5">
            {step.do.map((d) => (
              <li key={d}>{d}</li>
            ))}
          </ul>
        </Part>
        <Part title="You should see" show={step.sees.length > 0}>
          <ul className="space-y-0.5">
            {step.sees.map(sightWords).map((s) => (
              <li key={s} className="value border-l-2 pl-2 [overflow-wrap:anywhere] border-success">
                {s}
              </li>
            ))}
          </ul>
        </Part>
        <Part title="Stop if you see" show={step.never.length > 0 || leaveAlone.length > 0}>
          <ul className="space-y-0.5">
            {step.never.map(sightWords).map((s) => (
              <li key={s} className="border-l-2 pl-2 border-error">
                {s}
              </li>
            ))}
          </ul>
          {leaveAlone.length > 0 && <LeaveAlone drives={leaveAlone} />}
        </Part>
        <Part title="Type" show={step.lines.length > 0 || step.secrets.length > 0}>
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
            {step.lines.map((t) => (
              <div key={t.label} className="contents">
                <dt className="quiet">{t.label}</dt>
                <dd>
                  <CopyValue value={t.value} className="text-[1.15rem]" />
                </dd>
              </div>
            ))}
          </dl>
          {step.secrets.map((s) => (
            <p key={s}>{s}</p>
          ))}
        </Part>
        <Part title="Keys" show={step.keys !== ""}>
          <span className="value font-semibold">{step.keys}</span>
        </Part>
        <Part title="Looks wrong but is normal" show={step.normal.length > 0}>
          <ul>
            {step.normal.map(({ sight, means }) => (
              <li key={sightWords(sight)}>
                {sightWords(sight)} <span className="quiet">– {means}</span>
              </li>
            ))}
          </ul>
        </Part>
      </div>
      <Timer step={step} state={state} now={now} timeZone={plan.site.timeZone} />
      {step.kind === "name drive" ? (
        <GuardForm asks={step.asks} busy={busy} onGuard={onGuard} onDiffers={onDiffers} />
      ) : step.kind === "read back" ? (
        <ReadBackForm asks={step.asks} busy={busy} onReadBack={onReadBack} onDiffers={onDiffers} />
      ) : report ? (
        <EndsItself buildId={buildId} arms={report === "armed"} busy={busy} onDiffers={onDiffers} />
      ) : (
        <Answers asks={step.records} busy={busy} onAsExpected={onAsExpected} onDiffers={onDiffers} />
      )}
    </section>
  );
}

/** So many drives stand in the list itself; more would push the question out of sight. */
const MOST_LISTED = 4;

/** The drives that must not be named, each by its serial tail and what stands on it. */
function LeaveAlone({ drives }: { drives: OperationOf<"name drive">["leaveAlone"] }) {
  const list = (
    <ul className="space-y-0.5">
      {drives.map((d) => (
        <li key={d.name} className="border-l-2 pl-2 border-error">
          <span className="value">{d.name}</span> <span className="quiet">– protected: {d.holds}</span>
        </li>
      ))}
    </ul>
  );
  if (drives.length <= MOST_LISTED) return list;
  return (
    <details>
      <summary className="link cursor-pointer">{drives.length} protected drives</summary>
      {list}
    </details>
  );
}

/** As expected or not; where the step asks for something to be written down, that comes first. */
function Answers({
  asks,
  busy,
  onAsExpected,
  onDiffers,
}: { asks: string } & Pick<Props, "busy" | "onAsExpected" | "onDiffers">) {
  const [words, setWords] = useKept(`asked: ${asks}`, "");
  return (
    <form
      className="mt-5"
      onSubmit={(e) => {
        e.preventDefault();
        onAsExpected(words.trim() || undefined);
        setWords("");
      }}
    >
      {asks && (
        <label className="mb-3 block">
          <span className="text-[1.07rem]">{asks}</span>
          <input
            className="input mt-1"
            value={words}
            maxLength={400}
            placeholder="the location; it is recorded"
            onChange={(e) => setWords(e.target.value)}
          />
        </label>
      )}
      <div className="flex gap-3">
        <button
          type="submit"
          disabled={busy || (asks !== "" && words.trim() === "")}
          className="btn btn-primary flex-1 justify-center py-2.5 text-[1.15rem]"
        >
          Confirm <span className="kbd">Enter</span>
        </button>
        <button
          type="button"
          disabled={busy}
          onClick={onDiffers}
          className="btn flex-1 justify-center py-2.5 text-[1.15rem]"
        >
          Report a difference <span className="kbd">D</span>
        </button>
      </div>
    </form>
  );
}

/** A step that the machine ends, by what it asks the boot service for and tells it: nobody says that it was as expected. */
function EndsItself({
  buildId,
  arms,
  busy,
  onDiffers,
}: { buildId: string; arms: boolean } & Pick<Props, "busy" | "onDiffers">) {
  return (
    <div className="mt-5 border-2 p-4 border-base-content">
      <p className="text-[1.07rem]">
        {arms
          ? "Nothing to confirm: the run continues when the machine is armed."
          : "Nothing to confirm: the run continues with the requests and reports of the machine."}
      </p>
      <div className="mt-3 flex gap-3">
        <Link
          className={`btn flex-1 justify-center py-2 ${arms ? "btn-primary" : ""}`}
          href={arms ? `/builds/${buildId}/arm` : "/builds/netboot"}
        >
          {arms ? "Arm the machine" : "Network installations"}
        </Link>
        <button type="button" className="btn flex-1 justify-center py-2" disabled={busy} onClick={onDiffers}>
          Report a difference <span className="kbd">D</span>
        </button>
      </div>
    </div>
  );
}

function Part({ title, show, children }: { title: string; show: boolean; children: ReactNode }) {
  if (!show) return null;
  return (
    <div className="grid gap-x-4 sm:grid-cols-[8rem_minmax(0,1fr)]">
      <h3 className="label pt-1">{title}</h3>
      <div className="min-w-0">{children}</div>
    </div>
  );
}

function GuardForm({
  asks,
  busy,
  onGuard,
  onDiffers,
}: {
  asks: string;
  busy: boolean;
  onGuard: (typed: string) => void;
  onDiffers: () => void;
}) {
  const [typed, setTyped] = useState("");
  return (
    <form
      className="mt-5 border-2 p-4 border-error"
      onSubmit={(e) => {
        e.preventDefault();
        onGuard(typed);
        setTyped("");
      }}
    >
      <label className="block">
        <span className="text-[1.07rem]">Type {asks}</span>
        <TypedProof
          autoFocus
          className="input mt-1 text-[1.5rem] tracking-wider uppercase"
          value={typed}
          onChange={setTyped}
          label="What the console shows"
        />
      </label>
      <div className="mt-3 flex gap-3">
        <button
          type="submit"
          className="btn btn-primary flex-1 justify-center py-2"
          disabled={busy || typed.trim() === ""}
        >
          This is the drive <span className="kbd">Enter</span>
        </button>
        <button type="button" className="btn" disabled={busy} onClick={onDiffers}>
          Report a difference
        </button>
      </div>
    </form>
  );
}

/** How long it takes, likely and late; while a timer runs, a bar from its start to its late time. */
function Timer({
  step,
  state,
  now,
  timeZone,
}: {
  step: Operation;
  state: RunState;
  now: string;
  timeZone: string;
}) {
  const { duration, figure } = step;
  const words = `about ${formatDuration(duration.likelySeconds)}, up to ${formatDuration(duration.lateSeconds)}`;
  const { timer } = state;
  if (!timer)
    return <p className="quiet mt-4">{figure ? <FigureValue text={words} figure={figure} /> : words}</p>;
  const whole = Math.max(secondsBetween(timer.startedAt, timer.lateAt), 1);
  const gone = Math.max(0, secondsBetween(timer.startedAt, now));
  const likely = (100 * secondsBetween(timer.startedAt, timer.likelyAt)) / whole;
  const late = now > timer.lateAt;
  const left = secondsBetween(now, timer.likelyAt);
  return (
    <div className="mt-4" role="timer" aria-label="Timer">
      <p className="flex flex-wrap gap-x-4">
        <strong className="value text-[1.3rem]">
          {late
            ? `overdue since ${formatClock(timer.lateAt, timeZone)}`
            : left > 0
              ? `${formatDuration(left)} left`
              : "due now"}
        </strong>
        <span className="quiet self-center">
          expected {formatClock(timer.likelyAt, timeZone)}, overdue after{" "}
          {formatClock(timer.lateAt, timeZone)}
        </span>
      </p>
      <div className={`relative mt-1 h-3 border border-current ${late ? "text-error" : ""}`}>
        <div className="hatched h-full" style={{ width: `${Math.min(100, (100 * gone) / whole)}%` }} />
        <span
          aria-hidden="true"
          className="absolute -top-1 h-5 w-px bg-current"
          style={{ left: `${likely}%` }}
        />
      </div>
      {figure && (
        <p className="quiet mt-1">
          <FigureValue text="calculation" figure={figure} />
        </p>
      )}
    </div>
  );
}
