"use client";

import { formatNumber } from "@/core/units";
import { proxy, wrap } from "comlink";
import { useEffect, useRef, useState } from "react";
import {
  chance,
  trialOf,
  type BenchCandidate,
  type BenchQuestion,
  type TrialResult,
  type TrialThread,
} from "@/core/storage";

const RUNS = 200_000;
/** Drives of one batch, as fleets have told of them: while one is lost the others fail several times as often. */
const BATCHES = [1, 3, 10];

interface Props {
  candidate: BenchCandidate;
  question: BenchQuestion;
  sizes: readonly number[];
}

/** The chance of loss by drawing systems, beside the chain; and for drives that fail together, which the chain knows not. */
export function TrialCheck({ candidate, question, sizes }: Props) {
  const [batch, setBatch] = useState(1);
  const [result, setResult] = useState<TrialResult | null>(null);
  const [running, setRunning] = useState(false);
  const thread = useRef<Worker | null>(null);
  const stop = (): void => {
    thread.current?.terminate();
    thread.current = null;
    setRunning(false);
  };
  useEffect(() => () => thread.current?.terminate(), []);
  const start = (): void => {
    const worker = new Worker(new URL("../../workers/trial-worker.ts", import.meta.url), { type: "module" });
    thread.current = worker;
    setResult(null);
    setRunning(true);
    const told = (soFar: TrialResult): void => {
      if (thread.current !== worker) return;
      setResult(soFar);
      if (soFar.runs >= RUNS) stop();
    };
    void wrap<TrialThread>(worker).run(
      trialOf(candidate, sizes, question, batch, 20_261_126),
      RUNS,
      proxy(told),
    );
  };
  return (
    <div className="mt-3" aria-label="Simulation" role="group">
      <div className="flex flex-wrap items-end gap-3">
        <label>
          <span className="label">Correlated failures (same batch)</span>
          <select
            className="select"
            value={batch}
            disabled={running}
            onChange={(e) => setBatch(Number(e.target.value))}
          >
            {BATCHES.map((b) => (
              <option key={b} value={b}>
                {b === 1 ? "independent" : `${b} times as often together`}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="btn" onClick={running ? stop : start}>
          {running ? "Stop" : "Run simulation"}
        </button>
        {running && (
          <progress className="w-40" max={RUNS} value={result?.runs ?? 0} aria-label="Simulated systems" />
        )}
      </div>
      {result && <Found result={result} candidate={candidate} batch={batch} running={running} />}
    </div>
  );
}

function Found({
  result,
  candidate,
  batch,
  running,
}: {
  result: TrialResult;
  candidate: BenchCandidate;
  batch: number;
  running: boolean;
}) {
  const { runs, losses, from, to } = result;
  const isIn = candidate.loss >= from && candidate.loss <= to;
  return (
    <p role="status" className="mt-1" data-trial={running ? "running" : "done"}>
      {formatNumber(losses)} of {formatNumber(runs)} systems lost data: {chance(result.share)}, 95 %
      confidence interval {chance(from)} to {chance(to)}.{" "}
      {batch === 1
        ? `The Markov chain gives ${chance(candidate.loss)}${isIn ? ", inside this interval" : ""}.`
        : `Independent failures: ${chance(candidate.loss)}.`}
    </p>
  );
}
