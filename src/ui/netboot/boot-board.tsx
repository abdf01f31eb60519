"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Caller, Stage } from "@/core/netboot";
import { formatClock, formatDateTime } from "@/core/units";
import type { BoardLine } from "./board-line";
import { Problems } from "../frame/problems";

export interface Stranger {
  mac: string;
  times: number;
  at: string;
  caller: Caller;
  /** The machine that it is by its MAC; null for one that nobody knows. */
  machine: { id: string; name: string } | null;
}

interface Answered {
  ok: boolean;
  problems?: readonly { message: string }[];
}

const ENDED = ["done", "failed", "expired", "cancelled"];

/** What a person has to know of a row first: in which state it is, and since when it is late or when it is likely done. */
function stand({ state, arming }: BoardLine): string {
  const clock = (at: string): string => formatClock(at, arming.timeZone);
  if (state.lateSince) return `late since ${clock(state.lateSince)}`;
  if (state.status === "failed") return `failed: ${state.why || "it did not say why"}`;
  if (state.status === "cancelled") return `called off by ${state.why}`;
  if (state.status === "expired") return "its time ran out";
  if (state.status === "done") return "done";
  if (state.likelyAt) return `likely done ${clock(state.likelyAt)}`;
  if (state.waitsTurn) return "asked, and waits until others are installed";
  if (state.refusal) return `asked, and was not let in: ${state.refusal}`;
  return state.status === "waiting" ? `waits, until ${clock(arming.until)}` : "reads its files";
}

/** Machines that were armed, with the stages that each has reached. */
export function BootBoard({
  lines,
  stages,
  cancel,
}: {
  lines: readonly BoardLine[];
  stages: readonly Stage[];
  /** Absent where the board is only looked at. */
  cancel?: (id: string) => Promise<Answered>;
}) {
  const router = useRouter();
  const [problems, setProblems] = useState<readonly { message: string }[]>([]);
  const callOff = async (id: string): Promise<void> => {
    if (!cancel) return;
    const answer = await cancel(id);
    setProblems(answer.ok ? [] : (answer.problems ?? []));
    router.refresh();
  };
  return (
    <>
      <Problems problems={problems} title="Not called off" />
      <div className="overflow-x-auto">
        <table className="table" aria-label="Armed machines">
          <thead>
            <tr>
              <th>Machine</th>
              <th>Sheet</th>
              {stages.map((stage) => (
                <th key={stage}>{stage}</th>
              ))}
              <th>State</th>
              {cancel && <th aria-label="Act" />}
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <BoardRow key={line.id} line={line} stages={stages} callOff={cancel && callOff} />
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

function BoardRow({
  line,
  stages,
  callOff,
}: {
  line: BoardLine;
  stages: readonly Stage[];
  callOff?: ((id: string) => Promise<void>) | undefined;
}) {
  return (
    <tr>
      <td>
        <Link className="link font-semibold" href={`/machines/${line.arming.machine.id}`}>
          {line.arming.machine.name}
        </Link>
      </td>
      <td>
        <Link className="link" href={`/builds/${line.buildId}`}>
          {line.arming.build.number} {line.arming.build.revision}
        </Link>
      </td>
      {stages.map((stage) => {
        const at = line.state.reached[stage];
        return (
          <td key={stage} className="value" title={at ? formatDateTime(at, line.arming.timeZone) : undefined}>
            {at ? formatClock(at, line.arming.timeZone) : "–"}
          </td>
        );
      })}
      <td
        className={line.state.lateSince || line.state.status === "failed" ? "font-semibold text-error" : ""}
      >
        {stand(line)}
      </td>
      {callOff && (
        <td>
          {ENDED.includes(line.state.status) ? (
            <Link className="link" href={`/builds/${line.buildId}/arm`}>
              arm anew
            </Link>
          ) : (
            <button type="button" className="link" onClick={() => void callOff(line.id)}>
              call off
            </button>
          )}
        </td>
      )}
    </tr>
  );
}

/** Machines that asked and that nobody has armed; a machine that no site is known of has no time zone either. */
export function Strangers({ strangers }: { strangers: readonly Stranger[] }) {
  return (
    <table className="table" aria-label="Machines that asked and are not armed">
      <thead>
        <tr>
          <th>Asked last</th>
          <th>MAC</th>
          <th>Machine, or its serial</th>
          <th>Maker and model</th>
          <th>From</th>
          <th>Times</th>
        </tr>
      </thead>
      <tbody>
        {strangers.map(({ mac, times, at, caller, machine }) => (
          <tr key={mac}>
            <td className="value">{formatDateTime(at, "UTC")} UTC</td>
            <td className="value">{mac || "not told"}</td>
            <td className="value">
              {/* Of a known machine it is asked for when it is armed: it is read at the machine, and not here. */}
              {machine ? (
                <Link className="link font-sans" href={`/machines/${machine.id}`}>
                  {machine.name}
                </Link>
              ) : (
                caller.serial || "not told"
              )}
            </td>
            <td>{[caller.maker, caller.model].filter(Boolean).join(" ") || "not told"}</td>
            <td className="value">{caller.address}</td>
            <td className="value">{times}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
