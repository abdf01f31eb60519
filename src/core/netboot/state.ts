import { addSeconds } from "../units";
import type { Arming, LoggedBoot } from "./arming";

/** The columns of the board, in the order in which a machine goes through them. */
export const STAGES = ["asked", "script", "kernel", "answers", "installing", "first boot", "done"] as const;
export type Stage = (typeof STAGES)[number];

export interface ArmingState {
  status: "waiting" | "fetching" | "installing" | "done" | "failed" | "expired" | "cancelled";
  /** When each stage was first reached. */
  reached: Partial<Record<Stage, string>>;
  /** Since when all that the installer reads was fetched whole; the script is not given again then. */
  spentAt: string | null;
  /** Why it failed, in the machine's own words, or who cancelled it. */
  why: string;
  /** When it ended, one way or the other; null while it has not, and of one whose time ran out. */
  overAt: string | null;
  /** What it was told when it asked last and was not given its installation; "" once it was. */
  refusal: string;
  /** Who was given the script, and when; it is given once. Null while nobody was, or where it broke off on its way. */
  givenTo: { at: string; address: string } | null;
  /** Who asked for it after that; the last of them. */
  second: { at: string; address: string } | null;
  /** It asked, and waits until others are installed. */
  waitsTurn: boolean;
  /** Since when it should have gone on; null while it is in time. */
  lateSince: string | null;
  /** When it is likely done; null before it has begun and after its end. */
  likelyAt: string | null;
}

/** What has to be fetched whole before the installation counts as begun. */
export const neededOf = ({ initrd, answers }: Arming): string[] => [
  "kernel",
  ...initrd.map((_, i) => `initrd ${i + 1}`),
  ...answers.map((name) => `answers ${name}`),
];

/** A machine that was given the script reads on within this time, also over a slow link. */
const FETCH_SECONDS = 1800;

const REACHES = {
  started: "installing",
  installed: "first boot",
  "first boot": "first boot",
  done: "done",
} as const;

/**
 * How far an armed machine is: a fold over what it asked for and told. What is told twice, out of its order or after the
 * end changes nothing.
 */
export function armingState(arming: Arming, log: readonly LoggedBoot[], now: string): ArmingState {
  const reached: ArmingState["reached"] = {};
  const open = new Set(neededOf(arming));
  let [spentAt, failedAt, why]: [string | null, string | null, string] = [null, null, ""];
  let cancelledAt: string | null = null;
  let refusal = "";
  let waitsTurn = false;
  let givenTo: ArmingState["givenTo"] = null;
  let second: ArmingState["second"] = null;
  /** Bytes of each file that went out in parts: who reads by parts has read it as well. */
  const parts = new Map<string, number>();
  const reach = (stage: Stage, at: string): void => void (reached[stage] ??= at);
  for (const { at, event } of log) {
    if (reached.done || cancelledAt) break;
    switch (event.kind) {
      case "asked":
        reach("asked", at);
        if (event.given) {
          reach("script", at);
          givenTo = { at, address: event.caller.address };
        }
        if (event.second) second = { at, address: event.caller.address };
        refusal = event.words;
        waitsTurn = event.waits;
        break;
      case "fetched":
        if (event.what === "script") {
          if (!event.whole) givenTo = null;
          break;
        }
        parts.set(event.what, (parts.get(event.what) ?? 0) + event.bytes);
        if (!event.whole && (event.of === 0 || parts.get(event.what)! < event.of)) break;
        open.delete(event.what);
        if (event.what === "kernel") reach("kernel", at);
        if (event.what.startsWith("answers ") && arming.answers.every((n) => !open.has(`answers ${n}`)))
          reach("answers", at);
        if (open.size === 0) {
          spentAt ??= at;
          reach("installing", at);
        }
        break;
      case "reported":
        if (event.stage === "failed") {
          failedAt ??= at;
          why ||= event.words;
        } else reach(REACHES[event.stage], at);
        break;
      case "cancelled":
        cancelledAt = at;
        why = event.by;
        break;
      case "refused":
        break;
    }
  }
  const begun = reached.installing ?? null;
  const status = statusOf({ reached, begun, failedAt, cancelledAt, isOver: now > arming.until });
  const isOn = status === "fetching" || status === "installing";
  const due = begun
    ? addSeconds(begun, arming.lateSeconds)
    : reached.script
      ? addSeconds(reached.script, FETCH_SECONDS)
      : null;
  return {
    ...{ status, reached, spentAt, why, refusal, givenTo, second, waitsTurn },
    overAt: reached.done ?? cancelledAt ?? failedAt,
    lateSince: isOn && due !== null && now > due ? due : null,
    likelyAt: isOn && begun ? addSeconds(begun, arming.likelySeconds) : null,
  };
}

function statusOf(of: {
  reached: ArmingState["reached"];
  begun: string | null;
  failedAt: string | null;
  cancelledAt: string | null;
  isOver: boolean;
}): ArmingState["status"] {
  if (of.reached.done) return "done";
  if (of.cancelledAt) return "cancelled";
  if (of.failedAt) return "failed";
  if (of.begun) return "installing";
  if (of.isOver) return "expired";
  return of.reached.script ? "fetching" : "waiting";
}

/** Whether nothing more is given to the machine: the one installation is under way, over, or was called off. */
export const isClosed = ({ status }: ArmingState): boolean =>
  status === "done" || status === "cancelled" || status === "failed" || status === "expired";

/** So long a file may be asked for again by the same installation after all were fetched: a program that tries twice. */
const AGAIN_SECONDS = 120;

/**
 * Why a token does not open what only the beginning of an installation reads any more (kernel, initial file systems, and the
 * answers with what they hold), or null while it does.
 */
export function fileClosed(arming: Arming, state: ArmingState, now: string): string | null {
  if (isClosed(state)) return `the arming is over (${state.status})`;
  if (now > arming.until) return "its time is over";
  return state.spentAt !== null && now > addSeconds(state.spentAt, AGAIN_SECONDS)
    ? "the one installation has read all of its files"
    : null;
}

/**
 * Why a token does not open the script of the first start, or null: it may hold what was sealed, and is read before the machine
 * tells that it is installed.
 */
export const startClosed = (state: ArmingState): string | null =>
  treeClosed(state) ?? (state.reached["first boot"] ? "the machine has read it" : null);

/**
 * Why a token does not open what an installation reads to its end (the tree of the image, and the image), or null: none of it
 * is secret, and an installation that was begun in time goes on after it.
 */
export const treeClosed = (state: ArmingState): string | null =>
  isClosed(state) ? `the arming is over (${state.status})` : null;

/** Why a report is not taken any more, or null: an installation goes on telling after its files are closed. */
export const reportClosed = (state: ArmingState): string | null =>
  state.status === "cancelled" || state.status === "expired" ? `the arming is over (${state.status})` : null;
