"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Done } from "@/contract";
import type { Stage } from "@/core/netboot";
import { formatClock, formatDateTime } from "@/core/units";
import type { BoardLine } from "./board-line";
import { Problems } from "../frame/problems";
import { BoardNotes, isClaimedTwice } from "./board-notes";

const ENDED = ["done", "failed", "expired", "cancelled"];

/** What a person has to know of a row first: in which state it is, and since when it is late or when it is likely done. */
function stand({ state, arming }: BoardLine): string {
  const clock = (at: string): string => formatClock(at, arming.timeZone);
  if (isClaimedTwice({ state })) return "second request";
  if (state.lateSince) return `overdue since ${clock(state.lateSince)}`;
  if (state.status === "failed") return `failed: ${state.why || "no reason reported"}`;
  if (state.status === "cancelled") return `cancelled by ${state.why}`;
  if (state.status === "expired") return "expired";
  if (state.status === "done") return "done";
  if (state.likelyAt) return `expected end ${clock(state.likelyAt)}`;
  if (state.waitsTurn) return "queued until others are installed";
  if (state.refusal) return `refused: ${state.refusal}`;
  return state.status === "waiting" ? `waiting, until ${clock(arming.until)}` : "loading its files";
}

/** The day and the time when it ended: a clock alone would pass for today's. */
function endOf({ state, arming }: BoardLine): string {
  const at = state.status === "expired" ? arming.until : state.overAt;
  return at !== null && ENDED.includes(state.status) ? formatDateTime(at, arming.timeZone) : "";
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
  cancel?: (id: string) => Promise<Done>;
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
      <Problems problems={problems} title="Not cancelled" />
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
              {cancel && <th aria-label="Action" />}
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
    <>
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
            <td
              key={stage}
              className="value"
              title={at ? formatDateTime(at, line.arming.timeZone) : undefined}
            >
              {at ? formatClock(at, line.arming.timeZone) : "–"}
            </td>
          );
        })}
        <td
          className={
            isClaimedTwice(line) || line.state.lateSince || line.state.status === "failed"
              ? "font-semibold text-error"
              : ""
          }
        >
          {stand(line)} <span className="quiet font-normal">{endOf(line)}</span>
        </td>
        {callOff && (
          <td>
            {ENDED.includes(line.state.status) ? (
              <Link className="link" href={`/builds/${line.buildId}/arm`}>
                Arm again
              </Link>
            ) : (
              <button type="button" className="link" onClick={() => void callOff(line.id)}>
                Cancel
              </button>
            )}
          </td>
        )}
      </tr>
      <BoardNotes line={line} columns={stages.length + (callOff ? 4 : 3)} />
    </>
  );
}
