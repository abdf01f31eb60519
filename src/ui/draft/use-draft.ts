"use client";

import { useCallback, useEffect, useReducer, useRef, useState } from "react";
import type { Edit } from "@/core/document";
import type { Problem } from "@/core/result";
import { useLeaving } from "../frame/use-leaving";
import {
  afterEvent,
  isQuiet,
  newDraft,
  shown,
  wantsSending,
  type Draft,
  type DraftEvent,
  type Lens,
} from "./draft";

/** What a save, an undo or another act came to. */
export type DraftAnswer<V> =
  | { ok: true; view: V }
  | { ok: false; problems: Problem[]; stale?: { view: V; by: string; at: string } | null };

/** How a draft reaches the server. */
export interface DraftActions<V> {
  save(version: number, edits: Edit[]): Promise<DraftAnswer<V>>;
  /** Takes back the change that made a version. */
  takeBack(version: number): Promise<DraftAnswer<V>>;
}

/** After this pause in typing it saves by itself; after that one it tries again where nothing was answered. */
const PAUSE = 450;
const RETRY = 3000;

/** Writes down what came of an act: the other version where it clashed. */
const eventOf = <V>(answer: DraftAnswer<V>, done: "save" | "undo" | "redo"): DraftEvent<V> =>
  answer.ok
    ? { did: done, view: answer.view }
    : answer.stale
      ? { did: "clash", clash: answer.stale }
      : { did: "get refused", problems: answer.problems };

/**
 * A document that saves by itself, one request at a time. What is typed is kept until the server has it: a clash, a
 * refusal or a lost server leaves it where it is.
 */
export function useDraft<V>(initial: V, lens: Lens<V>, actions: DraftActions<V>) {
  const [draft, happen] = useReducer(
    (old: Draft<V>, event: DraftEvent<V>) => afterEvent(old, event, lens),
    initial,
    newDraft,
  );
  const { pending, sent, unanswered } = draft;
  const version = lens.version(draft.view);
  const asked = useRef(actions);
  useEffect(() => {
    asked.current = actions;
  });
  /** Something is being taken back or made again: a second key, or a save, waits until that is answered. */
  const [takingBack, setTakingBack] = useState(false);
  const ready = wantsSending(draft) && !takingBack;

  const send = async () => {
    happen({ did: "send" });
    const answer = await asked.current.save(version, [...pending]).catch(() => null);
    happen(answer ? eventOf(answer, "save") : { did: "get no answer" });
  };
  const sendNow = useRef(send);
  useEffect(() => {
    sendNow.current = ready ? send : async () => undefined;
  });
  useEffect(() => {
    if (!ready) return;
    const timer = setTimeout(() => void sendNow.current(), unanswered > 0 ? RETRY : PAUSE);
    return () => clearTimeout(timer);
  }, [ready, pending, unanswered, version]);
  // Who goes to another page before the pause is over has written it all the same.
  useEffect(() => () => void sendNow.current(), []);

  const unsaved = pending.length > 0;
  useLeaving(unsaved, () => void sendNow.current());

  const takeBack = async (which: number | undefined, done: "undo" | "redo") => {
    if (which === undefined || sent !== null || takingBack) return;
    setTakingBack(true);
    const answer = await asked.current.takeBack(which).catch(() => null);
    setTakingBack(false);
    if (answer) happen(eventOf(answer, done));
  };

  /** A change on its way is not taken back before it has arrived: the wish waits for the answer. */
  const wished = useRef(false);
  // What was typed and is not saved yet is the last change; it goes first.
  const undo = async () => {
    if (sent !== null) wished.current = true;
    else if (unsaved) happen({ did: "drop" });
    else await takeBack(draft.done.at(-1), "undo");
  };
  const undoNow = useRef(undo);
  useEffect(() => {
    undoNow.current = undo;
  });
  const arrived = sent === null && unanswered === 0 && draft.clash === null;
  useEffect(() => {
    if (!arrived || !wished.current) return;
    wished.current = false;
    void undoNow.current();
  }, [arrived]);

  return {
    draft,
    document: shown(draft, lens),
    version,
    status: !unsaved
      ? ("saved" as const)
      : draft.problems.length > 0
        ? ("refused" as const)
        : unanswered > 0 || draft.clash
          ? ("not saved" as const)
          : ("saving" as const),
    isQuiet: isQuiet(draft),
    type: useCallback((changes: Readonly<Record<string, unknown>>) => happen({ did: "type", changes }), []),
    settle: (keep: readonly Edit[]) => happen({ did: "settle", keep }),
    hear: useCallback((view: V) => happen({ did: "hear", view }), []),
    /** What another door of the page came to, such as a consent. */
    adopt: useCallback((answer: DraftAnswer<V>) => happen(eventOf(answer, "save")), []),
    canUndo: draft.done.length > 0 || unsaved,
    canRedo: (draft.dropped !== null || draft.undone.length > 0) && !unsaved,
    undo,
    redo: async () =>
      // What was given up was the last that was typed, so it is made again after all that was undone since.
      draft.undone.length === 0 && draft.dropped
        ? happen({ did: "take up" })
        : takeBack(draft.undone.at(-1), "redo"),
  };
}
