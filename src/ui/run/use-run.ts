"use client";

import { useCallback, useEffect, useState } from "react";
import type { LoggedEvent, RunCommand, RunPlan, RunState, SettledLine } from "@/core/run";
import type { Problem } from "@/core/result";

export interface RunView {
  id: string;
  buildId: string;
  plan: RunPlan;
  log: LoggedEvent[];
  state: RunState;
  hands: { at: string; what: string; late: boolean } | null;
  acceptance: SettledLine[];
  now: string;
}

type Answer = { ok: true; value: Omit<RunView, "plan"> } | { ok: false; problems: Problem[] };
type Unsent = { key: string; command: RunCommand };

const POLL = 5000;
const RETRY = 2000;

const storeName = (id: string): string => `derrick-unsent-${id}`;

function readUnsent(id: string): Unsent[] {
  try {
    return JSON.parse(localStorage.getItem(storeName(id)) ?? "[]") as Unsent[];
  } catch {
    return [];
  }
}

/**
 * A run in the browser. Every command is written down here before it is sent, under a key of its own, and sent again
 * until the server has answered: a lost connection, a reload or a killed server loses nothing and doubles nothing.
 */
export function useRun(initial: RunView) {
  const [view, setView] = useState(initial);
  const [unsent, setUnsent] = useState<Unsent[]>([]);
  const [cut, setCut] = useState(false);
  const [problems, setProblems] = useState<Problem[]>([]);
  const { id } = initial;

  useEffect(() => {
    const left = readUnsent(id);
    const timer = setTimeout(() => left.length > 0 && setUnsent(left), 0);
    return () => clearTimeout(timer);
  }, [id]);

  const say = useCallback(
    (command: RunCommand) => {
      const entry: Unsent = { key: crypto.randomUUID(), command };
      setProblems([]);
      setUnsent((before) => {
        const all = [...before, entry];
        localStorage.setItem(storeName(id), JSON.stringify(all));
        return all;
      });
    },
    [id],
  );

  const take = useCallback((answer: Answer) => {
    if (answer.ok) setView((old) => ({ ...old, ...answer.value }));
    else setProblems(answer.problems);
  }, []);

  useEffect(() => {
    const first = unsent[0];
    if (!first) return;
    let over = false;
    const send = async () => {
      const response = await fetch(`/api/v1/runs/${id}/events`, {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify(first),
      }).catch(() => null);
      if (over) return;
      if (!response || response.status >= 500) return setCut(true);
      setCut(false);
      take((await response.json()) as Answer);
      setUnsent((all) => {
        const rest = all.filter((u) => u.key !== first.key);
        localStorage.setItem(storeName(id), JSON.stringify(rest));
        return rest;
      });
    };
    const timer = setTimeout(send, 0);
    const again = setInterval(send, RETRY);
    return () => {
      over = true;
      clearTimeout(timer);
      clearInterval(again);
    };
  }, [unsent, id, take]);

  useEffect(() => {
    const timer = setInterval(async () => {
      if (document.hidden || unsent.length > 0) return;
      const response = await fetch(`/api/v1/runs/${id}/events`).catch(() => null);
      setCut(!response?.ok);
      if (response?.ok) take((await response.json()) as Answer);
    }, POLL);
    return () => clearInterval(timer);
  }, [id, unsent.length, take]);

  return { view, say, unsent: unsent.length, cut, problems, refresh: take };
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
