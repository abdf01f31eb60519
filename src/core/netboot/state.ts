import { addSeconds } from "../units";
import type { Arming, BootEvent, LoggedBoot } from "./arming";

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
  /** Who showed a code that is not the one of the arming, how often in all, and when last; null while nobody did. */
  wrongCode: { at: string; address: string; times: number } | null;
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

/** What a log comes to, before the time of looking is known. */
interface Heard {
  reached: ArmingState["reached"];
  /** What is to be fetched yet. */
  open: ReadonlySet<string>;
  spentAt: string | null;
  failedAt: string | null;
  cancelledAt: string | null;
  why: string;
  refusal: string;
  waitsTurn: boolean;
  givenTo: ArmingState["givenTo"];
  second: ArmingState["second"];
  wrongCode: ArmingState["wrongCode"];
  /** Bytes of each file that went out in parts: who reads by parts has read it as well. */
  parts: Readonly<Record<string, number>>;
}

const unheard = (arming: Arming): Heard => ({
  ...{ reached: {}, open: new Set(neededOf(arming)), parts: {} },
  ...{ spentAt: null, failedAt: null, cancelledAt: null, why: "", refusal: "" },
  ...{ waitsTurn: false, givenTo: null, second: null, wrongCode: null },
});

const reach = (heard: Heard, stage: Stage, at: string): Heard =>
  heard.reached[stage] ? heard : { ...heard, reached: { ...heard.reached, [stage]: at } };

function asked(heard: Heard, at: string, event: Extract<BootEvent, { kind: "asked" }>): Heard {
  const next = reach(heard, "asked", at);
  const by = { at, address: event.caller.address };
  return {
    ...(event.given ? { ...reach(next, "script", at), givenTo: by } : next),
    ...(event.second && { second: by }),
    ...(event.wrongCode && { wrongCode: { ...by, times: (heard.wrongCode?.times ?? 0) + 1 } }),
    ...{ refusal: event.words, waitsTurn: event.waits },
  };
}

function fetched(
  heard: Heard,
  at: string,
  { what, whole, bytes, of }: Extract<BootEvent, { kind: "fetched" }>,
  { answers }: Arming,
): Heard {
  if (what === "script") return whole ? heard : { ...heard, givenTo: null };
  const read = (heard.parts[what] ?? 0) + bytes;
  let next: Heard = { ...heard, parts: { ...heard.parts, [what]: read } };
  if (!whole && (of === 0 || read < of)) return next;
  const open = new Set([...next.open].filter((name) => name !== what));
  next = { ...next, open };
  if (what === "kernel") next = reach(next, "kernel", at);
  if (what.startsWith("answers ") && answers.every((name) => !open.has(`answers ${name}`)))
    next = reach(next, "answers", at);
  return open.size > 0 ? next : reach({ ...next, spentAt: next.spentAt ?? at }, "installing", at);
}

function reported(
  heard: Heard,
  at: string,
  { stage, words }: Extract<BootEvent, { kind: "reported" }>,
): Heard {
  return stage === "failed"
    ? { ...heard, failedAt: heard.failedAt ?? at, why: heard.why || words }
    : reach(heard, REACHES[stage], at);
}

/**
 * What an armed machine asked for and told, as far as it was heard: a fold that goes on where it stands. What is told twice, out
 * of its order or after the end changes nothing.
 */
export class ArmingWalk {
  private constructor(
    private readonly arming: Arming,
    private readonly heard: Heard,
  ) {}

  static of = (arming: Arming): ArmingWalk => new ArmingWalk(arming, unheard(arming));

  /** The same, and what was told after it. */
  on(log: readonly LoggedBoot[]): ArmingWalk {
    if (log.length === 0) return this;
    return new ArmingWalk(
      this.arming,
      log.reduce((heard, one) => this.next(heard, one), this.heard),
    );
  }

  private next(heard: Heard, { at, event }: LoggedBoot): Heard {
    if (heard.reached.done || heard.cancelledAt) return heard;
    switch (event.kind) {
      case "asked":
        return asked(heard, at, event);
      case "fetched":
        return fetched(heard, at, event, this.arming);
      case "reported":
        return reported(heard, at, event);
      case "cancelled":
        return { ...heard, cancelledAt: at, why: event.by };
      case "refused":
        return heard;
    }
  }

  /** How far the machine is at a moment. */
  at(now: string): ArmingState {
    const { arming } = this;
    const { reached, spentAt, failedAt, cancelledAt, why, refusal, givenTo, second, wrongCode, waitsTurn } =
      this.heard;
    const begun = reached.installing ?? null;
    const status = statusOf({ reached, begun, failedAt, cancelledAt, isOver: now > arming.until });
    const isOn = status === "fetching" || status === "installing";
    const due = begun
      ? addSeconds(begun, arming.lateSeconds)
      : reached.script
        ? addSeconds(reached.script, FETCH_SECONDS)
        : null;
    return {
      ...{ status, reached, spentAt, why, refusal, givenTo, second, wrongCode, waitsTurn },
      overAt: reached.done ?? cancelledAt ?? failedAt,
      lateSince: isOn && due !== null && now > due ? due : null,
      likelyAt: isOn && begun ? addSeconds(begun, arming.likelySeconds) : null,
    };
  }
}

/** How far an armed machine is, by all that it asked for and told. */
export const armingState = (arming: Arming, log: readonly LoggedBoot[], now: string): ArmingState =>
  ArmingWalk.of(arming).on(log).at(now);

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
  if (isClosed(state)) return `the arming has ended (${state.status})`;
  if (now > arming.until) return "expired";
  return state.spentAt !== null && now > addSeconds(state.spentAt, AGAIN_SECONDS)
    ? "all files of the installation were loaded"
    : null;
}

/**
 * Why a token does not open the script of the first start, or null: it may hold what was sealed, and is read before the machine
 * tells that it is installed.
 */
export const startClosed = (state: ArmingState): string | null =>
  treeClosed(state) ?? (state.reached["first boot"] ? "already loaded by the machine" : null);

/**
 * Why a token does not open what an installation reads to its end (the tree of the image, and the image), or null: none of it
 * is secret, and an installation that was begun in time goes on after it.
 */
export const treeClosed = (state: ArmingState): string | null =>
  isClosed(state) ? `the arming has ended (${state.status})` : null;

/** Why a report is not taken any more, or null: an installation goes on telling after its files are closed. */
export const reportClosed = (state: ArmingState): string | null =>
  state.status === "cancelled" || state.status === "expired"
    ? `the arming has ended (${state.status})`
    : null;
