"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Answer, BatchResult, Turns } from "@/contract";
import { lastTurnSeconds } from "@/core/netboot";
import { formatDuration } from "@/core/units";
import { TypedProof } from "../fields/typed-proof";
import { Problems } from "../frame/problems";
import { CodeChoice } from "./code-choice";
import { MinutesField } from "./minutes-field";

interface Row {
  build: string;
  number: string;
  machine: string;
  problems: readonly string[];
  ready: { tail: number; image: string; erases: readonly string[]; secrets: readonly string[] } | null;
}
type Arm = (
  asked: { build: string; typed: string }[],
  how: { minutes: number; asksCode: boolean },
) => Promise<Answer<BatchResult[]>>;

/** One line for each machine: what it loses, and the field for the end of its serial; what came of it stands in its line. */
export function BatchForm({ rows, turns, arm }: { rows: readonly Row[]; turns: Turns | null; arm: Arm }) {
  const router = useRouter();
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [results, setResults] = useState<readonly BatchResult[]>([]);
  const [minutes, setMinutes] = useState(60);
  const secrets = rows.flatMap(({ machine, ready }) =>
    ready && ready.secrets.length > 0 ? [`${ready.secrets.join(" and ")} (${machine})`] : [],
  );
  const [asksCode, setAsksCode] = useState(secrets.length > 0);
  const [busy, setBusy] = useState(false);
  const [problems, setProblems] = useState<readonly { message: string }[]>([]);
  const asked = rows.flatMap(({ build, ready }) =>
    ready && (typed[build] ?? "").trim() !== "" ? [{ build, typed: typed[build] ?? "" }] : [],
  );
  const send = async (): Promise<void> => {
    setBusy(true);
    const answer = await arm(asked, { minutes, asksCode });
    setBusy(false);
    setTyped({});
    setProblems(answer.ok ? [] : answer.problems);
    if (!answer.ok) return;
    setResults(answer.value);
    router.refresh();
  };
  const armed = results.filter((r) => r.armed).length;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (asked.length > 0 && !busy) void send();
      }}
    >
      <Problems problems={problems} title="Not armed" />
      {results.length > 0 && (
        <p role="status" className="mb-2 font-semibold">
          {armed} of {results.length} {results.length === 1 ? "machine" : "machines"} armed
          {armed < results.length && "; see the lines of the others for the reason"}.
        </p>
      )}
      <table className="table" aria-label="Machines to arm">
        <thead>
          <tr>
            <th>Machine</th>
            <th>Sheet</th>
            <th>Data that will be erased</th>
            <th>End of its serial number</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <BatchRow
              key={row.build}
              row={row}
              typed={typed[row.build] ?? ""}
              type={(text) => setTyped((all) => ({ ...all, [row.build]: text }))}
              refused={results.find((r) => r.build === row.build && !r.armed)?.words ?? ""}
            />
          ))}
        </tbody>
      </table>
      {turns && <LastTurn {...turns} asked={asked.length} minutes={minutes} />}
      <div className="max-w-2xl">
        <CodeChoice {...{ asksCode, secrets }} choose={setAsksCode} />
      </div>
      <div className="mt-4 flex flex-wrap items-end gap-4">
        <label>
          <span className="label">Valid for</span>
          <MinutesField value={minutes} onChange={setMinutes} />
        </label>
        <button type="submit" className="btn btn-primary" disabled={busy || asked.length === 0}>
          {asked.length === 0
            ? "Arm machines with a typed serial number"
            : `Arm ${asked.length} ${asked.length === 1 ? "machine" : "machines"}`}
        </button>
      </div>
    </form>
  );
}

/** Where so many are armed for so short that the last of them would have its turn when its time is over. */
function LastTurn({ atOnce, eachSeconds, open, asked, minutes }: Turns & { asked: number; minutes: number }) {
  const all = open + asked;
  const last = lastTurnSeconds(all, atOnce, eachSeconds);
  if (asked === 0 || last <= minutes * 60) return null;
  return (
    <p role="alert" className="mt-4 font-semibold text-warning">
      {atOnce === 1 ? "One machine installs" : `${atOnce} machines install`} at a time, of {all}: the last one
      starts after about {formatDuration(last)}, when its arming has expired. Choose a longer time.
    </p>
  );
}

function BatchRow({
  row: { build, number, machine, ready, problems },
  typed,
  type,
  refused,
}: {
  row: Row;
  typed: string;
  type: (text: string) => void;
  refused: string;
}) {
  return (
    <tr className="align-top">
      <td className="font-semibold">{machine}</td>
      <td className="whitespace-nowrap">
        <Link className="link" href={ready ? `/builds/${build}/arm` : `/builds/${build}`}>
          {number}
        </Link>
      </td>
      {ready ? (
        <>
          <td>
            <ul>
              {ready.erases.map((words) => (
                <li key={words}>{words}</li>
              ))}
            </ul>
            <span className="quiet">Installs {ready.image}</span>
          </td>
          <td>
            <TypedProof
              className="input tracking-wider uppercase"
              value={typed}
              onChange={type}
              label={`Last ${ready.tail} characters of the serial number of ${machine}`}
            />
            <span className="quiet">last {ready.tail} characters, as on the machine</span>
            {refused && <p className="text-error">{refused}</p>}
          </td>
        </>
      ) : (
        <td colSpan={2}>
          <ul>
            {problems.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </td>
      )}
    </tr>
  );
}
