"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import type { startJudge } from "./judge-thread";
import type { Ground, Judged, Sheet } from "@/core/sheet";

/** The choices by which a sheet stands on its ground: with others it needs another. */
const groundKey = ({ machine, image }: Sheet): string =>
  JSON.stringify([machine.id, image.id, image.edition]);

type Judge = ReturnType<typeof startJudge>["judge"];
export type Verdict = { judged: Judged; verdict: string } | null;

/**
 * Judges what is being typed, at once and beside the page, by the same function as the server. Where the page does not hold
 * what a sheet is judged by (another machine was just chosen, somebody wrote elsewhere), it says null, and the server's word
 * is waited for.
 */
export function useJudge(buildId: string, saved: Sheet) {
  const thread = useRef<Judge | null>(null);
  const [standsOn, setStandsOn] = useState<string | null>(null);
  /** Counts what was written elsewhere: the ground is fetched again for each. */
  const [news, setNews] = useState(0);
  const key = groundKey(saved);

  useEffect(() => {
    let end: (() => void) | null = null;
    let gone = false;
    // Only where it is wanted: the page is drawn first.
    void import("./judge-thread")
      .then((loaded) => {
        if (gone) return;
        const started = loaded.startJudge();
        thread.current = started.judge;
        end = started.end;
        setNews((n) => n + 1);
      })
      // A browser that starts none has the server's word alone.
      .catch(() => null);
    return () => {
      gone = true;
      thread.current = null;
      end?.();
    };
  }, []);

  useEffect(() => {
    const judge = thread.current;
    if (!judge) return;
    const leaving = new AbortController();
    void fetch(`/api/v1/builds/${buildId}/ground`, { signal: leaving.signal })
      .then(async (r) => (r.ok ? ((await r.json()) as Ground) : null))
      .then(async (ground) => {
        if (!ground || leaving.signal.aborted) return;
        await judge.stand(ground);
        setStandsOn(key);
      })
      // Without it the server alone judges, as it does in any case.
      .catch(() => null);
    return () => leaving.abort();
  }, [buildId, key, news]);

  return {
    /** Another function as soon as it stands on another ground, so that what was asked before is asked again. */
    judge: useCallback(
      async (sheet: Sheet): Promise<Verdict> => {
        const judge = thread.current;
        return judge && standsOn === groundKey(sheet) ? judge.judge(sheet).catch(() => null) : null;
      },
      [standsOn],
    ),
    renew: useCallback(() => {
      setStandsOn(null);
      setNews((n) => n + 1);
    }, []),
  };
}
