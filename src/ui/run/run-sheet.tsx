"use client";

import Link from "next/link";
import { useEffect, useRef, useState } from "react";
import type { CardScreen } from "@/core/answers";
import { isOpen } from "@/core/run";
import { buildBasis, numberWords } from "@/core/procedure";
import { isGuard, reportThatEnds, type Operation } from "@/core/work";
import { addSeconds, formatClock, formatDuration, secondsBetween } from "@/core/units";
import { useKept } from "../draft/use-kept";
import { Problems } from "../frame/problems";
import { Acceptance } from "./acceptance";
import { CardBeside } from "./card-beside";
import { DiffersSlip, WordsSlip, type Asked } from "./slips";
import { RunLog } from "./run-log";
import { StateStrip } from "./state-strip";
import { StepSheet } from "./step-sheet";
import type { RunView } from "@/contract";
import { useNow, useRun } from "./use-run";
import { useKeys } from "../frame/use-keys";

/** Whether a person says that a step was as expected: a guard asks for more, and a machine that installs itself tells it. */
const isSaid = (step: Operation | undefined): step is Operation =>
  step !== undefined && reportThatEnds(step) === null && !isGuard(step);

/** The run, made to stand beside a remote console at 640 px: strip, step, answer, what comes next, log. */
export function RunSheet({ initial, card }: { initial: RunView; card: readonly CardScreen[] }) {
  const run = useRun(initial);
  const { view, say } = run;
  const { plan, state } = view;
  const now = useNow(view.now);
  const [asked, setAsked] = useState<Asked | null>(null);
  const [showLog, setShowLog] = useState(false);
  const [showCard, setShowCard] = useState(false);
  // After a slip the keys are those of the step again, and Enter does not press the button that opened the slip.
  const desk = useRef<HTMLDivElement>(null);
  const step = plan.steps[state.current];
  // A key that is held down, or pressed twice in haste, answers one step; with the server away the run goes on here.
  const hasty = useHaste(state.current);
  const busy = hasty || (run.away === null && run.unsent > 0);
  const mayBeSkipped = step !== undefined && !isGuard(step) && state.status === "running";
  const clock = (iso: string): string => formatClock(iso, plan.site.timeZone);

  const asExpected = (words?: string) =>
    isSaid(step) &&
    state.status === "running" &&
    !busy &&
    (step.records === "" || words !== undefined) &&
    say({ kind: "as expected", step: step.id, words });
  useRunKeys({
    asExpected,
    ask: setAsked,
    skip: () => mayBeSkipped && setAsked({ kind: "skipped" }),
    timer: () => step && state.status === "running" && say({ kind: "timer", step: step.id }),
    step: step ?? null,
    log: () => setShowLog((shown) => !shown),
    card: () => card.length > 0 && setShowCard((shown) => !shown),
  });

  return (
    <div
      ref={desk}
      tabIndex={-1}
      className="mx-auto w-full max-w-[46rem] flex-1 px-4 pb-6 focus:outline-none"
    >
      <RunHead view={view} now={now} />
      <StateStrip state={state} plan={plan} />
      {plan.machine.defects.length > 0 && (
        <p className="mt-1 text-[0.93rem]">
          <span className="font-semibold">Known defect:</span> {plan.machine.defects.join("; ")}
        </p>
      )}
      {run.away && <Away why={run.away} unsent={run.unsent} keeps={run.keeps} />}
      <Problems problems={run.problems} title="Not saved" />
      {state.status === "stopped" && (
        <Stopped why={state.stoppedBy ?? ""} onResume={() => setAsked({ kind: "resumed" })} />
      )}
      {step ? (
        <StepSheet
          key={step.id}
          step={step}
          buildId={view.buildId}
          plan={plan}
          state={state}
          now={now}
          busy={busy || state.status === "stopped"}
          onAsExpected={asExpected}
          onDiffers={() => setAsked({ kind: "differs" })}
          onReadBack={(read) => say({ kind: "read back", step: step.id, ...read })}
          onGuard={(typed) => say({ kind: "guard", step: step.id, typed })}
        />
      ) : null}
      {(step?.kind === "collect" || !step || state.acceptance) && (
        <Acceptance view={view} onAccepted={run.refresh} onSettle={say} />
      )}
      {!step && (
        <HandOver view={view} busy={run.unsent > 0} onHandOver={(to) => say({ kind: "handed over", to })} />
      )}
      <ComingUp view={view} now={now} clock={clock} />
      <Acts
        log={view.log.length}
        {...{ showLog, setShowLog, setAsked, mayBeSkipped, showCard }}
        setShowCard={card.length > 0 ? setShowCard : null}
        onTimer={step && state.status === "running" ? () => say({ kind: "timer", step: step.id }) : null}
      />
      {showCard && <CardBeside card={card} plan={plan} current={state.current} />}
      {showLog && <RunLog view={view} onCorrect={(seq) => setAsked({ kind: "corrected", seq })} />}
      <WordsSlip
        asked={asked}
        step={step?.id ?? null}
        must={step?.must ?? ""}
        after={desk}
        onClose={() => setAsked(null)}
        onSay={say}
      />
      <DiffersSlip
        open={asked?.kind === "differs"}
        guard={step !== undefined && isGuard(step)}
        must={step?.must ?? ""}
        after={desk}
        onClose={() => setAsked(null)}
        onDecide={(seen, decision) => step && say({ kind: "differs", step: step.id, seen, decision })}
      />
    </div>
  );
}

