"use client";

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Answer } from "@/contract";
import type { RunCommand } from "@/core/run";
import type { Problem } from "@/core/result";
import { useFeed } from "../frame/feed";
import { drop, inMemory, put, takeFormer, waiting, type Shelf, type Unsent } from "./outbox";
import { predict } from "./predict";
import type { RunView } from "@/contract";

const RETRY = 2000;
/** A server that has not answered by then is said not to; what was sent is sent again under the same key. */
const PATIENCE = 15_000;
/** After this a person wonders whether the key was pressed. */
const WONDER = 1500;

const NOT_YET = "The server has not responded yet.";
const SILENT = "The server does not respond.";

/** What the server said, or why nothing was heard: null when it answered, else the sentence for a person. */
async function ask(
  url: string,
  init?: RequestInit,
): Promise<{ answer: Answer<Omit<RunView, "plan">> } | { away: string }> {
  const response = await fetch(url, { ...init, signal: AbortSignal.timeout(PATIENCE) }).catch(() => null);
  const body = (await response?.json().catch(() => null)) as Answer<Omit<RunView, "plan">> | null | undefined;
  if (!response || !body) return { away: SILENT };
  if (response.status < 500) return { answer: body };
  return { away: (!body.ok && body.problems[0]?.message) || SILENT };
}

const post = (id: string, { key, command, givenAt }: Unsent): ReturnType<typeof ask> =>
  ask(`/api/v1/runs/${id}/events`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ key, command, ageSeconds: Math.max(0, Date.now() - givenAt) / 1000 }),
  });

/** One window at a time sends what waits; where the browser has no locks, the keys alone keep answers from counting twice. */
async function alone(name: string, work: () => Promise<void>): Promise<void> {
  if (!navigator.locks) return work();
  await navigator.locks.request(name, { ifAvailable: true }, (lock) => (lock ? work() : undefined));
}

/**
 * A run in the browser. Every command is written down here before it is sent, under a key and a name of its own, and sent
 * again until the server has answered: a lost connection, a reload, a second window or a killed server loses nothing and
 * doubles nothing.
 */
export function useRun(initial: RunView) {
  const [view, setView] = useState(initial);
  const [entries, setEntries] = useState<Unsent[]>([]);
  const [away, setAway] = useState<string | null>(null);
  const [keeps, setKeeps] = useState(true);
  const [problems, setProblems] = useState<Problem[]>([]);
  const { id } = initial;
  const shelf = useRef<Shelf | null>(null);
  const store = useCallback((): Shelf => (shelf.current ??= localStorage), []);

  const count = useCallback(() => {
    const now = waiting(store(), id);
    setEntries((old) => (old.length === 0 && now.length === 0 ? old : now));
  }, [id, store]);

  // A log only grows: what an older question brings after a newer one takes nothing back.
  const take = useCallback((answer: Answer<Omit<RunView, "plan">>) => {
    if (!answer.ok) return setProblems(answer.problems);
    const { value } = answer;
    setView((old) => (value.log.length < old.log.length ? old : { ...old, ...value }));
  }, []);

  const sendAll = useCallback(async () => {
    for (let [first] = waiting(store(), id); first; [first] = waiting(store(), id)) {
      const wonder = setTimeout(() => setAway((why) => why ?? NOT_YET), WONDER);
      const said = await post(id, first);
      clearTimeout(wonder);
      if ("away" in said) return setAway(said.away);
      take(said.answer);
      drop(store(), id, first.key);
      count();
    }
    // Not before the last: a step to which answers lead that are still here would be shown as not reached yet.
    setAway(null);
  }, [id, store, take, count]);

  const send = useCallback(() => void alone(`derrick-unsent/${id}`, sendAll), [id, sendAll]);

  const say = useCallback(
    (command: RunCommand) => {
      const entry = { key: crypto.randomUUID(), command, givenAt: Date.now() };
      setProblems([]);
      try {
        put(store(), id, entry);
      } catch {
        shelf.current = inMemory();
        setKeeps(false);
        put(shelf.current, id, entry);
      }
      count();
      send();
    },
    [id, store, count, send],
  );

  /** News came while an answer of this run was on its way, from whichever window; they are fetched when it has arrived. */
  const owed = useRef(false);
  const look = useCallback(async () => {
    const isOwed = (): boolean => (owed.current = waiting(store(), id).length > 0);
    if (isOwed()) return;
    const said = await ask(`/api/v1/runs/${id}/events`);
    // An answer was given meanwhile: the step that it leads to is shown when its own answer is there, and not before.
    if (isOwed()) return;
    if ("away" in said) return setAway(said.away);
    setAway(null);
    if (said.answer.ok) take(said.answer);
  }, [id, store, take]);

  useEffect(() => {
    takeFormer(store(), id, Date.now());
    const lookAtShelf = () => {
      count();
      if (waiting(store(), id).length > 0) send();
      else if (owed.current) void look();
    };
    const first = setTimeout(lookAtShelf, 0);
    const again = setInterval(lookAtShelf, RETRY);
    // Another window has written something down, or its answers have gone out.
    addEventListener("storage", lookAtShelf);
    return () => {
      clearTimeout(first);
      clearInterval(again);
      removeEventListener("storage", lookAtShelf);
    };
  }, [id, store, count, send, look]);

  useFeed({
    changes: (changes) => {
      if (changes === null || changes.some((c) => c.kind === "run" && c.id === id)) void look();
    },
    health: (trouble) => {
      if (trouble === null && waiting(store(), id).length === 0) setAway(null);
      else if (trouble !== null) setAway(trouble);
    },
  });

  // While the server answers, what it says is shown and the next answer waits for it; while it is away, the run goes on here.
  const shown = useMemo(() => (away === null ? view : predict(view, entries)), [view, away, entries]);
  return { view: shown, say, unsent: entries.length, away, keeps, problems, refresh: take };
}

/** The time, once a second, moved by what the server's clock is ahead; null until the page is alive in the browser. */
export function useNow(serverNow: string): string {
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const ahead = Date.parse(serverNow) - Date.now();
    const timer = setInterval(() => setNow(new Date(Date.now() + ahead).toISOString()), 1000);
    return () => clearInterval(timer);
  }, [serverNow]);
  return now;
}