/** The keys of the run that the sheet of keys names; "as expected" is not pressed over a link, a button or a slip. */
function useRunKeys({
  asExpected,
  ask,
  skip,
  timer,
  step,
  log,
  card,
}: {
  asExpected: () => void;
  ask: (asked: Asked) => void;
  skip: () => void;
  timer: () => void;
  step: Operation | null;
  log: () => void;
  card: () => void;
}): void {
  useKeys("enter", (e) => {
    if (e.target instanceof HTMLElement && e.target.closest("a,button,summary,dialog")) return;
    // The next step may put the focus into its field, and this press is not an answer there.
    e.preventDefault();
    asExpected();
  });
  useKeys("d", () => step && ask({ kind: "differs" }));
  useKeys("n", () => ask({ kind: "note" }));
  useKeys("r", () => ask({ kind: "reading" }));
  useKeys("s", skip);
  useKeys("t", timer);
  useKeys("c", () => void (step?.lines[0] && navigator.clipboard.writeText(step.lines[0].value)));
  useKeys("l", log);
  useKeys("k", card);
}

function RunHead({ view, now }: { view: RunView; now: string }) {
  const { plan, state } = view;
  const step = plan.steps[state.current];
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 pt-2">
      <h1 className="text-[1.15rem] font-semibold">
        {plan.machine.name} <span className="quiet font-normal">· {numberWords(plan)}</span>
      </h1>
      <Link href={`/builds/${view.buildId}`} className="link quiet text-[0.93rem]">
        Build sheet
      </Link>
      <span className="value ml-auto">
        {step ? `step ${state.current + 1} of ${plan.steps.length}` : "all steps done"}
      </span>
      {state.startedAt && (
        <span className="value">
          {formatDuration(secondsBetween(state.startedAt, state.endedAt ?? now))} elapsed
        </span>
      )}
    </div>
  );
}

/** What can be written beside the answer to a step. */
function Acts({
  log,
  showLog,
  setShowLog,
  setAsked,
  mayBeSkipped,
  showCard,
  setShowCard,
  onTimer,
}: {
  /** Lines of the log. */
  log: number;
  showLog: boolean;
  setShowLog: (show: boolean) => void;
  setAsked: (asked: Asked) => void;
  mayBeSkipped: boolean;
  showCard: boolean;
  /** Null where the plan has no screens. */
  setShowCard: ((show: boolean) => void) | null;
  onTimer: (() => void) | null;
}) {
  return (
    <div className="mt-3 flex flex-wrap gap-2 border-t pt-3 border-base-300">
      <Act text="Note" letter="N" onClick={() => setAsked({ kind: "note" })} />
      <Act text="Measurement" letter="R" onClick={() => setAsked({ kind: "reading" })} />
      {onTimer && <Act text="Timer" letter="T" onClick={onTimer} />}
      {mayBeSkipped && <Act text="Skip" letter="S" onClick={() => setAsked({ kind: "skipped" })} />}
      {setShowCard && (
        <Act
          text={showCard ? "Hide answer card" : "Answer card"}
          letter="K"
          onClick={() => setShowCard(!showCard)}
        />
      )}
      <Act text={showLog ? "Hide log" : `Log (${log})`} letter="L" onClick={() => setShowLog(!showLog)} />
    </div>
  );
}

/** So long a new step must have been seen before a key can answer it. */
const LEAST_SEEN = 700;

/** True for a moment after the step has changed. */
function useHaste(step: number): boolean {
  const [seen, setSeen] = useState(step);
  useEffect(() => {
    const timer = setTimeout(() => setSeen(step), LEAST_SEEN);
    return () => clearTimeout(timer);
  }, [step]);
  return seen !== step;
}

/** Why nothing reaches the server, and where the answers are meanwhile. */
function Away({ why, unsent, keeps }: { why: string; unsent: number; keeps: boolean }) {
  const answers = unsent === 1 ? "One answer is" : `${unsent} answers are`;
  return (
    <p role="status" className="mt-2 border-l-4 bg-base-200 px-3 py-1.5 border-warning">
      {why}{" "}
      {unsent === 0
        ? "Trying again; this page may be outdated."
        : keeps
          ? `${answers} kept in this browser, not yet on the server; sent as soon as it responds.`
          : `${answers} kept in this window only, because this browser stores nothing: leave it open until they are sent.`}
    </p>
  );
}

function Act({ text, letter, onClick }: { text: string; letter: string; onClick: () => void }) {
  return (
    <button type="button" className="btn" onClick={onClick}>
      {text}
      {letter && <span className="kbd">{letter}</span>}
    </button>
  );
}

function Stopped({ why, onResume }: { why: string; onResume: () => void }) {
  return (
    <div role="alert" className="mt-3 border-2 px-4 py-3 border-error">
      <p className="text-[1.07rem] font-semibold text-error">The run is stopped</p>
      <p className="my-1">{why}</p>
      <button type="button" className="btn" onClick={onResume}>
        Record what was done, and resume
      </button>
    </div>
  );
}

/** What comes next, and when hands are needed next. */
function ComingUp({ view, now, clock }: { view: RunView; now: string; clock: (iso: string) => string }) {
  const { plan, state, hands } = view;
  const next = plan.steps[state.current + 1];
  const rest = plan.steps.slice(state.current + 1);
  const left = rest.reduce((sum, s) => sum + s.duration.likelySeconds, 0);
  const wait = rest.findIndex((s) => s.kind === "wait");
  const waiting = wait >= 0 ? rest[wait] : undefined;
  if (!hands && !next) return null;
  return (
    <dl className="mt-4 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 border-t pt-3 border-base-300">
      {hands && (
        <>
          <dt className="label pt-0.5">Action</dt>
          <dd className={hands.late ? "font-semibold" : ""}>
            <span className="value font-semibold">{hands.at <= now ? "now" : clock(hands.at)}</span>{" "}
            {hands.what}
          </dd>
        </>
      )}
      {next && (
        <>
          <dt className="label pt-0.5">Next</dt>
          <dd>
            {/* The next screen's own title may say what is asked here. */}
            {plan.steps[state.current]?.kind === "read back" ? "the page that this opens" : next.title}
            {waiting && waiting !== next && (
              <span className="quiet">
                {" "}
                · then, after {wait} {wait === 1 ? "step" : "steps"},{" "}
                {formatDuration(waiting.duration.likelySeconds)} unattended
              </span>
            )}
            {waiting === next && (
              <span className="quiet"> · {formatDuration(next.duration.likelySeconds)} unattended</span>
            )}
          </dd>
          <dt className="label pt-0.5">Expected end</dt>
          <dd className="value">
            <span className="quiet font-sans">about</span> {clock(addSeconds(now, left))}
          </dd>
        </>
      )}
    </dl>
  );
}

const MOST_NAMED = 6;

function HandOver({
  view,
  busy,
  onHandOver,
}: {
  view: RunView;
  busy: boolean;
  onHandOver: (to: string) => void;
}) {
  const { state, plan } = view;
  // What differs is named before what nobody saw.
  const rest = view.acceptance.filter(isOpen);
  const open = [
    ...rest.filter((l) => l.verdict === "differs"),
    ...rest.filter((l) => l.verdict !== "differs"),
  ];
  const [to, setTo] = useKept("handed to", buildBasis(plan)?.sheet.handOver.owner ?? "");
  if (state.status === "handed over")
    return (
      <p className="mt-4 text-[1.07rem]">
        Handed over to <strong>{state.handedTo}</strong>.{" "}
        <Link className="btn btn-primary ml-2" href={`/runs/${view.id}/record`}>
          Open record
        </Link>
      </p>
    );
  return (
    <form
      className="mt-4 flex flex-wrap items-end gap-3 border-t pt-4 border-base-content"
      onSubmit={(e) => {
        e.preventDefault();
        onHandOver(to);
      }}
    >
      <label className="flex-1">
        <span className="label">Handed over to</span>
        <input className="input" value={to} maxLength={200} onChange={(e) => setTo(e.target.value)} />
      </label>
      <button
        type="submit"
        className="btn btn-primary"
        disabled={busy || !state.acceptance || open.length > 0 || to.trim() === ""}
      >
        Hand over
      </button>
      {!state.acceptance ? (
        <p className="quiet w-full">
          First import the bundle of the installed system and resolve all deviations above.
        </p>
      ) : (
        open.length > 0 && (
          <p className="w-full font-medium text-error">
            {open.length === 1 ? "One line is unresolved" : `${open.length} lines are unresolved`}:{" "}
            {open
              .slice(0, MOST_NAMED)
              .map((l) => l.what)
              .join(", ")}
            {open.length > MOST_NAMED ? ` and ${open.length - MOST_NAMED} more` : ""}.
          </p>
        )
      )}
    </form>
  );
}
